/** A thrown strike as a motion of the whole body: guard, the throw, what follows, and home again. */
import type { Landmark, Stance } from '@sinew/core/foundation/body/landmarks';
import { SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
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
import { JOINT, lengthsOf, type Thrower } from './armBody';
import { legOf, LEG_JOINT, type Kicker } from './kick';
import { DT, type Thrown } from './throw';

export interface Filmed {
  readonly mover: Mover;
  /** Seconds. */
  readonly duration: number;
  readonly contact: number;
}

/** Seconds of guard before the first call; until the body stands still past contact, and is home again. */
const BEFORE = 0.5;
/** Seconds in which a body coils. */
const COILING = 0.2;
/** Over so many seconds what moves at contact comes to rest. */
const RUNS_ON = 0.02;
const HOME = { from: 0.12, takes: 0.4 };

/** What legs and head of the film go by: whose body, and when its links are called. */
interface Cast {
  readonly technique: TechniqueId;
  readonly height: number;
  /** Seconds: hips, what they throw, and what that throws. */
  readonly calls: readonly [number, number, number];
}

/** Where everything is that a posture of the thrown body says; the rest is set about it. */
type Posing = (joints: Record<Landmark, Point>, placed: readonly Placed[], by: Setting) => Point;

interface Setting {
  readonly recipe: Recipe;
  readonly isRight: boolean;
  readonly flip: (point: Point) => Point;
  readonly legs: (trunk: Trunk) => void;
}

/** The film of a punch or an elbow. */
export function filmed(
  technique: TechniqueId,
  stance: Stance,
  thrower: Thrower,
  thrown: Thrown,
): Filmed {
  const { height, calls } = thrower;
  const long = lengthsOf(thrower);
  const cast = { technique, height, calls: [calls.pelvis, calls.trunk, calls.arm] } as const;
  return film(cast, stance, thrown, (joints, placed, { recipe, isRight, flip, legs }) => {
    const [hips, trunk] = [placed[JOINT.pelvis]!, placed[JOINT.trunk]!];
    const body = upright(hips.frame, trunk.frame, flip(hips.at), long.chest, height, flip);
    setStrikingArm(joints, isRight, placed, long, flip);
    const other = flip(
      add(add(trunk.at, trunk.frame[1], long.chest), trunk.frame[2], -long.shoulder),
    );
    setGuard(joints, body, !isRight, other, recipe);
    legs(body);
    return body.head;
  });
}

/** The film of a round kick. */
export function kickFilmed(stance: Stance, kicker: Kicker, thrown: Thrown): Filmed {
  const { height, calls } = kicker;
  const long = legOf(kicker);
  const { chest, shoulder } = lengthsOf(kicker);
  const cast = {
    technique: 'round-kick',
    height,
    calls: [calls.pelvis, calls.thigh, calls.shank],
  } as const;
  return film(cast, stance, thrown, (joints, placed, { recipe, isRight, flip, legs }) => {
    const { at, frame } = placed[LEG_JOINT.pelvis]!;
    const body = upright(frame, frame, flip(add(at, frame[2], long.halfHips)), chest, height, flip);
    const top = add(add(at, frame[2], long.halfHips), frame[1], chest);
    for (const side of [1, -1]) {
      const isOwn = side === 1;
      setGuard(
        joints,
        body,
        isOwn ? isRight : !isRight,
        flip(add(top, frame[2], side * shoulder)),
        recipe,
      );
    }
    legs(body);
    setKickingLeg(joints, isRight, placed, long, height, flip);
    return body.head;
  });
}

/** A trunk over its hips, and a head on it. */
function upright(
  hips: Placed['frame'],
  chestFrame: Placed['frame'],
  pelvis: Point,
  high: number,
  height: number,
  flip: (point: Point) => Point,
): Trunk {
  const mirror = flip([0, 0, 1])[2];
  const yawOf = (frame: Placed['frame']) => mirror * Math.atan2(frame[2][0], frame[2][2]);
  const chest = add(pelvis, flip(chestFrame[1]), high);
  const head = add(
    chest,
    flip(add(scaled(chestFrame[0], 0.036 * height), chestFrame[1], 0.098 * height)),
  );
  return {
    yaw: yawOf(chestFrame),
    pelvisYaw: yawOf(hips),
    pelvis,
    chest,
    head,
    shift: { left: [0, 0, 0], right: [0, 0, 0] },
  };
}

function setGuard(
  joints: Record<Landmark, Point>,
  { head }: Trunk,
  isRight: boolean,
  shoulder: Point,
  recipe: Recipe,
): void {
  const hand = add(head, onSide(GUARD[isRight ? 'right' : 'left'], isRight));
  setArm(joints, isRight, shoulder, hand, 0.3, recipe);
}

function film(cast: Cast, stance: Stance, thrown: Thrown, posed: Posing): Filmed {
  const contact = BEFORE + thrown.contact;
  const [hips, next, last] = cast.calls;
  // Legs and head go by the clock of the throw.
  const recipe: Recipe = clean(cast.technique, {
    height: cast.height,
    contact,
    out: thrown.contact - last,
    trunkToArm: last - next,
    hipsToTrunk: next - hips,
    stance,
  });
  const form = formOf(recipe);
  const arm = { recipe, form, profiles: profilesOf(recipe, form), body: () => neverAsked() };
  const isRight = form.striking === 'right';
  const { guard, start } = thrown.driven;
  const met = thrown.way.at(-1)!;
  const at = (time: number): readonly number[] => {
    const since = time - BEFORE;
    if (since <= 0) {
      const coiled = smooth(1 + since / COILING);
      return guard.map((value, i) => value + coiled * (start[i]! - value));
    }
    if (since < thrown.contact) return between(thrown.way, since, thrown.contact);
    const past = since - thrown.contact;
    const on = RUNS_ON * (1 - Math.exp(-past / RUNS_ON));
    const back = smooth((past - HOME.from) / HOME.takes);
    return met.q.map((value, i) => {
      const stands = value + on * met.rates[i]!;
      return stands + back * (guard[i]! - stands);
    });
  };
  const flip = ([x, y, z]: Point): Point => [x, y, isRight ? z : -z];
  const pose = (time: number): Pose => {
    const joints = {} as Record<Landmark, Point>;
    const legs = (trunk: Trunk) => setLegs(joints, trunk, time, arm);
    const placed = thrown.driven.linkage.placed(at(time));
    const head = posed(joints, placed, { recipe, isRight, flip, legs });
    setHead(joints, head, cast.height);
    return { ...joints, head };
  };
  return {
    mover: stance === 'orthodox' ? pose : (time) => mirrorPose(pose(time)),
    duration: contact + HOME.from + HOME.takes + 0.15,
    contact,
  };
}

/** A foot is drawn out along its shank by as much, radians, as the thigh is lifted. */
const POINTS = { most: 1, lifted: 1 };

function setKickingLeg(
  joints: Record<Landmark, Point>,
  isRight: boolean,
  placed: readonly Placed[],
  { shank }: ReturnType<typeof legOf>,
  height: number,
  flip: (point: Point) => Point,
): void {
  const side = isRight ? 'right' : 'left';
  const knee = placed[LEG_JOINT.bend]!;
  const thigh = placed[LEG_JOINT.roll]!.frame[0];
  const [along, front] = knee.frame;
  const lifted = Math.min(1, Math.max(0, (thigh[1] + 1) / POINTS.lifted));
  const drawn = POINTS.most * lifted;
  const toward = add(scaled(front, Math.cos(drawn)), along, Math.sin(drawn));
  const ankle = add(knee.at, along, shank);
  const foot = SEGMENT_LENGTH.foot * height;
  joints[`${side}Knee`] = flip(knee.at);
  joints[`${side}Ankle`] = flip(ankle);
  joints[`${side}Toe`] = flip(add(ankle, toward, 0.78 * foot));
  joints[`${side}Heel`] = flip(add(add(ankle, toward, -0.22 * foot), along, 0.039 * height));
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
