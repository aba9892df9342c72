/** The worked examples of CONTRIBUTING.md, done just as they stand there. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { analyze } from '../src/analysis/analyze';
import { seeStrike } from '../src/analysis/seenStrike';
import { isPresent } from '../src/foundation/reading/reading';
import { techniqueById, techniqueSchema } from '../src/foundation/technique/techniques';
import { CATALOGUE } from '../src/judge/fault/faults';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { catalogueSchema, type FaultRow } from '../src/judge/fault/schema';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { run, type Measure } from '../src/measure/measures/run';

const recipe = clean('cross');
const track = knownTrack(recipe, { rate: 240, noise: 0.002, seed: 1 });
const cross = techniqueById('cross');

describe('a new technique', () => {
  // #region technique
  const lowCross = {
    ...cross,
    id: 'low-cross',
    name: 'Cross to the body',
  };
  // #endregion

  it('is a row, and is measured like every other', () => {
    const technique = techniqueSchema.parse(lowCross);
    const { events, readings } = analyze({
      strike: { technique, side: 'right' },
      track,
      marks: {},
    });
    expect(events.contact!.time).toBeCloseTo(recipe.contact, 2);
    expect(isPresent(readings['speed.contact'])).toBe(true);
  });
});

describe('a new fault', () => {
  // #region fault
  const slowHands: FaultRow = {
    id: 'slow-hands',
    name: 'Slow hands',
    headline: 'The hand takes its time.',
    techniques: ['cross'],
    link: 'fist',
    phase: 'accelerate',
    cases: [
      {
        id: 'cross',
        limits: [{ reading: 'speed.contact', is: 'below', value: 30 }],
        evidence: 'The fist arrives at {speed.contact}. {limit} is the least.',
        clear: 'The fist arrives at {speed.contact}.',
      },
    ],
    why: 'Speed is half of what arrives.',
    cue: 'Throw it, do not carry it.',
    drill: 'feet-to-hips',
  };
  // #endregion

  it('is a row, found beyond its limit, and told with its reading', () => {
    const catalogue = catalogueSchema.parse({
      ...CATALOGUE,
      faults: [...CATALOGUE.faults, slowHands],
    });
    const { findings, readings } = analyze({
      strike: { technique: cross, side: 'right' },
      track,
      marks: {},
      rules: { ...USUAL_RULES, catalogue },
    });
    const found = findings.find(({ fault }) => fault === 'slow-hands')!;
    expect(found.status).toBe('found');
    expect(found.evidence).toMatch(
      /^The fist arrives at [\d.]+ ± [\d.]+ m\/s\. 30\.0 m\/s is the least\.$/,
    );
    expect(found.judgedBy[0]!.measured).toEqual(readings['speed.contact']);
  });
});

describe('a new measure', () => {
  // #region measure
  const noseDrop = {
    id: 'nose.drop',
    name: 'Drop of the nose to contact',
    unit: 'm',
    needs: 'up',
    shows: 'how far the head sinks',
    isMetric: true,
    value: (probe) =>
      probe.at('nose', probe.event('ready'))[1]! - probe.at('nose', probe.event('contact'))[1]!,
  } satisfies Measure<'nose.drop'>;
  // #endregion

  it('is a plain function, and gets its σ by itself', () => {
    const strike = { technique: cross, side: 'right' } as const;
    const { motion, events } = seeStrike({ track }, strike, {});
    const reading = run(noseDrop, { strike, motion, events, body: UNKNOWN_BODY });
    if (!isPresent(reading)) throw new Error(reading.absent);
    expect(reading.source).toBe('measured-3d');
    expect(reading.sigma).toBeGreaterThan(0);
    expect(reading.sigma).toBeLessThan(0.01);
  });
});

it('CONTRIBUTING.md shows these very lines', () => {
  const guide = readFileSync(new URL('../../CONTRIBUTING.md', import.meta.url), 'utf8');
  const here = readFileSync(new URL(import.meta.url), 'utf8');
  const flat = (text: string) => text.replace(/\s+/g, ' ').trim();
  for (const [, name, code] of here.matchAll(
    /\/\/ #region (\w+)\n([\s\S]*?)\n\s*\/\/ #endregion/g,
  )) {
    expect(flat(guide), name).toContain(flat(code!));
  }
});
