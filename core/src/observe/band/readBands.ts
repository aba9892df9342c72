/**
 * The turn of hips and ribs in every frame of one film, read off the bands that the student wears: strips are cut
 * as the pictures come, and read when all are there.
 */
import { mean, median } from 'd3-array';
import type { Stance } from '../../foundation/body/landmarks';
import { wrapped } from '../../foundation/geometry/angles';
import type { Grey } from '../footage/grey';
import { textureOf, type BandName, type Worn } from './band';
import { fitted, type Expected, type Fit } from './fit';
import {
  likeliestWay,
  leastUnlike,
  likeness,
  sightOf,
  templatesOf,
  type Rough,
  type Sight,
  type Templates,
  unlikeOf,
} from './match';
import { averaged, courseAround, cutStrip, standsOut, type Course, type Strip } from './strip';
import { asSeen, torsoOf, type Torso } from './torso';

/** Where a body tracker has the joints that bands sit between: pixels; null where it has none. */
export interface Joints {
  /** The left one first. */
  readonly hips: readonly [Place, Place] | null;
  readonly shoulders: readonly [Place, Place] | null;
  /** From elbow to wrist, those that are known. */
  readonly forearms: readonly (readonly [Place, Place])[];
}

export interface Place {
  readonly x: number;
  readonly y: number;
}

export interface BandFilm {
  /** Pixels. */
  readonly focal: number;
  /**
   * Where the camera stands: radians from the front, positive toward the side the chest is turned to in guard;
   * null when nobody knows, and then a guard is taken to be turned away as usual.
   */
  readonly azimuth: number | null;
  readonly stance: Stance;
  readonly bands: Partial<Record<BandName, Worn>>;
}

/** What a band says in one frame: its turn, or why it says nothing. */
export type BandReading =
  | {
      readonly time: number;
      /** Radians; 0 = square to the target, positive = the rear side has come forward. */
      readonly yaw: number;
      /** One standard deviation: what differs from frame to frame, and what stays for the whole film. */
      readonly shake: number;
      readonly lasting: number;
    }
  | { readonly time: number; readonly why: string };

/** Length of the trunk, hips to shoulders, that tells how large things are at first, metres. */
const TRUNK = 0.5;
/** Where a band may sit, as shares of the way from the hips to the shoulders. */
const SOUGHT = { hips: [-0.2, 0.36], ribs: [0.2, 0.86] } as const;
/** Shapes of a waist and a chest, depth ÷ width, and how far the size may be off. */
const ROUGH_FLATNESS = [0.58, 0.66, 0.74, 0.82];
const FLATNESS = [0.54, 0.6, 0.66, 0.72, 0.78, 0.84, 0.9];
const SIZES = [0.88, 0.94, 1, 1.06, 1.12];
const SIZE_VARIES = 0.08;
/** So many frames are enough to find the shape of a body by, roughly and exactly. */
const FOR_SHAPE = 6;
const FOR_FIT = 8;
/** How far hips and shoulders are apart, metres, and how much the share of it varies that a tracker shows. */
const JOINTS_APART = { hips: 0.3, ribs: 0.4 } as const;
const ACROSS_VARIES = 0.25;
/** A guard is turned away by about this; radians, with its standard deviation. */
const GUARD = -Math.PI / 4;
const GUARD_VARIES = (40 * Math.PI) / 180;
/** Turns that a striking body takes, radians. */
const TURNS = [(-130 * Math.PI) / 180, (95 * Math.PI) / 180] as const;
const ANY_TURN = [-1.5 * Math.PI, 1.5 * Math.PI] as const;
/** Frames from which a guard is read. */
const AT_FIRST = 9;
/** A likeness or a share explained of less than this is no reading. */
const LEAST_LIKE = 0.5;
const LEAST_EXPLAINED = 0.6;
/** Of what faces the camera so much must be seen: arms over a band pull its turn by tens of degrees. */
const LEAST_UNCOVERED = 0.65;
/** Between black and white bars, grey levels: less is no print. */
const LEAST_CONTRAST = 15;
/** So many ellipses are followed through the film. */
const CANDIDATES = 2;
/** Pixels of a bar below which it cannot be told from the next. */
const LEAST_PIXELS = 4;

