/**
 * A made-up student's torso that wears a printed band round the hips and one round the ribs, ray by ray, as
 * grey pictures: what the reading of bands is held against. Nothing here is shared with that reading.
 */
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { mover, type Pose } from '../fighter/pose';
import type { Recipe } from '../fighter/recipe';
import { frameTimesOf } from '../fighter/track';
import { mix, type Point } from '../fighter/space';

/** Bars of 0 = black and 1 = white, left to right as seen from outside; lengths in metres. */
export interface WornBand {
  readonly code: string;
  /** Metres that a bar takes; of a printed band's where it is left out. */
  readonly bar?: number;
  /** Around the body where the band sits. */
  readonly girth: number;
  /** Depth of the body ÷ its width. */
  readonly flatness: number;
  /** 2 = an ellipse; larger = boxier. */
  readonly boxiness: number;
}

export interface BandedFilm {
  readonly recipe: Recipe;
  /** Frames a second. */
  readonly rate: number;
  /** Where the camera stands, radians: 0 in front, positive toward the side that the chest is turned to. */
  readonly azimuth: number;
  /** Metres from the student, and over the floor. */
  readonly distance: number;
  readonly height: number;
  /** Pixels. */
  readonly focal: number;
  readonly size: { readonly width: number; readonly height: number };
  /** Where the ends of the bands meet. */
  readonly seam: 'back' | 'front';
  readonly hips: WornBand | null;
  readonly ribs: WornBand | null;
  /** Folds of the cloth, metres, one standard deviation. */
  readonly folds: number;
  /** Grey levels of noise, and pixels over which the picture is soft, each one standard deviation. */
  readonly grain: number;
  readonly softness: number;
  /** Pixels by which points are off: from frame to frame, and for the whole film. */
  readonly pointNoise: number;
  readonly pointLean: number;
  readonly hasArms: boolean;
  readonly seed: number;
}

const BAR = 0.03;
const BAND = 0.07;
/** Of the way from the hips to the shoulders. */
const BELOW_ARMS = 0.5;

/** A cross-section: how far its edge is at an angle from its front, and what way round that is. */
interface Section {
  readonly radius: (angle: number) => number;
  /** Metres along the edge from the front, toward the wearer's right. */
  readonly round: (angle: number) => number;
}

const STEPS = 1440;

function sectionOf({ girth, flatness, boxiness }: WornBand): Section {
  const shape = (angle: number) =>
    (Math.abs(Math.sin(angle)) ** boxiness + Math.abs(Math.cos(angle) / flatness) ** boxiness) **
    (-1 / boxiness);
  const way = [0];
  for (let k = 1; k <= STEPS; k++) {
    const at = (i: number) => {
      const angle = (2 * Math.PI * i) / STEPS;
      return [shape(angle) * Math.sin(angle), shape(angle) * Math.cos(angle)] as const;
    };
    const [a, b] = [at(k - 1), at(k)];
    way.push(way[k - 1]! + Math.hypot(b[0] - a[0], b[1] - a[1]));
  }
  const scale = girth / way[STEPS]!;
  const radii = way.map((_, k) => scale * shape((2 * Math.PI * k) / STEPS));
  return {
    radius: (angle) => {
      const turns = angle / (2 * Math.PI);
      const at = (turns - Math.floor(turns)) * STEPS;
      const i = Math.min(STEPS - 1, Math.floor(at));
      return radii[i]! + (at - i) * (radii[i + 1]! - radii[i]!);
    },
    round: (angle) => {
      const turns = angle / (2 * Math.PI);
      const at = (turns - Math.floor(turns)) * STEPS;
      const i = Math.min(STEPS - 1, Math.floor(at));
      return scale * (way[i]! + (at - i) * (way[i + 1]! - way[i]!));
    },
  };
}

