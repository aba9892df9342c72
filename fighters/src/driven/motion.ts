/** A thrown strike as a motion of the whole body: guard, the throw, what follows, and home again. */
import { type Landmark, type Stance } from '@sinew/core/foundation/body/landmarks';
import type { Trunk } from '../fighter/body';
import { profilesOf } from '../fighter/body';
import { GUARD, type TechniqueId } from '../fighter/forms';
import { onSide } from '../fighter/hand';
import { setArm, setHead } from '../fighter/limbs';
import { setLegs } from '../fighter/legs';
import { formOf, mirrorPose, type Mover, type Pose } from '../fighter/pose';
import { clean, type Recipe } from '../fighter/recipe';
import { add, scaled, unit, cross, type Point } from '../fighter/space';
import type { Moving, Placed } from './linkage';
import { JOINT, lengthsOf, type Thrower } from './body';
import { DT, type Thrown } from './throw';

export interface Filmed {
  readonly mover: Mover;
  /** Seconds. */
  readonly duration: number;
  readonly contact: number;
}

/** Seconds of guard before the first call; until the body stands still past contact, and is home again. */
const BEFORE = 0.5;
/** Over so many seconds what moves at contact comes to rest. */
const RUNS_ON = 0.02;
const HOME = { from: 0.12, takes: 0.4 };

export function filmed(
  technique: TechniqueId,
  stance: Stance,
  thrower: Thrower,
  thrown: Thrown,
): Filmed {
  const contact = BEFORE + thrown.contact;
  const { calls } = thrower;
  // Legs and head go by the clock of the throw.
  const recipe: Recipe = clean(technique, {
    height: thrower.height,
    contact,
    out: thrown.contact - calls.arm,
    trunkToArm: calls.arm - calls.trunk,
    hipsToTrunk: calls.trunk - calls.pelvis,
    stance,
  });
  const form = formOf(recipe);
  const arm = { recipe, form, profiles: profilesOf(recipe, form), body: () => neverAsked() };
  const isRight = form.striking === 'right';
  const last = thrown.way.at(-1)!;
  const at = (time: number): readonly number[] => {
    const since = time - BEFORE;
    if (since <= 0) return thrown.way[0]!.q;
    if (since < thrown.contact) return between(thrown.way, since, thrown.contact);
    const past = since - thrown.contact;
    const on = RUNS_ON * (1 - Math.exp(-past / RUNS_ON));
    const back = smooth((past - HOME.from) / HOME.takes);
    return last.q.map((value, i) => {
      const stands = value + on * last.rates[i]!;
      return stands + back * (thrown.way[0]!.q[i]! - stands);
    });
  };
  const pose = (time: number): Pose => {
    const placed = thrown.linkage.placed(at(time));
    const flip = ([x, y, z]: Point): Point => [x, y, isRight ? z : -z];
    const [pelvisFrame, chestFrame] = [placed[JOINT.pelvis]!.frame, placed[JOINT.trunk]!.frame];
    const long = lengthsOf(thrower);
    const yawOf = (frame: Placed['frame']) =>
      (isRight ? 1 : -1) * Math.atan2(frame[2][0], frame[2][2]);
    const chest = flip(add(placed[JOINT.trunk]!.at, chestFrame[1], long.chest));
    const head = add(
      chest,
      flip(
        add(scaled(chestFrame[0], 0.036 * thrower.height), chestFrame[1], 0.098 * thrower.height),
      ),
    );
    const trunk: Trunk = {
      yaw: yawOf(chestFrame),
      pelvisYaw: yawOf(pelvisFrame),
      pelvis: flip(placed[JOINT.pelvis]!.at),
      chest,
      head,
      shift: { left: [0, 0, 0], right: [0, 0, 0] },
    };
    const joints = {} as Record<Landmark, Point>;
    setStrikingArm(joints, isRight, placed, long, flip);
    const other = flip(
      add(add(placed[JOINT.trunk]!.at, chestFrame[1], long.chest), chestFrame[2], -long.shoulder),
    );
    const offHand = add(head, onSide(GUARD[isRight ? 'left' : 'right'], !isRight));
    setArm(joints, !isRight, other, offHand, 0.3, recipe);
    setLegs(joints, trunk, time, arm);
    setHead(joints, head, thrower.height);
    return { ...joints, head };
  };
  return {
    mover: stance === 'orthodox' ? pose : (time) => mirrorPose(pose(time)),
    duration: contact + HOME.from + HOME.takes + 0.15,
    contact,
  };
}

function setStrikingArm(
  joints: Record<Landmark, Point>,
  isRight: boolean,
  placed: readonly Placed[],
  { fore, fist }: ReturnType<typeof lengthsOf>,
  flip: (point: Point) => Point,
): void {
  const side = isRight ? 'right' : 'left';
  const [shoulder, elbow] = [placed[JOINT.across]!.at, placed[JOINT.bend]!];
  const along = elbow.frame[0];
  const wrist = add(elbow.at, along, fore);
  const knuckles = add(wrist, along, fist);
  const across = unit(cross(along, elbow.frame[1]));
  joints[`${side}Shoulder`] = flip(shoulder);
  joints[`${side}Elbow`] = flip(elbow.at);
  joints[`${side}Wrist`] = flip(wrist);
  joints[`${side}IndexKnuckle`] = flip(add(knuckles, across, -0.03));
  joints[`${side}LittleKnuckle`] = flip(add(knuckles, across, 0.03));
}

function neverAsked(): never {
  throw new Error('legs that do not kick do not ask for the trunk at another time');
}

/** Cubic between steps: places and rates as they were thrown. */
function between(way: readonly Moving[], since: number, contact: number): number[] {
  const i = Math.min(way.length - 2, Math.floor(since / DT));
  const [a, b] = [way[i]!, way[i + 1]!];
  const long = i === way.length - 2 ? contact - i * DT : DT;
  const u = (since - i * DT) / long;
  const [h00, h10] = [(1 + 2 * u) * (1 - u) ** 2, u * (1 - u) ** 2];
  const [h01, h11] = [u ** 2 * (3 - 2 * u), u ** 2 * (u - 1)];
  return a.q.map(
    (q, k) => h00 * q + h10 * long * a.rates[k]! + h01 * b.q[k]! + h11 * long * b.rates[k]!,
  );
}

function smooth(share: number): number {
  const s = Math.min(1, Math.max(0, share));
  return s ** 3 * (10 - 15 * s + 6 * s ** 2);
}
