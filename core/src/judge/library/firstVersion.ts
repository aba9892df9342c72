/**
 * A gym's edits as the first version of Sinew kept them: faults under another name, and limits by their
 * place in the catalogue of then. Frozen: nothing here follows later changes of the catalogue.
 */
import { z } from 'zod';
import { drillSchema } from '../../foundation/drill/drills';
import { faultSchema } from '../fault/schema';
import { schoolSchema } from '../school/schools';

/** Ways of a gym's own faults had no names. */
function withCaseNames(own: unknown): unknown {
  const faults = z.array(z.looseObject({ cases: z.array(z.looseObject({})) })).safeParse(own);
  if (!faults.success) return own;
  return faults.data.map((fault) => ({
    ...fault,
    cases: fault.cases.map((one, i) => (i === 0 ? one : { id: `way-${i + 1}`, ...one })),
  }));
}

export const firstEditsSchema = z.object({
  leaks: z.record(
    z.string(),
    z
      .object({
        limits: z.record(z.string(), z.number().finite()),
        cue: faultSchema.shape.cue,
        drill: z.string(),
        isOff: z.boolean(),
      })
      .partial(),
  ),
  own: z.preprocess(withCaseNames, z.array(faultSchema)),
  drills: z.record(z.string(), drillSchema.pick({ name: true, dose: true }).partial()),
  ownDrills: z.array(drillSchema),
  school: schoolSchema,
});

/** Case and place → the limit's name, of every limit that there was. */
const LIMITS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'wrist-bent': { '0.0': 'flex/wrist.flex', '1.0': 'side/wrist.side' },
  hyperextension: { '0.0': 'usual/elbow.most' },
  'hips-tilted': { '0.0': 'usual/stance.level' },
  'feet-in-line': { '0.0': 'usual/stance.width' },
  'square-stance': { '0.0': 'square/angle.ready', '1.0': 'bladed/angle.ready' },
  'weight-off': {
    '0.0': 'centred-light/split',
    '1.0': 'centred-heavy/split',
    '2.0': 'rear-60-light/split',
    '3.0': 'rear-60-heavy/split',
    '4.0': 'forward-light/split',
    '5.0': 'forward-heavy/split',
  },
  'rear-heel': { '0.0': 'raised/stance.rearHeel', '1.0': 'flat/stance.rearHeel' },
  'no-load': { '0.0': 'usual/sink.height', '0.1': 'usual/coil' },
  'hips-blocked': { '0.0': 'usual/turn.pelvis', '0.1': 'usual/pivot.own' },
  'pivot-no-turn': { '0.0': 'usual/turn.pelvis', '0.1': 'usual/pivot.own' },
  'toe-tip': { '0.0': 'rear/heel.rear', '1.0': 'lead/heel.lead' },
  'anchor-swivel': { '0.0': 'turns/anchor.foot', '1.0': 'travels/anchor.travel' },
  'hook-foot': { '0.0': 'planted/pivot.own', '1.0': 'pivoting/pivot.own' },
  'knee-gives': { '0.0': 'anchor/anchor.knee', '1.0': 'lead-in/knee.in.lead' },
  'knee-locks': { '0.0': 'support/knee.support', '1.0': 'own/knee.own' },
  'reach-lean': { '0.0': 'usual/lean', '0.1': 'usual/head.ahead' },
  'step-early': { '0.0': 'usual/step.contact' },
  'travel-no-turn': { '0.0': 'usual/turn.air' },
  'no-rise': { '0.0': 'usual/drop.height', '0.1': 'usual/portion.rise' },
  'no-drop': { '0.0': 'elbow-drop/drop.height', '1.0': 'by-school/drop.height' },
  'arm-only': {
    '0.0': 'turned/turn.pelvis',
    '0.1': 'turned/portion.body',
    '1.0': 'jab/turn.pelvis',
    '1.1': 'jab/portion.body',
  },
  'all-at-once': {
    '0.0': 'turned/lead.hipsTrunk',
    '0.1': 'turned/separation.growth',
    '0.2': 'turned/turn.pelvis',
    '1.0': 'uppercut/lead.hipsTrunk',
    '1.1': 'uppercut/separation.growth',
    '1.2': 'uppercut/drop.height',
  },
  'arm-first': {
    '0.0': 'turned/lead.hipsArm',
    '0.1': 'turned/turn.pelvis',
    '1.0': 'uppercut/lead.hipsArm',
    '1.1': 'uppercut/drop.height',
  },
  'over-load': { '0.0': 'usual/telegraph.hand' },
  'hand-drop': { '0.0': 'usual/telegraph.dip' },
  'hook-scoop': { '0.0': 'usual/portion.scoop' },
  'no-counter': { '0.0': 'usual/counter' },
  jammed: { '0.0': 'straight/reach', '1.0': 'whip/reach' },
  'end-of-rope': { '0.0': 'usual/reach', '0.1': 'usual/elbow.contact' },
  'elbow-flare': { '0.0': 'usual/flare' },
  slap: { '0.0': 'usual/elbow.drift' },
  'hook-wide': { '0.0': 'usual/elbow.contact' },
  'hook-elbow-low': {
    '0.0': 'forearm/forearm.rise',
    '1.0': 'palm-down/knucklePlane',
    '2.0': 'thumb-up/knucklePlane',
  },
  braking: { '0.0': 'usual/speed.keep' },
  push: { '0.0': 'usual/phase.follow-through' },
  'short-stop': { '0.0': 'usual/through' },
  'slow-home': { '0.0': 'usual/recoil' },
  'guard-off-drop': { '0.0': 'drops/guard.drop', '1.0': 'leaves/guard.leave' },
  'chin-open': { '0.0': 'usual/guard.chin' },
  'head-whip': { '0.0': 'usual/head' },
  'elbow-short': { '0.0': 'usual/through' },
  'kick-no-pivot': { '0.0': 'usual/pivot.support' },
  'kick-lean-away': { '0.0': 'usual/lean.trunk', '0.1': 'usual/stability.contact' },
  'no-replant': { '0.0': 'usual/pair.heel' },
  'combo-reset': { '0.0': 'usual/pair.kept' },
  'combo-late-home': { '0.0': 'usual/pair.home' },
  'combo-balance': { '0.0': 'usual/pair.balance' },
  'too-fast-too-soon': {
    '0.0': 'usual/set.fastLead',
    '0.1': 'usual/set.slowLead',
    '0.2': 'usual/set.speedRange',
  },
  'stance-fades': { '0.0': 'usual/set.rise' },
};

/** The same edits in today's terms; a limit that there never was is passed over. */
export function fromFirst({ leaks, ...rest }: z.infer<typeof firstEditsSchema>) {
  const faults = Object.entries(leaks).map(([id, { limits, ...edit }]) => {
    const named = Object.entries(limits ?? {}).flatMap(([place, value]) => {
      const name = LIMITS[id]?.[place];
      return name === undefined ? [] : [[name, value] as const];
    });
    return [
      id,
      { ...edit, ...(named.length > 0 && { limits: Object.fromEntries(named) }) },
    ] as const;
  });
  return { ...rest, faults: Object.fromEntries(faults) };
}