/**
 * By how much a whole film is off, radians: bodies are no ellipses and cloth lies as it likes. On simulated
 * torsos, also with the seam in view.
 */
const LASTING = 0.04;
const LASTING_AT_SEAM = 0.07;

interface Frame {
  readonly time: number;
  readonly strip: Strip | null;
  readonly why: string | null;
  /** Pixels a metre. */
  readonly scale: number;
  /** How far the right joint is to the right of the left one in the picture, metres. */
  readonly across: number;
  readonly forearms: Joints['forearms'];
}

export class BandReader {
  private readonly frames: Partial<Record<BandName, Frame[]>> = {};
  private scale: number | null = null;

  constructor(private readonly film: BandFilm) {}

  /** One picture after the other, in order. */
  see(picture: Grey, time: number, joints: Joints): void {
    for (const [name, worn] of Object.entries(this.film.bands) as [BandName, Worn][]) {
      if (worn) (this.frames[name] ??= []).push(this.frameOf(picture, time, joints, name));
    }
  }

  private frameOf(picture: Grey, time: number, joints: Joints, name: BandName): Frame {
    const { hips, shoulders, forearms } = joints;
    const nothing = (why: string): Frame => ({
      time,
      strip: null,
      why,
      scale: 0,
      across: 0,
      forearms,
    });
    if (!hips || !shoulders) return nothing('hips and shoulders are not known in this frame');
    const [low, high] = [middle(hips), middle(shoulders)];
    const trunk = Math.hypot(high.x - low.x, high.y - low.y);
    this.scale ??= trunk / TRUNK;
    const scale = this.scale;
    if (scale * 0.03 < LEAST_PIXELS) return nothing('the band is too small in the picture');
    const at = (share: number): Place => ({
      x: low.x + share * (high.x - low.x),
      y: low.y + share * (high.y - low.y),
    });
    const [from, to] = SOUGHT[name];
    const cut = { top: at(to), bottom: at(from), scale, focal: this.film.focal };
    const strip = cutStrip(picture, cut);
    const [left, right] = name === 'hips' ? hips : shoulders;
    return { time, strip, why: null, scale, across: (right.x - left.x) / scale, forearms };
  }

  /** All that the bands say, when every picture has been seen. */
  read(): Read {
    const out: Read = {};
    for (const [name, frames] of Object.entries(this.frames) as [BandName, Frame[]][]) {
      out[name] = readOne(name, frames, this.film, this.film.bands[name]!);
    }
    return this.film.azimuth === null ? squared(out) : out;
  }
}

type Read = Partial<Record<BandName, readonly BandReading[]>>;

/** How far stances differ, radians, one standard deviation (common practice, no source). */
const STANCE_VARIES = (15 * Math.PI) / 180;

/** Turns counted from where they begin, which is taken to be a guard. */
function squared(read: Read): Read {
  const known = (read.hips ?? read.ribs ?? []).filter((one) => 'yaw' in one);
  const begins = median(known.slice(0, AT_FIRST), ({ yaw }) => yaw);
  if (begins === undefined) return read;
  const shifted = (one: BandReading): BandReading =>
    'yaw' in one
      ? {
          ...one,
          yaw: wrapped(one.yaw - begins) + GUARD,
          lasting: Math.hypot(one.lasting, STANCE_VARIES),
        }
      : one;
  return {
    ...(read.hips && { hips: read.hips.map(shifted) }),
    ...(read.ribs && { ribs: read.ribs.map(shifted) }),
  };
}

const middle = ([a, b]: readonly [Place, Place]): Place => ({
  x: (a.x + b.x) / 2,
  y: (a.y + b.y) / 2,
});

