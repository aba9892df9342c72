/** What costs time: for how long a leak shows, held against the exact motion, from half of its most to half. */
import { costedFindings, judgeMeasured, measure } from '@sinew/core/analysis/analyze';
import { isTimed, type Cost } from '@sinew/core/judge/fault/cost';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { NO_SCHOOL, resolve } from '@sinew/core/judge/school/resolve';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { sided } from '@sinew/core/foundation/body/landmarks';
import { FAULTY_FIGHTERS, faulty, type Strength } from '../fighter/faults';
import { FORMS, type TechniqueId } from '../fighter/forms';
import { strikingEnd } from '../fighter/end';
import { formOf, mover, remembering, type Pose } from '../fighter/pose';
import type { Recipe } from '../fighter/recipe';
import { mix, size, subtract, type Point } from '../fighter/space';
import { knownTrack, type Flaws } from '../fighter/track';
import { truthOfStrike, type Truth } from '../fighter/truth';
import type { Family } from './families';

export const LASTING = [
  'over-load',
  'hand-drop',
  'slow-home',
  'guard-off-drop',
  'kick-arm-drops',
  'chin-open',
] as const;
type LastingFault = (typeof LASTING)[number];

export interface LastingTrial {
  readonly technique: TechniqueId;
  readonly fault: string;
  /** Seconds. */
  readonly truth: number;
  /** What the judge says it costs, and half of the range that holds it in nine of ten; null where it says nothing. */
  readonly said: { readonly seconds: number; readonly half: number } | null;
}

interface Thrown {
  readonly recipe: Recipe;
  readonly truth: Truth;
  readonly exact: (time: number) => Pose;
}

const STEP = 1 / 2000;

/** The stretch about its most in which something is at least half of that, seconds. */
function halves(
  at: (time: number) => number,
  [from, to]: readonly [number, number],
  until: number,
) {
  const steps = Math.round((to - from) / STEP);
  const times = Array.from({ length: steps + 1 }, (_, i) => from + i * STEP);
  const most = times.reduce((best, time) => (at(time) > at(best) ? time : best), from);
  const half = at(most) / 2;
  let [comes, goes] = [most, most];
  while (comes > 0 && at(comes) > half) comes -= STEP;
  while (goes < until && at(goes) > half) goes += STEP;
  return { comes, goes };
}

/** The plan angle of the shoulders, or of the hips. */
export function yawOf(pose: Pose, part: 'Shoulder' | 'Hip' = 'Shoulder'): number {
  const line = subtract(pose[sided('right', part)], pose[sided('left', part)]);
  return Math.atan2(line[0], line[2]);
}

/** A point as the shoulders carry it round. */
function carried([x, y, z]: Point, yaw: number): Point {
  return [x * Math.cos(yaw) - z * Math.sin(yaw), y, z * Math.cos(yaw) + x * Math.sin(yaw)];
}

const farOf = (now: Point, before: Point) => size(subtract(now, before));

/** The hand against its own shoulder, on one axis, since guard. */
function backOf({ recipe, exact, truth }: Thrown, axis: 0 | 1): (time: number) => number {
  const striking = formOf(recipe).striking;
  const end = strikingEnd(truth.technique, striking);
  const offset = (pose: Pose) => end(pose)[axis] - pose[sided(striking, 'Shoulder')][axis];
  return (time) => offset(exact(0)) - offset(exact(time));
}

/** The other hand against its temple, since guard: as the room has it, or as the shoulders carry it. */
function leftOf({ recipe, exact }: Thrown): (time: number) => number {
  const off = formOf(recipe).striking === 'left' ? 'right' : 'left';
  const place = (pose: Pose) =>
    subtract(pose[sided(off, 'Wrist')], mix(pose[sided(off, 'Ear')], pose.nose, 0.5));
  const guard = exact(0);
  return (time) => {
    const pose = exact(time);
    const own = carried(place(pose), yawOf(pose) - yawOf(guard));
    return Math.min(farOf(place(pose), place(guard)), farOf(own, place(guard)));
  };
}

