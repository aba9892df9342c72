/** What a strike's readings tell the chain model, or the first thing that it lacks. */
import type { EventMark, Events } from '../../measure/events/events';
import type { Body } from '../../measure/measures/context';
import type { Readings } from '../../measure/measures/allMeasures';
import { absent, isAbsent, type Absent } from '../../foundation/reading/reading';
import type { Technique } from '../../foundation/technique/techniques';
import { bodyModel, isModelled } from './body';
import type { Observed } from './fit';
import type { Model } from './strike';

export interface Seen {
  /** An ordinary body's, of the student's size, in the strike's own guard. */
  readonly model: Model;
  readonly observed: Observed;
  /** One standard deviation of each start, seconds. */
  readonly sigmas: readonly number[];
}

export function observe(
  technique: Technique,
  events: Events,
  readings: Readings,
  { height, mass }: Body,
): Seen | Absent {
  if (!isModelled(technique)) {
    return absent(`A ${technique.name.toLowerCase()} does not stay in one plane: it has no model.`);
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
  const valueOf = (id: keyof Readings) => {
    const one = readings[id];
    return isAbsent(one) ? null : one.value;
  };
  const onsets = marks.map(({ time }) => time - hips!.time);
  const model = bodyModel(technique, { height, mass }, valueOf('angle.ready')!);
  return {
    model,
    observed: {
      speed: valueOf('speed.contact')!,
      contact: contact.time - hips!.time,
      pelvisTurn: valueOf('turn.pelvis')!,
      // The model starts from the guard, not from the coil.
      trunkTurn: isKick ? null : valueOf('turn.trunk')! - Math.max(0, valueOf('coil') ?? 0),
      onsets,
      reach: model.meets.at === 'reach' ? Math.min(0.985, valueOf('reach') ?? 0.95) : null,
      drift: valueOf('elbow.drift'),
      step: Math.max(0, valueOf('share.step') ?? 0),
    },
    sigmas: marks.map(({ sigma }) => sigma),
  };
}