/** Slow unevenness of cloth over angle and height, of variance 1. */
function foldsOf(random: () => number): (angle: number, up: number) => number {
  const waves = Array.from({ length: 8 }, (_, i) => ({
    around: 2 + i,
    along: 10 + 40 * random(),
    phase: 2 * Math.PI * random(),
  }));
  return (angle, up) =>
    waves.reduce(
      (sum, { around, along, phase }) => sum + Math.sin(around * angle + along * up + phase),
      0,
    ) / 2;
}

export interface Banded {
  readonly times: readonly number[];
  /** Where a tracker would put them: pixels, by frame. */
  readonly points: Partial<Record<Landmark, readonly (readonly [number, number])[]>>;
  /** The truth: turn of hips and ribs, radians, 0 = square, positive = the rear side forward. */
  readonly yaw: { readonly hips: readonly number[]; readonly ribs: readonly number[] };
  readonly picture: (frame: number) => Uint8Array;
}

const SEEN: readonly Landmark[] = [
  ...(['leftHip', 'rightHip', 'leftShoulder', 'rightShoulder'] as const),
  ...(['leftElbow', 'rightElbow', 'leftWrist', 'rightWrist'] as const),
];

/** A torso of one film. */
interface Worn {
  readonly band: WornBand;
  readonly section: Section;
  readonly fold: (angle: number, up: number) => number;
  readonly share: number;
  readonly line: readonly ['leftHip' | 'leftShoulder', 'rightHip' | 'rightShoulder'];
}

export function bandedFilm(film: BandedFilm): Banded {
  const random = seeded(film.seed);
  const times = frameTimesOf(film.recipe, film.rate);
  const pose = mover(film.recipe);
  const poses = times.map(pose);
  const side = film.recipe.stance === 'southpaw' ? -1 : 1;
  const camera = cameraOf(film, poses[0]!, side);
  const leans = new Map(SEEN.map((name) => [name, [normal(random), normal(random)] as const]));
  const points: Partial<Record<Landmark, [number, number][]>> = {};
  for (const name of SEEN) {
    const lean = leans.get(name)!;
    points[name] = poses.map((one) => {
      const [u, v] = camera.seen(one[name]);
      const off = (k: 0 | 1) => film.pointNoise * normal(random) + film.pointLean * lean[k];
      return [u + off(0), v + off(1)];
    });
  }
  const worn: Worn[] = [];
  if (film.hips) {
    worn.push({
      ...wornOf(film.hips, random),
      share: 0.08,
      line: ['leftHip', 'rightHip'],
    });
  }
  if (film.ribs) {
    worn.push({
      ...wornOf(film.ribs, random),
      share: BELOW_ARMS,
      line: ['leftShoulder', 'rightShoulder'],
    });
  }
  const yawOf = ([left, right]: Worn['line']) =>
    poses.map((one) => side * headingOf(one[left], one[right]));
  return {
    times,
    points,
    yaw: {
      hips: yawOf(['leftHip', 'rightHip']),
      ribs: yawOf(['leftShoulder', 'rightShoulder']),
    },
    picture: (frame) => drawn(film, camera, poses[frame]!, worn, seeded(film.seed + 7919 * frame)),
  };
}

const wornOf = (band: WornBand, random: () => number) => ({
  band,
  section: sectionOf(band),
  fold: foldsOf(random),
});

/** How far the right side is ahead of the left. */
const headingOf = (left: Point, right: Point) => Math.atan2(right[0] - left[0], right[2] - left[2]);

interface Camera {
  readonly place: Point;
  /** Unit vectors: into the picture, to its right, up. */
  readonly ahead: Point;
  readonly right: Point;
  readonly seen: (point: Point) => [number, number];
}

/** Level, pointed at where the student stands first. */
function cameraOf(film: BandedFilm, first: Pose, side: number): Camera {
  const at = mix(first.leftHip, first.rightHip, 0.5);
  const [x, z] = [Math.cos(film.azimuth), side * Math.sin(film.azimuth)];
  const place: Point = [at[0] + film.distance * x, film.height, at[2] + film.distance * z];
  const ahead: Point = [-x, 0, -z];
  // Ahead × up.
  const right: Point = [z, 0, -x];
  const { width, height } = film.size;
  return {
    place,
    ahead,
    right,
    seen: (point) => {
      const d = [point[0] - place[0], point[1] - place[1], point[2] - place[2]] as const;
      const depth = d[0] * ahead[0] + d[2] * ahead[2];
      const across = d[0] * right[0] + d[2] * right[2];
      return [width / 2 + (film.focal * across) / depth, height / 2 - (film.focal * d[1]) / depth];
    },
  };
}