function lowOf({ recipe, exact }: Thrown): (time: number) => number {
  const off = formOf(recipe).striking === 'left' ? 'right' : 'left';
  const height = (pose: Pose) => pose[sided(off, 'Wrist')][1] - pose.nose[1];
  return (time) => height(exact(0)) - height(exact(time));
}

/** The hand of the kicking side as the shoulders carry it, since guard. */
function goneOf({ recipe, exact }: Thrown): (time: number) => number {
  const side = formOf(recipe).striking;
  const seen = (pose: Pose) =>
    carried(subtract(pose[sided(side, 'Wrist')], pose[sided(side, 'Shoulder')]), yawOf(pose));
  return (time) => farOf(seen(exact(time)), seen(exact(0)));
}

/** The striking hand, since guard. */
function outOf({ recipe, exact }: Thrown): (time: number) => number {
  const wrist = sided(formOf(recipe).striking, 'Wrist');
  return (time) => farOf(exact(time)[wrist], exact(0)[wrist]);
}

/** @param way how the judge has seen it */
function truthOf(fault: LastingFault, way: string, thrown: Thrown): number {
  const { arm, trunk, contact, end, home } = thrown.truth.times;
  const leaves = arm ?? trunk!;
  const away = (at: (time: number) => number, [from, to]: readonly [number, number]) => {
    const { comes, goes } = halves(at, [from, to], home!);
    return goes - comes;
  };
  switch (fault) {
    case 'over-load':
    case 'hand-drop':
      return (
        leaves - halves(backOf(thrown, fault === 'over-load' ? 0 : 1), [0, leaves], leaves).comes
      );
    case 'slow-home':
      return home! - end! - (contact! - arm!);
    case 'guard-off-drop':
      return away(way === 'drops' ? lowOf(thrown) : leftOf(thrown), [leaves, contact!]);
    case 'kick-arm-drops':
      return away(goneOf(thrown), [contact!, contact!]);
    case 'chin-open':
      return away(outOf(thrown), [contact!, contact!]);
  }
}

export function saidOf(cost: Cost | null): LastingTrial['said'] {
  if (!isTimed(cost)) return null;
  return { seconds: cost.seconds, half: (cost.secondsHigh - cost.secondsLow) / 2 };
}

/** Contact told on its frame, all else read off the points. */
export function lastingTrials(
  family: Family,
  { rate, noise, flaws }: { readonly rate: number; readonly noise: number; readonly flaws?: Flaws },
  strengths: readonly Strength[],
  seeds: readonly number[],
  among: readonly TechniqueId[] = Object.keys(FORMS) as TechniqueId[],
): readonly LastingTrial[] {
  return LASTING.flatMap((fault) => {
    const fighter = FAULTY_FIGHTERS.find((one) => one.fault === fault)!;
    const { school = {}, situation = 'not-said', techniques } = fighter;
    const rules = { ...USUAL_RULES, school: resolve({ ...NO_SCHOOL, gym: school, situation }) };
    const own = techniques.filter((technique) => among.includes(technique));
    return own.flatMap((technique) =>
      strengths.flatMap((strength) =>
        seeds.flatMap((seed): LastingTrial[] => {
          const recipe = family.of(faulty(fighter, technique, strength), seed);
          const truth = truthOfStrike(recipe);
          const track = knownTrack(recipe, { rate, noise, seed, flaws });
          const frame = nearestFrame(track.frameTimes, recipe.contact);
          const facts = {
            strike: { technique: truth.technique, side: truth.side, stance: recipe.stance },
            track,
            marks: { contact: markOnFrame(track.frameTimes, frame) },
            body: { mass: null, height: recipe.height },
          };
          const measured = measure(facts);
          const [found] = costedFindings(
            measured,
            judgeMeasured(measured, facts.strike, rules).filter(
              (one) => one.fault === fault && one.status === 'found',
            ),
            facts,
            rules,
          );
          if (!found) return [];
          const exact = remembering(mover(recipe));
          return [
            {
              technique,
              fault,
              truth: truthOf(fault, found.way, { recipe, truth, exact }),
              said: saidOf(found.cost),
            },
          ];
        }),
      ),
    );
  });
}
