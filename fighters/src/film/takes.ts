/**
 * A long take of the demo gym: one fighter, several strikes on the bag, seen and heard by two
 * cameras that were started at different moments.
 */
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { clean, type Recipe } from '../fighter/recipe';
import { durationOf, knownTimes, mover, type Pose } from '../fighter/pose';
import { strikingEnd } from '../fighter/end';
import { size, subtract, type Point } from '../fighter/space';
import type { Camera } from './camera';
import { CHIN_OPEN, lookOf, type Look } from './clips';

export interface TakeStrike {
  readonly recipe: Recipe;
  /** Seconds of the take at which the recipe's own time is `from`. */
  readonly at: number;
  readonly from: number;
}

/** One camera's part in a take. */
export interface TakeFilm {
  readonly file: string;
  readonly camera: Camera;
  /** Frames a second. */
  readonly rate: number;
  /** Seconds of the take at which this camera was started. */
  readonly starts: number;
}

export interface DemoTake {
  readonly student: string;
  /** What it was filmed for. */
  readonly technique: Recipe['technique'];
  /** Which of its strikes the made-up coach has marked already, by place; none when missing. */
  readonly marked?: number;
  readonly look: Look;
  readonly strikes: readonly TakeStrike[];
  /** Seconds. */
  readonly duration: number;
  /** The taped rectangle on the floor, if there is one: its corners in order, world metres. */
  readonly mat: readonly Point[];
  readonly films: readonly TakeFilm[];
}

const HEIGHT = 1.76;
const cross = clean('cross', { ...CHIN_OPEN, height: HEIGHT });
// The bag hangs at the cross's distance, so the jab lands short of its full reach.
const jab = clean('jab', { height: HEIGHT, reach: 0.83 });
const allAtOnce = clean('cross', {
  ...CHIN_OPEN,
  height: HEIGHT,
  hipsToTrunk: 0.004,
  trunkToArm: 0.004,
  coil: 0,
});

const degrees = (value: number) => (value * Math.PI) / 180;
const PICTURE = { width: 1280, height: 720, up: [0, 1, 0] as Point } as const;

const MAT: DemoTake['mat'] = [
  [-0.9, 0, 0.75],
  [1.1, 0, 0.75],
  [1.1, 0, -0.75],
  [-0.9, 0, -0.75],
];

const SIDE: Camera = {
  ...PICTURE,
  position: [-0.9, 1.25, 5.4],
  lookAt: [0.25, 0.82, 0],
  fieldOfView: degrees(25),
};
const FRONT: Camera = {
  ...PICTURE,
  position: [4.3, 1.5, 2.9],
  lookAt: [0.2, 0.82, 0],
  fieldOfView: degrees(29),
};
/** Far enough round that the bag does not stand before the student, and 50° apart. */
const SIDE_REAR: Camera = { ...SIDE, position: [-1.7, 1.25, 5.1] };
const SIDE_FRONT: Camera = { ...FRONT, position: [2.5, 1.4, 4.6], fieldOfView: degrees(27) };

/** Two crosses, then a jab that a cross follows before the body has come to rest. */
export const DEMO_TAKE: DemoTake = {
  student: 'Ragna Sorn',
  technique: 'cross',
  marked: 1,
  look: {
    skin: '#d9a982',
    hair: '#5c3b22',
    shirt: '#3f6f5f',
    shorts: '#3d4250',
    belt: '#efe6d0',
  },
  strikes: [
    { recipe: cross, at: 0.6, from: 0 },
    { recipe: allAtOnce, at: 2.4, from: 0 },
    { recipe: jab, at: 4.2, from: 0 },
    { recipe: cross, at: 4.2 + 0.9, from: 0.2 },
  ],
  duration: 6.6,
  mat: MAT,
  films: [
    { file: 'take-side.mp4', camera: SIDE, rate: 120, starts: 0 },
    { file: 'take-front.mp4', camera: FRONT, rate: 120, starts: 0.3137 },
  ],
};

/** One strike filmed from two sides, as a coach would film it for the whole chain. */
function singleStrike(name: string, student: string, recipe: Recipe): DemoTake {
  const at = 0.25;
  return {
    student,
    look: lookOf(student),
    technique: recipe.technique,
    strikes: [{ recipe, at, from: 0 }],
    duration: at + durationOf(recipe) + 0.15,
    mat: MAT,
    films: [
      { file: `${name}-side.mp4`, camera: SIDE_REAR, rate: 120, starts: 0 },
      { file: `${name}-front.mp4`, camera: SIDE_FRONT, rate: 120, starts: 0.0871 },
    ],
  };
}

const elbow = clean('elbow-round', { height: 1.81, recoil: 1.8 });
const kick = clean('front-kick', { height: 1.78 });

/** A take of each family: punches, an elbow, a kick. */
export const DEMO_TAKES: readonly DemoTake[] = [
  DEMO_TAKE,
  singleStrike('elbow', 'Perrin Oake', elbow),
  singleStrike('kick', 'Tobiah Renn', kick),
];

/** Where every joint is at a moment of the take. */
export function takeMover({ strikes }: DemoTake): (time: number) => Pose {
  const movers = strikes.map(({ recipe }) => mover(recipe));
  return (time) => {
    const next = strikes.findIndex(({ at }) => at > time);
    const index = Math.max(0, (next < 0 ? strikes.length : next) - 1);
    const { at, from, recipe } = strikes[index]!;
    const own = Math.max(from, Math.min(time - at + from, durationOf(recipe) - 1e-6));
    return movers[index]!(own);
  };
}

export interface TakeHit {
  /** Seconds of the take. */
  readonly time: number;
  /** World metres. */
  readonly place: Point;
  readonly technique: Recipe['technique'];
}

/** When and where the fist meets the bag. */
export function hitsOf({ strikes }: DemoTake): TakeHit[] {
  return strikes.map(({ recipe, at, from }) => {
    const { contact } = knownTimes(recipe);
    const pose = mover(recipe)(contact);
    const side = strikingSide(techniqueById(recipe.technique), recipe.stance);
    return {
      time: at + contact - from,
      place: strikingEnd(techniqueById(recipe.technique), side)(pose),
      technique: recipe.technique,
    };
  });
}

/** Metres from a film's camera to where a strike lands. */
export function distanceTo({ camera }: TakeFilm, { place }: TakeHit): number {
  return size(subtract(place, camera.position));
}
