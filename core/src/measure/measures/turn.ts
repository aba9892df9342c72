/** How pelvis and trunk turn, alone and against each other. */
import { mean } from 'd3-array';
import { wrapped, yawOf } from '../../foundation/geometry/angles';
import { absent } from '../../foundation/reading/reading';
import { loadFrom } from './balance';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';

const ON_THE_FLOOR = {
  unit: 'rad',
  needs: 'ground',
  shows: 'hips turning against shoulders',
  advice: 'film from behind with bands on, or from above',
  isMetric: false,
} as const;

/** Radians; positive = turned into the strike. */
export function pelvisYaw(probe: MeasureProbe, when: Instant): number {
  return probe.motion.turnSign * yawOf(probe.at('leftHip', when), probe.at('rightHip', when));
}

export function trunkYaw(probe: MeasureProbe, when: Instant): number {
  return (
    probe.motion.turnSign * yawOf(probe.at('leftShoulder', when), probe.at('rightShoulder', when))
  );
}

/** Pelvis against trunk; positive = the pelvis runs ahead. */
function separation(probe: MeasureProbe, when: Instant): number {
  return wrapped(pelvisYaw(probe, when) - trunkYaw(probe, when));
}

/** In more time than this the stretch may have come and gone, seconds. */
const LONGEST_UNSEEN = 0.03;

/** Where the pelvis is farthest ahead of the trunk on its way to contact. */
function widest(probe: MeasureProbe): Instant {
  const from = probe.event('hips');
  const to = probe.event('contact');
  return probe.most('widest', from, to, 'rightShoulder', separation, LONGEST_UNSEEN);
}

const GUESSED = absent(
  `A tracker guesses how a body stands in space, not how far it turns: ${ON_THE_FLOOR.advice}.`,
);

/** From the deepest coil: a body that has wound up has farther to come than from its guard. */
function turnToContact(
  probe: MeasureProbe,
  yaw: (probe: MeasureProbe, when: Instant) => number,
  start: 'hips' | 'trunk',
): number {
  // In rendered films of one phone it was up to 75° off, and in four of fourteen beyond its ±.
  if (probe.motion.source === 'estimated-3d') throw new MissingInput(GUESSED);
  const needs = start === 'hips' ? 'rightHip' : 'rightShoulder';
  const deepest = deepestCoil(probe, yaw, probe.has(start) ? start : 'contact', needs);
  return turned(probe, yaw, deepest, probe.event('contact'));
}

/** Seconds: on crosses and rear hooks of three families the turn is off by −0.4 to 0.0° in the mean; by itself 0.6 to 1.0. */
const BESIDE = 0.02;

/**
 * Where a link is turned back the farthest between the load and its own start, where that is known: by what stands
 * on either side, or the noise of an instant would pick it, and count as turn.
 */
function deepestCoil(
  probe: MeasureProbe,
  yaw: (probe: MeasureProbe, when: Instant) => number,
  until: 'hips' | 'trunk' | 'contact',
  needs: 'rightHip' | 'rightShoulder',
): Instant {
  const from = loadFrom(probe);
  return probe.most(`${needs} coiled`, from, probe.event(until), needs, (l, when) => {
    const back = (at: Instant) => wrapped(yaw(l, from) - yaw(l, at));
    const itself = back(when);
    const beside = [-BESIDE, BESIDE].flatMap((by) => {
      const time = when.time + by;
      try {
        return [back({ ...when, label: `${when.label} ${by}`, time })];
      } catch (error) {
        if (error instanceof MissingInput) return [];
        throw error;
      }
    });
    return beside.length === 0 ? itself : mean(beside)!;
  });
}

/** More than half a turn must not come out as less than none: added up in steps. */
function turned(
  probe: MeasureProbe,
  yaw: (probe: MeasureProbe, when: Instant) => number,
  from: Instant,
  to: Instant,
): number {
  const steps = 4;
  let total = 0;
  let before = yaw(probe, from);
  for (let i = 1; i <= steps; i++) {
    const when =
      i === steps
        ? to
        : {
            label: `${from.label}–${to.label} ${i}`,
            event: null,
            time: from.time + (i / steps) * (to.time - from.time),
            shift: 0,
          };
    const now = yaw(probe, when);
    total += wrapped(now - before);
    before = now;
  }
  return total;
}

/** The foot's landing, or contact when the fist is first. */
function landing(probe: MeasureProbe): Instant {
  const contact = probe.event('contact');
  if (!probe.has('footLand')) return contact;
  const land = probe.event('footLand');
  return land.time < contact.time ? land : contact;
}

/** How far the trunk turns back between load and its own start. */
function coil(probe: MeasureProbe): number {
  const from = loadFrom(probe);
  const most = deepestCoil(probe, trunkYaw, 'trunk', 'rightShoulder');
  return wrapped(trunkYaw(probe, from) - trunkYaw(probe, most));
}

export const TURN = [
  {
    ...ON_THE_FLOOR,
    id: 'turn.pelvis',
    name: 'Pelvis turn to contact',
    value: (probe) => turnToContact(probe, pelvisYaw, 'hips'),
  },
  {
    ...ON_THE_FLOOR,
    id: 'turn.trunk',
    name: 'Trunk turn to contact',
    value: (probe) => turnToContact(probe, trunkYaw, 'trunk'),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.load',
    name: 'Hips against trunk as the hips start',
    value: (probe) => separation(probe, probe.event('hips')),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.max',
    name: 'Hips ahead of trunk at most',
    value: (probe) => separation(probe, widest(probe)),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.growth',
    name: 'Stretch of hips against trunk',
    value: (probe) =>
      wrapped(separation(probe, widest(probe)) - separation(probe, probe.event('hips'))),
  },
  {
    ...ON_THE_FLOOR,
    id: 'angle.ready',
    name: 'Hips’ line from square at ready',
    value: (probe) => {
      if (!probe.motion.isSquareKnown) {
        throw new MissingInput(absent('Where the target stands is not known in this film.'));
      }
      const when = probe.event('ready');
      return Math.abs(yawOf(probe.at('leftHip', when), probe.at('rightHip', when)));
    },
  },
  {
    ...ON_THE_FLOOR,
    id: 'turn.air',
    name: 'Pelvis turns while a foot is in the air',
    value: (probe) => turned(probe, pelvisYaw, probe.event('footLift'), landing(probe)),
  },
  { ...ON_THE_FLOOR, id: 'coil', name: 'Trunk coils in the load', value: coil },
] as const satisfies readonly Measure[];