function readOne(
  name: BandName,
  frames: readonly Frame[],
  film: BandFilm,
  worn: Worn,
): BandReading[] {
  const sights = sightsOf(frames);
  const seenFrames = sights.flatMap((sight, i) => (sight ? [i] : []));
  if (seenFrames.length < 3) {
    return frames.map(({ time, why }) => ({ time, why: why ?? 'no band is seen here' }));
  }
  const spacing = (frames[frames.length - 1]!.time - frames[0]!.time) / (frames.length - 1);
  const texture = textureOf(worn);
  const usualDistance = film.focal / frames[seenFrames[0]!]!.scale;
  const side = film.stance === 'southpaw' ? -1 : 1;
  /** How the torso's front is turned from the camera's plane, for a yaw, and back. */
  const azimuth = film.azimuth ?? 0;
  const turnOf = (yaw: number) => side * (azimuth + yaw);
  const yawOf = (turn: number) => side * turn - azimuth;
  const turns = film.azimuth === null ? ANY_TURN : TURNS;
  const range = turns.map(turnOf).sort((a, b) => a - b) as [number, number];
  const width = JOINTS_APART[name];
  const expected = (turn: number, frame: number) => {
    const { across } = frames[frame]!;
    const isKnown = frame === 0 && film.azimuth !== null;
    const first = isKnown ? ((yawOf(turn) - GUARD) / GUARD_VARIES) ** 2 : 0;
    return 0.5 * (first + ((across / width + Math.cos(turn)) / ACROSS_VARIES) ** 2);
  };
  const candidates = roughShapes(
    spacedOut(seenFrames, FOR_SHAPE).map((i) => ({
      sight: sights[i]!,
      expected: (turn: number) => expected(turn, i),
    })),
    (flatness) => torsoOf(texture, flatness, worn.seam),
    usualDistance,
    range,
  );
  const { step } = sights[seenFrames[0]!]!.grid;
  const tried = candidates.map((rough) => {
    const films = sights.map((sight) => sight && likeness(sight, rough.templates));
    const way = likeliestWay(films, rough.templates, step, expected);
    return {
      way,
      ...fittedShape(sights, way, rough, (flatness) => torsoOf(texture, flatness, worn.seam)),
    };
  });
  /** A way that the tracker's joints speak against must fit better. */
  const against = ({ way, miss }: (typeof tried)[number]) =>
    miss + mean(seenFrames, (i) => expected(way[i]!.turn, i))!;
  const { way, ...shape } = tried.reduce((a, b) => (against(b) < against(a) ? b : a));
  const printed = refined(sights, spacing, way, shape);
  if (!isThisBand(printed, seenFrames.length)) {
    return frames.map(({ time, why }) => ({
      time,
      why: why ?? `this is not the band for the ${name}: it is missing, another one or upside down`,
    }));
  }
  const torso = asSeen(
    shape.torso,
    spacedOut(
      printed.flatMap((fit, i) => (fit ? [{ ...fit, grid: sights[i]!.grid }] : [])),
      FOR_PAINT,
    ),
  );
  const fits = refined(sights, spacing, way, { ...shape, torso }, printed);
  return fits.map((fit, i) => {
    const { time, why } = frames[i]!;
    if (!fit) return { time, why: why ?? 'the band cannot be read here' };
    if (fit.uncovered < LEAST_UNCOVERED) return { time, why: 'an arm lies over the band' };
    return {
      time,
      yaw: yawOf(fit.pose.turn),
      shake: fit.sigma.turn,
      lasting: seamInView(fit, worn) ? LASTING_AT_SEAM : LASTING,
    };
  });
}

/** A band that is there is read in more of the frames, and explains more of what is seen. */
const READ_AT_LEAST = 0.25;
const USUALLY_EXPLAINED = 0.75;

function isThisBand(fits: readonly (Fit | null)[], seenIn: number): boolean {
  const known = fits.filter((fit) => fit !== null);
  return (
    known.length >= READ_AT_LEAST * seenIn &&
    median(known, ({ explained }) => explained)! > USUALLY_EXPLAINED
  );
}

/** Seen closer to the middle than this, the seam is in view, radians. */
const SEAM_SEEN = (65 * Math.PI) / 180;