const BACKGROUND = 118;
const SHIRT = 84;
const SKIN = 150;
const BLACK = 38;
const WHITE = 208;

function drawn(
  film: BandedFilm,
  camera: Camera,
  pose: Pose,
  worn: readonly Worn[],
  random: () => number,
): Uint8Array {
  const { width, height } = film.size;
  const data = new Float32Array(width * height).fill(BACKGROUND);
  const depths = new Float32Array(width * height).fill(Infinity);
  for (const one of worn) drawBand(film, camera, pose, one, data, depths);
  if (film.hasArms) drawArms(film, camera, pose, data, depths);
  const soft = film.softness > 0 ? blurred(data, width, height, film.softness) : data;
  const grey = new Uint8Array(width * height);
  for (let i = 0; i < grey.length; i++) {
    grey[i] = Math.max(0, Math.min(255, soft[i]! + film.grain * normal(random)));
  }
  return grey;
}

function drawBand(
  film: BandedFilm,
  camera: Camera,
  pose: Pose,
  { band, section, fold, share, line }: Worn,
  data: Float32Array,
  depths: Float32Array,
): void {
  const hips = mix(pose.leftHip, pose.rightHip, 0.5);
  const chest = mix(pose.leftShoulder, pose.rightShoulder, 0.5);
  const centre = mix(hips, chest, share);
  const up = [chest[0] - hips[0], chest[1] - hips[1], chest[2] - hips[2]] as const;
  const heading = headingOf(pose[line[0]], pose[line[1]]);
  // The front, and the wearer's right, over the floor.
  const front = [Math.cos(heading), -Math.sin(heading)] as const;
  const right = [Math.sin(heading), Math.cos(heading)] as const;
  const { width, height } = film.size;
  const [u0, v0] = camera.seen(centre);
  const away = Math.hypot(centre[0] - camera.place[0], centre[2] - camera.place[2]);
  const reach = (0.26 * film.focal) / away;
  const tall = (0.12 * film.focal) / away;
  const widest = Math.max(section.radius(0), section.radius(Math.PI / 2)) + 4 * film.folds + 0.02;
  for (let v = Math.max(0, Math.floor(v0 - tall)); v < Math.min(height, v0 + tall); v++) {
    for (let u = Math.max(0, Math.floor(u0 - reach)); u < Math.min(width, u0 + reach); u++) {
      const [across, rise] = [
        (u + 0.5 - width / 2) / film.focal,
        (height / 2 - v - 0.5) / film.focal,
      ];
      if (Math.abs(u + 0.5 - u0) > (widest * film.focal) / (away - widest)) continue;
      const way: Point = [
        camera.ahead[0] + across * camera.right[0],
        rise,
        camera.ahead[2] + across * camera.right[2],
      ];
      const hit = met((depth) => {
        const y = camera.place[1] + depth * way[1];
        const lean = up[1] === 0 ? 0 : (y - centre[1]) / up[1];
        const x = camera.place[0] + depth * way[0] - centre[0] - lean * up[0];
        const z = camera.place[2] + depth * way[2] - centre[2] - lean * up[2];
        const [forward, sideways] = [x * front[0] + z * front[1], x * right[0] + z * right[1]];
        const angle = Math.atan2(sideways, forward);
        const edge = section.radius(angle) + film.folds * fold(angle, y - centre[1]);
        return { inside: edge - Math.hypot(forward, sideways), angle, y };
      }, away);
      if (!hit) continue;
      const i = v * width + u;
      depths[i] = hit.depth;
      const light = 0.78 + 0.22 * Math.cos(hit.angle + heading - 0.7);
      data[i] = light * levelOn(film, band, section, hit.angle, hit.y - centre[1]);
    }
  }
}

