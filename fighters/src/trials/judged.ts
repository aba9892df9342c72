/** Fighters with faults put in, judged: what is found, missed, made up, and left open. */
import { judgeMeasured, measure, type Analysis } from '@sinew/core/analysis/analyze';
import { EVENTS, markOnFrame, type Events } from '@sinew/core/measure/events/events';
import { USUAL_RULES, type Outcome, type Rules } from '@sinew/core/judge/fault/finding';
import { NO_SCHOOL, resolve } from '@sinew/core/judge/school/resolve';
import { techniqueById, VIEWS, type View } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { FORMS, type TechniqueId } from '../fighter/forms';
import { FAULTY_FIGHTERS, faulty, type FaultyFighter, type Strength } from '../fighter/faults';
import { knownPicture } from '../fighter/picture';
import { formOf, knownTimes } from '../fighter/pose';
import { clean, type Recipe } from '../fighter/recipe';
import { knownTrack, type Flaws } from '../fighter/track';
import { FAMILIES, REAL, type Family } from './families';

export interface Filming {
  readonly name: string;
  /** In space, or a single view. */
  readonly view: View | '3d';
  /** Frames a second. */
  readonly rate: number;
  /** Metres, one standard deviation of every coordinate. */
  readonly noise: number;
  /** All instants marked on their frames, or contact only. */
  readonly isMarked: boolean;
  /** Whose bodies they are; the first family's when not said. */
  readonly family?: Family;
  /** What the noise in space is like beside its size; none of that when not said. */
  readonly flaws?: Flaws;
}

export interface Said {
  readonly fault: string;
  readonly technique: TechniqueId;
  readonly strength: Strength;
  /** What was said of the fault that is there; null when it is not judged. */
  readonly outcome: Outcome | null;
  /** Faults found that are not there. */
  readonly made: readonly string[];
}

function rulesFor(fault: FaultyFighter | null): Rules {
  const { school = {}, situation = 'not-said', audit = {} } = fault ?? {};
  return { ...USUAL_RULES, school: resolve({ ...NO_SCHOOL, gym: school, situation }), audit };
}

/**
 * The made-up lead thrust elbow goes only 2 cm on past contact: it is no sound strike, and is not thrown.
 *
 * @param seed odd: orthodox; of elbows and kicks every second pair is thrown with the lead side
 */
function varied(recipe: Recipe, seed: number): Recipe {
  const { technique } = recipe;
  const { family } = techniqueById(technique);
  const isEither = (family === 'elbow' || family === 'kick') && technique !== 'elbow-thrust';
  return {
    ...recipe,
    stance: seed % 2 === 0 ? 'southpaw' : 'orthodox',
    by: isEither && seed % 4 > 1 ? 'lead' : recipe.by,
  };
}

function judged(still: Recipe, filming: Filming, rules: Rules, seed: number): Analysis {
  const { view, rate, noise, isMarked, family, flaws } = filming;
  const recipe = family ? family.of(still, seed) : still;
  const technique = techniqueById(recipe.technique);
  const own = formOf(recipe).striking;
  const isMirrored = recipe.stance === 'southpaw';
  const side = isMirrored ? (own === 'left' ? 'right' : 'left') : own;
  const sampling = { rate, noise, seed };
  const film =
    view === '3d'
      ? { track: knownTrack(recipe, { ...sampling, flaws }) }
      : knownPicture(recipe, view, sampling);
  const { frameTimes } = film.track;
  const times = knownTimes(recipe);
  const on = (time: number) => markOnFrame(frameTimes, nearestFrame(frameTimes, time));
  // Of a kick the made-up coach marks only what its own times name: contact, end and home.
  const isKick = technique.family === 'kick';
  const names = isMarked && !isKick ? EVENTS : (['contact'] as const);
  const marks: Events = Object.fromEntries(names.map((name) => [name, on(times[name])]));
  const strike = { technique, side, stance: recipe.stance } as const;
  const given = { strike, marks, rules, body: { mass: 70, height: recipe.height } };
  const measured =
    'calibration' in film
      ? measure({ ...given, track: film.track, calibration: film.calibration })
      : measure({ ...given, track: film.track });
  return { ...measured, findings: judgeMeasured(measured, strike, rules) };
}

const found = ({ findings }: Analysis) =>
  findings.filter(({ status }) => status === 'found').map(({ fault }) => fault);

/**
 * Known faults, all if not said which, in every strike that can have them, at some strengths.
 *
 * @param draws how many draws of the noise each is seen in; stance and side change with the draw
 */
export function faultsJudged(
  filming: Filming,
  strengths: readonly Strength[],
  among?: readonly string[],
  draws = 1,
): Said[] {
  let seed = 0;
  const fighters = FAULTY_FIGHTERS.filter(({ fault }) => !among || among.includes(fault));
  const thrown = fighters.flatMap((fighter) =>
    strengths.flatMap((strength) =>
      fighter.techniques.map((technique) => ({ fighter, strength, technique })),
    ),
  );
  return Array.from({ length: draws }, () => thrown).flatMap((all) =>
    all.map(({ fighter, strength, technique }): Said => {
      const recipe = faulty(fighter, technique, strength, varied(clean(technique), ++seed));
      const analysis = judged(recipe, filming, rulesFor(fighter), seed);
      const said = analysis.findings.find(({ fault }) => fault === fighter.fault);
      const made = found(analysis).filter(
        (fault) => fault !== fighter.fault && !fighter.also?.includes(fault),
      );
      return { fault: fighter.fault, technique, strength, outcome: said?.status ?? null, made };
    }),
  );
}

export interface CleanSaid {
  readonly technique: TechniqueId;
  readonly made: readonly string[];
  /** How many faults were judged, and how many of them could be told. */
  readonly judged: number;
  readonly told: number;
}

/** Every technique without a fault. */
export function cleanJudged(filming: Filming, seeds: readonly number[]): CleanSaid[] {
  return (Object.keys(FORMS) as TechniqueId[]).flatMap((technique) =>
    seeds.map((seed) => {
      const analysis = judged(varied(clean(technique), seed), filming, rulesFor(null), seed);
      const { findings } = analysis;
      return {
        technique,
        made: found(analysis),
        judged: findings.length,
        told: findings.filter(({ status }) => status !== 'cant-tell').length,
      };
    }),
  );
}

export const SPACE: readonly Filming[] = [60, 120, 240].flatMap((rate) =>
  [true, false].map((isMarked) => ({
    name: `3D, ${rate} a second, ${isMarked ? 'instants marked' : 'contact only'}`,
    view: '3d' as const,
    rate,
    noise: 0.002,
    isMarked,
  })),
);

/** As good as without noise: every leak that is put in is to be seen in it. */
export const EXACT: Filming = {
  name: '3D, 240 a second, instants marked, noise 0.1 mm',
  view: '3d',
  rate: 240,
  noise: 0.0001,
  isMarked: true,
};

export const FLAT: readonly Filming[] = VIEWS.map((view) => ({
  name: `from ${view === 'side' || view === 'front' ? `the ${view}` : view}, 240 a second, instants marked`,
  view,
  rate: 240,
  noise: 0.002,
  isMarked: true,
}));

/** The other families' bodies, as a tracker or a marker system sees them. */
export const MOVED: readonly Filming[] = FAMILIES.slice(1).flatMap((family) =>
  [240, 120].map((rate) => ({
    name: `3D, ${rate} a second, contact only, ${family.id} bodies with flaws`,
    view: '3d' as const,
    rate,
    noise: 0.002,
    isMarked: false,
    family,
    flaws: REAL,
  })),
);