function seamInView({ pose }: Fit, { seam }: Worn): boolean {
  const away = pose.turn + pose.bearing - (seam === 'front' ? 0 : Math.PI);
  return Math.cos(away) > Math.cos(SEAM_SEEN);
}

interface Shape {
  readonly torso: Torso;
  readonly distance: number;
  readonly templates: Templates;
}

/** The strips' bands, at rows that are steady in time. */
function sightsOf(frames: readonly Frame[]): (Sight | null)[] {
  const energies = frames.map(({ strip }) => strip && standsOut(strip));
  const total = new Map<number, number>();
  energies.forEach((energy) =>
    energy?.forEach((value, row) => {
      const most = Math.max(...energy);
      total.set(row, (total.get(row) ?? 0) + (value / most) ** 2);
    }),
  );
  const usual = [...total].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0])[0];
  const rows = energies.map((energy) => {
    if (!energy) return null;
    let best = usual;
    for (let row = usual - 5; row <= usual + 5; row++) {
      if ((energy[row] ?? 0) > (energy[best] ?? 0)) best = row;
    }
    return best;
  });
  return frames.map(({ strip, across, forearms, scale }, i) => {
    if (!strip) return null;
    const near = rows.slice(Math.max(0, i - 2), i + 3).filter((row) => row !== null);
    const row = Math.round(median(near)!);
    const course = courseAround(strip, row);
    const sight = sightOf(strip.grid, averaged(strip, course));
    // The chest looks at the camera, and the arms are between.
    return across < 0 ? withoutArms(sight, strip, course, forearms, scale) : sight;
  });
}

/** Half as thick as a forearm with a wrap, and what a tracker strays, metres. */
const ARM = 0.06;

/** Columns that a forearm lies over count for nothing. */
function withoutArms(
  sight: Sight,
  strip: Strip,
  course: Course,
  forearms: Joints['forearms'],
  scale: number,
): Sight {
  if (forearms.length === 0) return sight;
  const weights = sight.weights.map((weight, column) => {
    const place = strip.placeAt(column, course);
    const isHidden = forearms.some((arm) => awayFrom(place, arm) < ARM * scale);
    return isHidden ? 0 : weight;
  });
  return { ...sight, weights };
}

/** Pixels from a place to the stretch between two others. */
function awayFrom({ x, y }: Place, [from, to]: readonly [Place, Place]): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const along = ((x - from.x) * dx + (y - from.y) * dy) / (dx * dx + dy * dy || 1);
  const share = Math.max(0, Math.min(1, along));
  return Math.hypot(x - from.x - share * dx, y - from.y - share * dy);
}

function spacedOut<T>(list: readonly T[], count: number): T[] {
  if (list.length <= count) return [...list];
  return Array.from(
    { length: count },
    (_, i) => list[Math.round((i * (list.length - 1)) / (count - 1))]!,
  );
}

/** For each ellipse tried, the distance at which a few frames are most like their band; the likeliest first. */
function roughShapes(
  picked: readonly { readonly sight: Sight; readonly expected: (turn: number) => number }[],
  torsoWith: (flatness: number) => Torso,
  usualDistance: number,
  range: readonly [number, number],
): readonly Shape[] {
  const { grid } = picked[0]!.sight;
  const shapes = ROUGH_FLATNESS.map((flatness) => {
    const torso = torsoWith(flatness);
    return SIZES.map((size) => {
      const distance = usualDistance * size;
      const templates = templatesOf(torso, distance, grid, range);
      const misfit = picked.reduce(
        (sum, { sight, expected }) =>
          sum + leastUnlike(likeness(sight, templates), templates, expected),
        0.5 * ((size - 1) / SIZE_VARIES) ** 2,
      );
      return { torso, distance, templates, misfit };
    }).reduce((a, b) => (b.misfit < a.misfit ? b : a));
  });
  return shapes.sort((a, b) => a.misfit - b.misfit).slice(0, CANDIDATES);
}