function levelOn(
  { seam }: BandedFilm,
  { code, girth, bar: wide = BAR }: WornBand,
  section: Section,
  angle: number,
  up: number,
): number {
  if (Math.abs(up) > BAND / 2) return SHIRT;
  // From the triangle to the right of somebody who looks at it, that is to the wearer's left.
  const from = seam === 'back' ? 0 : girth / 2;
  let round = from - section.round(angle);
  round -= girth * Math.round(round / girth);
  const bar = Math.floor(code.length / 2) + Math.floor(round / wide);
  return code[bar] === '1' ? WHITE : code[bar] === '0' ? BLACK : SHIRT;
}

/** Where a ray first meets what is inside; looked for in steps, then halved. */
function met<T extends { inside: number }>(
  at: (depth: number) => T,
  away: number,
): (T & { depth: number }) | null {
  const step = 0.04;
  let last = away - 0.26;
  if (at(last).inside > 0) return null;
  for (let depth = last + step; depth < away + 0.08; depth += step) {
    if (at(depth).inside > 0) {
      let [out, inn] = [last, depth];
      for (let k = 0; k < 8; k++) {
        const middle = (out + inn) / 2;
        if (at(middle).inside > 0) inn = middle;
        else out = middle;
      }
      return { ...at(inn), depth: inn };
    }
    last = depth;
  }
  return null;
}

/** Forearms and upper arms, as thick as arms are. */
function drawArms(
  film: BandedFilm,
  camera: Camera,
  pose: Pose,
  data: Float32Array,
  depths: Float32Array,
): void {
  const { width, height } = film.size;
  for (const side of ['left', 'right'] as const) {
    const joints = [pose[`${side}Shoulder`], pose[`${side}Elbow`], pose[`${side}Wrist`]] as const;
    for (const [from, to] of [
      [joints[0], joints[1]],
      [joints[1], joints[2]],
    ] as const) {
      for (let k = 0; k <= 60; k++) {
        const point = mix(from, to, k / 60);
        const depth =
          (point[0] - camera.place[0]) * camera.ahead[0] +
          (point[2] - camera.place[2]) * camera.ahead[2];
        const [u0, v0] = camera.seen(point);
        const thick = (0.042 * film.focal) / depth;
        for (let v = Math.ceil(v0 - thick); v <= v0 + thick; v++) {
          for (let u = Math.ceil(u0 - thick); u <= u0 + thick; u++) {
            if (u < 0 || v < 0 || u >= width || v >= height) continue;
            if (Math.hypot(u - u0, v - v0) > thick || depths[v * width + u]! < depth) continue;
            data[v * width + u] = SKIN;
          }
        }
      }
    }
  }
}

function blurred(data: Float32Array, width: number, height: number, sigma: number): Float32Array {
  const reach = Math.ceil(2.5 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-0.5 * ((i - reach) / sigma) ** 2),
  );
  const total = weights.reduce((sum, one) => sum + one, 0);
  const pass = (from: Float32Array, stride: number, length: number, lines: number, gap: number) => {
    const to = new Float32Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < length; i++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++) {
          const j = Math.max(0, Math.min(length - 1, i + k));
          sum += weights[k + reach]! * from[line * gap + j * stride]!;
        }
        to[line * gap + i * stride] = sum / total;
      }
    }
    return to;
  };
  return pass(pass(data, 1, width, height, width), width, height, width, 1);
}

/** A student in a tight shirt, filmed from behind at hip height, both bands closed in front. */
export const USUALLY_BANDED: Omit<BandedFilm, 'recipe' | 'hips' | 'ribs'> = {
  rate: 120,
  azimuth: Math.PI,
  distance: 3.5,
  height: 1.2,
  focal: 720,
  size: { width: 400, height: 260 },
  seam: 'front',
  folds: 0.003,
  grain: 4,
  softness: 1,
  pointNoise: 1.5,
  pointLean: 5,
  hasArms: true,
  seed: 1,
};
