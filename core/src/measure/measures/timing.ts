/** Durations and leads: what the instants alone tell. */
import type { AnyEvent } from '../events/events';
import { PHASES, type PhaseId } from '../events/phases';
import { absent } from '../../foundation/reading/reading';
import { MissingInput, type MeasureProbe } from './probe';
import type { Measure } from './run';

const FROM_EVENTS = { unit: 's', needs: 'any', shows: 'timing', isMetric: false } as const;

/** Time from one event to another; negative when the second came first. */
function lead<Id extends string>(id: Id, name: string, from: AnyEvent, to: AnyEvent) {
  return {
    ...FROM_EVENTS,
    id,
    name,
    value: (probe) => probe.span(from, to),
  } satisfies Measure<Id>;
}

/** Duration of a phase. A phase whose end precedes its start did not take place. */
function phase<Id extends PhaseId>(id: Id) {
  const { name, from, to } = PHASES.find((one) => one.id === id)!;
  return {
    ...FROM_EVENTS,
    id: `phase.${id}` as const,
    name,
    value: (probe) => {
      const span = probe.span(from, to);
      if (span >= 0) return span;
      throw new MissingInput(
        absent(`There is no ${name.toLowerCase()} phase: “${to}” comes before “${from}”.`),
      );
    },
  } satisfies Measure;
}

/**
 * Time home ÷ time out: from the end of the strike to the hand in guard, over the arm's start to
 * contact. 1 means back as fast as out.
 */
function recoil(probe: MeasureProbe): number {
  const [out, home] = [probe.span('arm', 'contact'), probe.span('end', 'home')];
  if (out > 0 && home >= 0) return home / out;
  throw new MissingInput(
    absent('The way out or the way home has no length; check arm, contact, end and home.'),
  );
}

export const TIMING = [
  phase('load'),
  phase('explode'),
  phase('accelerate'),
  phase('follow-through'),
  phase('recover'),
  lead('lead.hipsTrunk', 'Hips before trunk', 'hips', 'trunk'),
  lead('lead.trunkArm', 'Trunk before arm', 'trunk', 'arm'),
  lead('lead.driveTrunk', 'Drive before trunk', 'drive', 'trunk'),
  lead('lead.hipsArm', 'Hips before arm', 'hips', 'arm'),
  lead('step.contact', 'Contact after the foot lands', 'footLand', 'contact'),
  lead('pivot.lag', 'Foot turns after the hips', 'hips', 'pivotStart'),
  { ...FROM_EVENTS, id: 'recoil', name: 'Time home ÷ time out', unit: 'ratio', value: recoil },
  {
    ...FROM_EVENTS,
    id: 'recoil.longer',
    name: 'Time home longer than time out',
    value: (probe) => probe.span('end', 'home') - probe.span('arm', 'contact'),
  },
] as const satisfies readonly Measure[];
