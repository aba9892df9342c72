/** Two coaches in one clip: what they changed apart is kept, what they changed both is named. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  EMPTY_DOCUMENT,
  clipDocumentSchema,
  type ClipDocument,
  type StrikeDocument,
} from '@sinew/core/analysis/clipDocument';
import type { Drawing } from '@sinew/core/analysis/drawing';
import { merge } from '@/screens/bench/document/merge';

const strike = (id: string, change: Partial<StrikeDocument> = {}): StrikeDocument => ({
  id,
  technique: 'cross',
  side: 'right',
  marks: { hips: { frame: 10, width: 1 }, contact: { frame: 40, width: 1 } },
  ...change,
});
const BASE: ClipDocument = {
  ...EMPTY_DOCUMENT,
  strikes: [strike('a'), strike('b')],
  placed: [{ landmark: 'leftKnee', frame: 3, x: 1, y: 2 }],
};
const withMark = (document: ClipDocument, id: string, frame: number): ClipDocument => ({
  ...document,
  strikes: document.strikes.map((one) =>
    one.id === id ? { ...one, marks: { ...one.marks, contact: { frame, width: 1 } } } : one,
  ),
});

describe('two benches made from one', () => {
  it('keep both where they do not meet', () => {
    const mine = withMark({ ...BASE, view: 'front' }, 'a', 41);
    const theirs: ClipDocument = {
      ...withMark(BASE, 'b', 44),
      intent: 'full',
      placed: [...BASE.placed, { landmark: 'leftKnee', frame: 4, x: 5, y: 6 }],
      strikes: [...withMark(BASE, 'b', 44).strikes, strike('c')],
    };
    const { document, meets } = merge(BASE, mine, theirs);
    expect(meets).toEqual([]);
    expect(clipDocumentSchema.parse(document)).toEqual(document);
    expect(document.view).toBe('front');
    expect(document.intent).toBe('full');
    expect(document.placed).toHaveLength(2);
    expect(document.strikes.map(({ id, marks }) => [id, marks.contact?.frame])).toEqual([
      ['a', 41],
      ['b', 44],
      ['c', 40],
    ]);
  });

  it('keep what both have drawn', () => {
    const drawing = (id: string): Drawing => ({
      id,
      kind: 'line',
      frame: 3,
      points: [
        { x: 0, y: 0 },
        { x: 9, y: 9 },
      ],
    });
    const [mine, theirs] = ['m', 't'].map((id) => ({ ...BASE, drawings: [drawing(id)] }));
    const { document, meets } = merge(BASE, mine!, theirs!);
    expect(meets).toEqual([]);
    expect(document.drawings!.map(({ id }) => id).sort()).toEqual(['m', 't']);
    expect(merge(mine!, BASE, mine!).document.drawings).toBeUndefined();
  });

  it('name what both have set, by what it is called on the bench; alike is no meeting', () => {
    const met = (mine: ClipDocument, theirs: ClipDocument) => merge(BASE, mine, theirs).meets;
    expect(met(withMark(BASE, 'b', 41), withMark(BASE, 'b', 42))).toEqual([
      '“contact” of strike 2',
    ]);
    expect(met(withMark(BASE, 'b', 41), withMark(BASE, 'b', 41))).toEqual([]);
    expect(met({ ...BASE, view: 'front' }, { ...BASE, view: 'behind' })).toEqual([
      'from where it was filmed',
    ]);
    const knee = (x: number) => ({ ...BASE, placed: [{ ...BASE.placed[0]!, x }] });
    expect(met(knee(7), knee(8))).toEqual(['the left knee on frame 3']);
    expect(met({ ...BASE, placed: [] }, knee(8))).toEqual(['the left knee on frame 3']);
  });

  it('keep a taken away strike away, and say so when the other has worked on it', () => {
    const without = { ...BASE, strikes: [BASE.strikes[0]!] };
    expect(merge(BASE, without, { ...BASE, view: 'front' })).toMatchObject({
      meets: [],
      document: { view: 'front', strikes: [{ id: 'a' }] },
    });
    expect(merge(BASE, { ...BASE, view: 'front' }, without).document.strikes).toHaveLength(1);
    expect(merge(BASE, without, withMark(BASE, 'b', 44)).meets).toEqual(['strike 2']);
    expect(merge(BASE, withMark(BASE, 'b', 44), without).meets).toEqual(['strike 2']);
  });

  const changed = fc
    .record({
      view: fc.constantFrom('side', 'front', 'behind', 'above'),
      first: fc.integer({ min: 20, max: 24 }),
      second: fc.integer({ min: 20, max: 24 }),
      hasSecond: fc.boolean(),
      points: fc.uniqueArray(fc.integer({ min: 0, max: 4 })),
      shield: fc.boolean(),
    })
    .map(({ view, first, second, hasSecond, points, shield }): ClipDocument => {
      const marked = withMark(withMark(BASE, 'a', first), 'b', second);
      return {
        ...marked,
        view: view as ClipDocument['view'],
        strikes: marked.strikes
          .filter(({ id }) => id === 'a' || hasSecond)
          .map((one) => ({ ...one, ...(shield && { school: { head: 'quiet' } }) })),
        placed: points.map((frame) => ({ landmark: 'nose', frame, x: 1, y: 1 })),
      };
    });
  const sorted = (document: ClipDocument) => ({
    ...document,
    placed: [...document.placed].sort((a, b) => a.frame - b.frame),
  });

  it('take over all of one when the other has changed nothing, and are one when they are alike', () => {
    fc.assert(
      fc.property(changed, (one) => {
        for (const [mine, theirs] of [
          [one, BASE],
          [BASE, one],
          [one, one],
        ] as const) {
          const { document, meets } = merge(BASE, mine, theirs);
          expect(meets).toEqual([]);
          expect(sorted(document)).toEqual(sorted(one));
        }
      }),
    );
  });

  it('come to the same whoever saves first, where they do not meet', () => {
    fc.assert(
      fc.property(changed, changed, (one, other) => {
        const [a, b] = [merge(BASE, one, other), merge(BASE, other, one)];
        expect([...a.meets].sort()).toEqual([...b.meets].sort());
        if (a.meets.length === 0) expect(sorted(a.document)).toEqual(sorted(b.document));
        expect(clipDocumentSchema.safeParse(a.document).success).toBe(true);
      }),
    );
  });
});