/** The ellipse that a dozen frames, each fitted, are missed least by. */
function fittedShape(
  sights: readonly (Sight | null)[],
  way: readonly Rough[],
  rough: Shape,
  torsoWith: (flatness: number) => Torso,
): Pick<Shape, 'torso' | 'distance'> & { readonly miss: number } {
  const like = way.flatMap(({ likeness: one }, i) => (sights[i] && one > LEAST_LIKE ? [i] : []));
  const picked = spacedOut(like, FOR_FIT);
  let best = { ...rough, miss: Infinity };
  for (const flatness of FLATNESS) {
    const torso = torsoWith(flatness);
    const fits = picked.flatMap((i) => {
      const fit = fitted(torso, sights[i]!, expectedAt(sights[i]!, way[i]!, rough.distance, FREE));
      return fit ? [fit] : [];
    });
    if (fits.length === 0 || fits.length < picked.length - 1) continue;
    const miss = mean(fits, (fit) => unlikeOf(fit.explained))!;
    if (miss < best.miss) {
      best = { ...best, torso, distance: median(fits, ({ pose }) => pose.distance)!, miss };
    }
  }
  return best;
}

const centreOf = ({ grid: { first, step, count } }: Sight) => first + ((count - 1) / 2) * step;

function expectedAt(
  sight: Sight,
  rough: Rough,
  distance: number,
  how: Omit<Expected, 'pose'>,
): Expected {
  const bearing = centreOf(sight) + rough.place;
  return { ...how, pose: { turn: rough.turn - bearing, bearing, distance } };
}

/** From so many frames it is learned what is painted on the body. */
const FOR_PAINT = 60;

/** Weak expectations at first; then a middle and a distance that hardly change from frame to frame. */
const FREE = { bearing: 0.006, distance: 0.05, turn: Infinity };
const HELD = { bearing: 0.0008, distance: 0.006, turn: Infinity };
/** Seconds to either side over which the torso keeps its place against the tracker's, and its distance. */
const STEADY = 0.33;
/** Seconds to either side over which the tracker's middle is averaged. */
const SMOOTH = 0.03;

function refined(
  sights: readonly (Sight | null)[],
  spacing: number,
  way: readonly Rough[],
  { torso, distance }: Pick<Shape, 'torso' | 'distance'>,
  before: readonly (Fit | null)[] = [],
): (Fit | null)[] {
  const first = sights.map((sight, i) => {
    if (!sight || way[i]!.likeness <= LEAST_LIKE) return null;
    const expected = expectedAt(sight, way[i]!, distance, FREE);
    const known = before[i]?.pose;
    return fitted(torso, sight, known ? { ...expected, pose: known } : expected);
  });
  const good = (fit: Fit | null | undefined): fit is Fit =>
    !!fit && fit.explained > LEAST_EXPLAINED && fit.contrast > LEAST_CONTRAST;
  const [smooth, long] = [SMOOTH, STEADY].map((one) => Math.max(1, Math.round(one / spacing))) as [
    number,
    number,
  ];
  const centres = sights.map((_, i) => {
    const near = sights
      .slice(Math.max(0, i - smooth), i + smooth + 1)
      .filter((one) => one !== null);
    return mean(near, centreOf) ?? 0;
  });
  const steady = (i: number) => {
    const from = Math.max(0, i - long);
    const known = first
      .slice(from, i + long + 1)
      .flatMap((fit, k) => (good(fit) ? [{ fit, at: from + k }] : []));
    if (known.length < 3) return null;
    // Against the strip's own middle, which goes where the body goes.
    return {
      off: median(known, ({ fit, at }) => fit.pose.bearing - centres[at]!)!,
      distance: median(known, ({ fit }) => fit.pose.distance)!,
    };
  };
  return sights.map((sight, i) => {
    const held = sight && steady(i);
    if (!held) return null;
    const bearing = centres[i]! + held.off;
    const turn = first[i] ? first[i]!.pose.turn : way[i]!.turn - bearing;
    const pose = { turn, bearing, distance: held.distance };
    const fit = fitted(torso, sight, { ...HELD, pose });
    return good(fit) ? fit : null;
  });
}
