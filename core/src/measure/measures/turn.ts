/** How pelvis and trunk turn, alone and against each other. */
import { wrapped, yawOf } from '../../foundation/geometry/angles';
import { loadFrom } from './balance';
import type { Instant, Look } from './probe';
import type { Measure } from './run';

const ON_THE_FLOOR = {
  unit: 'rad',
  needs: 'ground',
  shows: 'hips turning against shoulders',
  isMetric: false,
} as const;

/** Radians; positive = turned into the strike. */
export function pelvisYaw(look: Look, when: Instant): number {
  return look.motion.turnSign * yawOf(look.at('leftHip', when), look.at('rightHip', when));
}

export function trunkYaw(look: Look, when: Instant): number {
  return (
    look.motion.turnSign * yawOf(look.at('leftShoulder', when), look.at('rightShoulder', when))
  );
}

/** Pelvis against trunk; positive = the pelvis runs ahead. */
function separation(look: Look, when: Instant): number {
  return wrapped(pelvisYaw(look, when) - trunkYaw(look, when));
}

/** In more time than this the stretch may have come and gone, seconds. */
const LONGEST_UNSEEN = 0.03;

/** Where the pelvis is farthest ahead of the trunk on its way to contact. */
function widest(look: Look): Instant {
  const from = look.event('hips');
  const to = look.event('contact');
  return look.most('widest', from, to, 'rightShoulder', separation, LONGEST_UNSEEN);
}

function turnToContact(look: Look, yaw: (look: Look, when: Instant) => number): number {
  const start = look.event('ready');
  const end = look.event('contact');
  return turned(look, yaw, start, end);
}

/** More than half a turn must not come out as less than none: added up in steps. */
function turned(
  look: Look,
  yaw: (look: Look, when: Instant) => number,
  from: Instant,
  to: Instant,
): number {
  const steps = 4;
  let total = 0;
  let before = yaw(look, from);
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
    const now = yaw(look, when);
    total += wrapped(now - before);
    before = now;
  }
  return total;
}

/** The foot's landing, or contact when the fist is first. */
function landing(look: Look): Instant {
  const contact = look.event('contact');
  if (!look.has('footLand')) return contact;
  const land = look.event('footLand');
  return land.time < contact.time ? land : contact;
}

/** How far the trunk turns back between load and its own start. */
function coil(look: Look): number {
  const from = loadFrom(look);
  const most = look.most('coiled', from, look.event('trunk'), 'rightShoulder', (l, when) =>
    wrapped(trunkYaw(l, from) - trunkYaw(l, when)),
  );
  return wrapped(trunkYaw(look, from) - trunkYaw(look, most));
}

export const TURN = [
  {
    ...ON_THE_FLOOR,
    id: 'turn.pelvis',
    name: 'Pelvis turn to contact',
    value: (look) => turnToContact(look, pelvisYaw),
  },
  {
    ...ON_THE_FLOOR,
    id: 'turn.trunk',
    name: 'Trunk turn to contact',
    value: (look) => turnToContact(look, trunkYaw),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.load',
    name: 'Hips against trunk as the hips start',
    value: (look) => separation(look, look.event('hips')),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.max',
    name: 'Hips ahead of trunk at most',
    value: (look) => separation(look, widest(look)),
  },
  {
    ...ON_THE_FLOOR,
    id: 'separation.growth',
    name: 'Stretch of hips against trunk',
    value: (look) => wrapped(separation(look, widest(look)) - separation(look, look.event('hips'))),
  },
  {
    ...ON_THE_FLOOR,
    id: 'angle.ready',
    name: 'Hips’ line from square at ready',
    value: (look) => {
      const when = look.event('ready');
      return Math.abs(yawOf(look.at('leftHip', when), look.at('rightHip', when)));
    },
  },
  {
    ...ON_THE_FLOOR,
    id: 'turn.air',
    name: 'Pelvis turns while a foot is in the air',
    value: (look) => turned(look, pelvisYaw, look.event('footLift'), landing(look)),
  },
  { ...ON_THE_FLOOR, id: 'coil', name: 'Trunk coils in the load', value: coil },
] as const satisfies readonly Measure[];
