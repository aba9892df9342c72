/** What a strike's readings tell the chain model, or the first thing that it lacks. */
import type { EventMark, Events } from '../../measure/events/events';
import type { Body } from '../../measure/measures/context';
import type { Readings } from '../../measure/measures/allMeasures';
import { absent, isAbsent, type Absent } from '../../foundation/reading/reading';
import type { Technique } from '../../foundation/technique/techniques';
import { bodyModel, isModelled } from './body';
import type { Observed } from './fit';
import type { Model } from './strike';

/** The most that a limb is taken to be stretched, a share of its length: beyond it the model may never arrive. */
const FULL_REACH = 0.985;
/** What a straight lands at where it was not measured (common practice, no source), and its doubt. */
const USUAL_REACH = 0.95;
const UNKNOWN_REACH = 0.05;

export interface Seen {
  /** An ordinary body's, of the student's size, in the strike's own guard. */
  readonly model: Model;
  readonly observed: Observed;
  /** One standard deviation of each of them. */
  readonly sigmas: Observed;
}

export function observe(
  technique: Technique,
  events: Events,
  readings: Readings,
  { height, mass }: Body,
): Seen | Absent {
  if (!isModelled(technique)) {
    return absent(
      `A ${technique.name.toLowerCase()} does not go round the upright: the chain model has no part for it.`,
    );
  }
  if (height === null || mass === null) return absent('Enter the student’s height and mass.');
  const isKick = technique.family === 'kick';
  const speed = readings['speed.contact'];
  const pelvis = readings['turn.pelvis'];
  const trunk = readings['turn.trunk'];
  const guard = readings['angle.ready'];
  for (const one of [speed, pelvis, guard, ...(isKick ? [] : [trunk])]) {
    if (isAbsent(one)) return one;
  }
  const { hips, contact } = events;
  const starts = [hips, events.trunk, events.arm];
  if (!contact || starts.some((mark) => !mark)) {
    return absent('Mark the starts of hips, trunk and limb, and contact.');
  }
  const marks = starts as EventMark[];
  const part = (id: keyof Readings, of: 'value' | 'sigma') => {
    const one = readings[id];
    return isAbsent(one) ? null : one[of];
  };
  const model = bodyModel(
    technique,
    { height, mass },
    part('angle.ready', 'value')!,
    carried(part(isKick ? 'kick.fold' : 'elbow.contact', 'value'), part('elbow.drift', 'value')),
  );
  const isAimed = model.meets.at === 'reach';
  return {
    model,
    observed: {
      speed: part('speed.contact', 'value')!,
      contact: contact.time - hips!.time,
      pelvisTurn: part('turn.pelvis', 'value')!,
      // The model starts from the guard, not from the coil.
      trunkTurn: isKick
        ? null
        : part('turn.trunk', 'value')! - Math.max(0, part('coil', 'value') ?? 0),
      onsets: marks.map(({ time }) => time - hips!.time),
      reach: isAimed ? Math.min(FULL_REACH, part('reach', 'value') ?? USUAL_REACH) : null,
      drift: part('elbow.drift', 'value'),
      step: Math.max(0, part('share.step', 'value') ?? 0),
    },
    sigmas: {
      speed: part('speed.contact', 'sigma')!,
      contact: contact.sigma,
      pelvisTurn: part('turn.pelvis', 'sigma')!,
      trunkTurn: isKick
        ? null
        : Math.hypot(part('turn.trunk', 'sigma')!, part('coil', 'sigma') ?? 0),
      onsets: marks.map(({ sigma }) => sigma),
      reach: isAimed ? (part('reach', 'sigma') ?? UNKNOWN_REACH) : null,
      drift: part('elbow.drift', 'sigma'),
      step: part('share.step', 'sigma') ?? 0,
    },
  };
}

/** The last joint’s inner angle before it gives, radians. */
function carried(bend: number | null, drift: number | null): number | null {
  return bend === null ? null : bend - (drift ?? 0);
}

/**
 * The strike as it may also have been.
 *
 * @param deviate normal deviates
 */
export function drawnFrom({ observed, sigmas }: Seen, deviate: () => number): Observed {
  const near = (value: number, sigma: number) => value + sigma * deviate();
  const nearOrNone = (value: number | null, sigma: number | null) =>
    value === null ? null : near(value, sigma ?? 0);
  // All times count from the start of the hips, so its own doubt is in each of them.
  const hips = near(0, sigmas.onsets[0]!);
  const reach = nearOrNone(observed.reach, sigmas.reach);
  return {
    speed: Math.max(0.1 * observed.speed, near(observed.speed, sigmas.speed)),
    contact: near(observed.contact, sigmas.contact) - hips,
    pelvisTurn: near(observed.pelvisTurn, sigmas.pelvisTurn),
    trunkTurn: nearOrNone(observed.trunkTurn, sigmas.trunkTurn),
    onsets: observed.onsets.map((time, i) => (i === 0 ? 0 : near(time, sigmas.onsets[i]!) - hips)),
    reach: reach === null ? null : Math.min(FULL_REACH, reach),
    drift: nearOrNone(observed.drift, sigmas.drift),
    step: Math.max(0, near(observed.step, sigmas.step)),
  };
}
