/** A landmark file of a laboratory, on its way to a film. */
import { Problem, problemOut } from '@sinew/core/foundation/problem/problem';
import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { writeCsv } from '@sinew/core/format/csv';
import { likelyNaming } from '@sinew/core/format/naming';
import { readTrackJson, writeTrackJson } from '@sinew/core/format/trackJson';
import { writeTrc } from '@sinew/core/format/trc';
import type { SpaceTrack } from '@sinew/core/observe/track/track';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import {
  openSeries,
  sendSeries,
  TOWARD,
  trackOf,
  UP,
  type OpenedSeries,
} from '@/screens/bench/document/seriesFile';

const track: SpaceTrack = knownTrack(clean('cross', { contact: 0.4 }), {
  rate: 60,
  noise: 0,
  seed: 1,
});
const file = (text: string, name: string) => new File([text], name);

async function opened(text: string, name: string): Promise<OpenedSeries> {
  const answer = await openSeries(file(text, name));
  if ('problem' in answer) throw new Error(answer.problem);
  return answer;
}

/** The same body as a laboratory has it whose axes stand otherwise: row k is our axis k in theirs. */
function inTheirAxes(rows: readonly (readonly number[])[]): SpaceTrack {
  const points = Object.entries(track.points).map(([name, own]) => {
    const theirs = [0, 1, 2].map((axis) =>
      own.x.map(
        (x, i) => rows[0]![axis]! * x + rows[1]![axis]! * own.y[i]! + rows[2]![axis]! * own.z![i]!,
      ),
    );
    return [name, { ...own, x: theirs[0]!, y: theirs[1]!, z: theirs[2]! }];
  });
  return { ...track, points: Object.fromEntries(points) as SpaceTrack['points'] };
}

describe('a landmark file', () => {
  it.each([
    ['take.trc', () => writeTrc(track, 'take.trc'), 'trc'],
    ['take.csv', () => writeCsv(track, 'wide'), 'csv'],
    ['long.csv', () => writeCsv(track, 'long'), 'csv'],
    ['track.json', () => writeTrackJson(track), 'json'],
    // Whatever it is called, it is what it says it is.
    ['take.txt', () => writeTrc(track, 'take.trc'), 'trc'],
  ] as const)('%s is told by its name and by what is in it', async (name, write, kind) => {
    const answer = await opened(write(), name);
    expect(answer).toMatchObject({ fileName: name, kind, isSpace: true });
    expect(answer.names).toContain('rightElbow');
  });

  it('of a picture has no third axis', async () => {
    const text = 'frame,time,nose_x,nose_y\n0,0,10,20\n1,0.1,11,21\n';
    const answer = await opened(text, 'picture.csv');
    expect(answer).toMatchObject({ isSpace: false, names: ['nose'] });
    const made = trackOf(answer, likelyNaming(answer.names), { up: 'y', toward: 'x' });
    expect('json' in made && readTrackJson(made.json).space).toBe('2d');
  });

  it.each([
    ['nothing', '', 'empty.csv'],
    ['no table', 'Dear coach,\nthe file is attached.', 'letter.csv'],
    ['cut JSON', '{"format": "sinew-track", "ver', 'track.json'],
  ])('with %s in it is refused in a sentence', async (_, text, name) => {
    const answer = await openSeries(file(text, name));
    expect('problem' in answer && answer.problem).toMatch(/^[A-Z].*\.$/s);
  });

  it('is read for whichever way the laboratory’s axes point', async () => {
    const ways = UP.flatMap((up) =>
      TOWARD.filter((toward) => !toward.endsWith(up)).map((toward) => ({ up, toward })),
    );
    expect(ways).toHaveLength(12);
    for (const way of ways) {
      const unit = (axis: string) =>
        ['x', 'y', 'z'].map((one) => (axis.endsWith(one) ? (axis.startsWith('-') ? -1 : 1) : 0));
      const [t, u] = [unit(way.toward), unit(way.up)] as [number[], number[]];
      // To the right of one who faces the target: a right-handed third.
      const right = [
        t[1]! * u[2]! - t[2]! * u[1]!,
        t[2]! * u[0]! - t[0]! * u[2]!,
        t[0]! * u[1]! - t[1]! * u[0]!,
      ];
      const theirs = inTheirAxes([t, u, right]);
      const answer = await opened(writeTrc(theirs, 'lab.trc'), 'lab.trc');
      const made = trackOf(answer, likelyNaming(answer.names), way);
      if ('problem' in made) throw new Error(made.problem);
      const back = readTrackJson(made.json) as SpaceTrack;
      for (const name of ['nose', 'rightWrist', 'leftToe'] as const) {
        (['x', 'y', 'z'] as const).forEach((axis) =>
          back.points[name]![axis]!.forEach((value, i) =>
            expect(value).toBeCloseTo(track.points[name]![axis]![i]!, 5),
          ),
        );
      }
    }
  });

  it('never brings the page down, whatever is in it', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.oneof(fc.string(), fc.string({ unit: 'binary', maxLength: 400 })),
        fc.constantFrom('a.csv', 'a.trc', 'a.json', 'a'),
        async (text, name) => {
          const answer = await openSeries(file(text, name));
          if ('problem' in answer) return;
          const made = trackOf(answer, likelyNaming(answer.names), { up: 'y', toward: 'x' });
          expect('problem' in made || typeof made.json === 'string').toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('sending it', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says in words that the server is gone, or what it said', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new Error('gone')));
    expect(await sendSeries('c', 'a.trc', 0, '{}')).toEqual({
      problem: expect.stringMatching(/^Sinew does not answer\. What was kept before is safe\./),
    });
    const refused = problemOut(new Problem('refused', { happened: 'Too long.' }));
    vi.stubGlobal('fetch', async () => Response.json(refused, { status: 422 }));
    expect(await sendSeries('c', 'a.trc', 0, '{}')).toEqual({ problem: 'Too long.' });
  });
});
