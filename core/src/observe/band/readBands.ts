/**
 * The turn of hips and ribs in every frame of one film, read off the bands that the student wears: strips are cut
 * as the pictures come, and read when all are there.
 */
import { mean, median } from 'd3-array';
import type { Stance } from '../../foundation/body/landmarks';
import { wrapped } from '../../foundation/geometry/angles';
import type { Grey } from '../footage/grey';
import { BANDS, textureOf, type BandName, type Worn, type WornBands } from './band';
import type { Fit } from './fit';
import { facesCamera, sightsOf, type Frame, type Joints, type Place } from './frames';
import type { Sight } from './match';
import { refined } from './refine';
import { APART, candidatesOf, spacedOut, type Candidate } from './search';
import { cutStrip } from './strip';
import { taped } from './tape';
import { asSeen, torsoOf } from './torso';

export interface BandFilm {
  /** Pixels. */
  readonly focal: number;
  /**
   * Where the camera stands: radians from the front, positive toward the side the chest is turned to in guard;
   * null when nobody knows, and then a guard is taken to be turned away as usual.
   */
  readonly azimuth: number | null;
  readonly stance: Stance;
  readonly bands: WornBands;
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
      /** The same for both bands of a film: how well it is known where square to the target is. */
      readonly square: number;
    }
  | { readonly time: number; readonly why: string };

/** All of a reading's doubt: one standard deviation, radians. */
export const sigmaOf = ({ shake, lasting, square }: Extract<BandReading, { yaw: number }>) =>
  Math.hypot(shake, lasting, square);

/** Length of the trunk, hips to shoulders, that tells how large things are at first, metres. */
const TRUNK = 0.5;
/** Where a band may sit, as shares of the way from the hips to the shoulders. */
const SOUGHT = { hips: [-0.2, 0.36], ribs: [0.2, 0.86] } as const;
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
/** Of what faces the camera so much must be seen: arms over a band pull its turn by tens of degrees. */
const LEAST_UNCOVERED = 0.65;
/** Pixels of a bar below which it cannot be told from the next. */
const LEAST_PIXELS = 4;

/** From so many frames it is learned what is painted on the body. */
const FOR_PAINT = 60;

/**
 * By how much a whole film is off, radians: bodies are no ellipses and cloth lies as it likes. On simulated
 * torsos, also with the seam in view.
 */
const LASTING = 0.05;
const LASTING_AT_SEAM = 0.08;

/**
 * How hips and ribs stand to each other in guard, radians, and by which share a turn is off where no code tells how
 * large and how flat the body is: one standard deviation, on simulated torsos that wear tape.
 */
const TWIST_IN_GUARD = 0.12;
const TAPE_SCALE = 0.16;

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
    const all = BANDS.flatMap((name) => {
      const frames = this.frames[name];
      return frames ? [look(name, frames, this.film)] : [];
    });
    const picked = all.length > 0 ? together(all, this.film.azimuth !== null) : new Map();
    const out: Read = Object.fromEntries(
      all.map((band) => [band.name, readOne(band, picked.get(band.name))]),
    );
    const isSquareKnown = this.film.azimuth !== null && all.every(({ worn }) => worn.code !== null);
    return isSquareKnown ? out : squared(out, this.film);
  }
}

export type Read = Partial<Record<BandName, readonly BandReading[]>>;

/** How far stances differ, radians, one standard deviation (common practice, no source). */
export const STANCE_VARIES = (15 * Math.PI) / 180;

/**
 * Turns counted from where they begin, which is taken to be a guard. Bars tell how hips and ribs stand to each other
 * there; tape does not, and how far it has turned since only in proportion.
 */
function squared(read: Read, { bands }: BandFilm): Read {
  const shared = beginOf(read.hips ?? read.ribs ?? []);
  return Object.fromEntries(
    Object.entries(read).map(([name, readings]) => {
      const isTape = bands[name as BandName]!.code === null;
      const begins = isTape ? beginOf(readings) : shared;
      return [name, begins === undefined ? readings : countedFrom(begins, readings, isTape)];
    }),
  );
}

const beginOf = (readings: readonly BandReading[]) =>
  median(readings.filter((one) => 'yaw' in one).slice(0, AT_FIRST), ({ yaw }) => yaw);

function countedFrom(
  begins: number,
  readings: readonly BandReading[],
  isTape: boolean,
): readonly BandReading[] {
  return readings.map((one) => {
    if (!('yaw' in one)) return one;
    const turned = wrapped(one.yaw - begins);
    const own = isTape ? Math.hypot(TWIST_IN_GUARD, TAPE_SCALE * turned) : 0;
    const lasting = Math.hypot(one.lasting, own);
    return { ...one, yaw: turned + GUARD, lasting, square: STANCE_VARIES };
  });
}

const middle = ([a, b]: readonly [Place, Place]): Place => ({
  x: (a.x + b.x) / 2,
  y: (a.y + b.y) / 2,
});

/** One band of a film, looked for. */
interface Looked {
  readonly name: BandName;
  readonly worn: Worn;
  readonly frames: readonly Frame[];
  readonly sights: readonly (Sight | null)[];
  readonly candidates: readonly Candidate[];
  /** The turn of the body, for that of a torso. */
  readonly yawOf: (turn: number) => number;
}

function look(name: BandName, frames: readonly Frame[], film: BandFilm): Looked {
  const worn = film.bands[name]!;
  const sights = sightsOf(frames);
  const side = film.stance === 'southpaw' ? -1 : 1;
  const azimuth = film.azimuth ?? 0;
  const turnOf = (yaw: number) => side * (azimuth + yaw);
  const yawOf = (turn: number) => side * turn - azimuth;
  const turns = film.azimuth === null ? ANY_TURN : TURNS;
  const first = sights.findIndex((sight) => sight !== null);
  const scale = frames[first]?.scale ?? 1;
  const spacing = spacingOf(frames);
  const usualDistance = film.focal / scale;
  if (worn.code === null) {
    const begins = film.azimuth === null ? turnsSeen(frames.slice(first), name) : [turnOf(GUARD)];
    const candidates = taped({ sights, spacing, girth: worn.girth, usualDistance, begins });
    return { name, worn, frames, sights, candidates, yawOf };
  }
  const texture = textureOf(worn.code, worn.girth);
  const candidates = candidatesOf({
    sights,
    spacing,
    torsoWith: (flatness) => torsoOf(texture, flatness, worn.seam),
    usualDistance,
    range: turns.map(turnOf).sort((a, b) => a - b) as [number, number],
    expected: (turn, frame) => {
      const seen = (frames[frame]!.across / JOINTS_APART[name] + Math.cos(turn)) / ACROSS_VARIES;
      const isGuard = frame === first && film.azimuth !== null;
      const away = isGuard ? (yawOf(turn) - GUARD) / GUARD_VARIES : 0;
      return 0.5 * (seen ** 2 + away ** 2);
    },
  });
  return { name, worn, frames, sights, candidates, yawOf };
}

/** The turns along the line of sight by which hips or shoulders look as wide as they do at first. */
function turnsSeen(frames: readonly Frame[], name: BandName): readonly number[] {
  const across = median(frames.slice(0, AT_FIRST), (frame) => frame.across)! / JOINTS_APART[name];
  const turn = Math.acos(Math.max(-1, Math.min(1, -across)));
  return [turn, -turn];
}

const spacingOf = (frames: readonly Frame[]) =>
  (frames[frames.length - 1]!.time - frames[0]!.time) / Math.max(1, frames.length - 1);

/** Hips and ribs hardly turn farther apart than this, radians, one standard deviation. */
const TWISTED = (30 * Math.PI) / 180;

/** For each band the likeliest way, together with the other's: bars that look alike would part hips and ribs. */
function together(all: readonly Looked[], isPlaceKnown: boolean): ReadonlyMap<BandName, Candidate> {
  const guarded = ({ candidates, yawOf, sights }: Looked) =>
    candidates.map((candidate) => {
      const first = candidate.way.filter((_, i) => sights[i]).slice(0, AT_FIRST);
      const begins = mean(first, ({ turn }) => yawOf(turn))!;
      const away = isPlaceKnown ? 0.5 * ((begins - GUARD) / GUARD_VARIES) ** 2 : 0;
      return { candidate, unlikely: candidate.unlikely + away, yawOf };
    });
  const [one, other] = all.map(guarded);
  const pairs = one!.flatMap((a) =>
    other && other.length > 0
      ? other.map((b) => {
          const apart = mean(
            a.candidate.way,
            ({ turn }, i) => ((a.yawOf(turn) - b.yawOf(b.candidate.way[i]!.turn)) / TWISTED) ** 2,
          )!;
          return { picked: [a, b], unlikely: a.unlikely + b.unlikely + 0.5 * APART * apart };
        })
      : [{ picked: [a], unlikely: a.unlikely }],
  );
  const found = pairs.length > 0 ? pairs.reduce((a, b) => (b.unlikely < a.unlikely ? b : a)) : null;
  return new Map(
    all.flatMap(({ name }, i) => {
      const picked = found?.picked[i];
      return picked ? [[name, picked.candidate] as const] : [];
    }),
  );
}

const NO_TAPE = 'what is seen of the strips of tape does not go together';
const otherBand = (name: BandName) =>
  `this is not the band for the ${name}: it is missing, another one or upside down`;

function readOne(
  { name, worn, frames, sights, yawOf }: Looked,
  picked: Candidate | undefined,
): BandReading[] {
  if (!picked) return frames.map(({ time, why }) => ({ time, why: why ?? 'no band is seen here' }));
  const spacing = spacingOf(frames);
  const printed = refined(sights, spacing, picked.way, picked);
  if (!isThisBand(printed, sights)) {
    return frames.map(({ time, why }) => ({
      time,
      why: why ?? (worn.code === null ? NO_TAPE : otherBand(name)),
    }));
  }
  const torso = asSeen(
    picked.torso,
    spacedOut(
      printed.flatMap((fit, i) => (fit ? [{ ...fit, grid: sights[i]!.grid }] : [])),
      FOR_PAINT,
    ),
  );
  const fits = refined(sights, spacing, picked.way, { ...picked, torso }, printed);
  const most = mostUnexplained(fits, worn);
  const readings = fits.map((fit, i): BandReading => {
    const { time, why } = frames[i]!;
    if (!fit || 1 - fit.explained > most) {
      return { time, why: why ?? 'the band cannot be read here' };
    }
    if (fit.uncovered < LEAST_UNCOVERED) {
      const isArm = facesCamera(frames[i]!);
      return { time, why: isArm ? 'an arm lies over the band' : 'too little of the band is seen' };
    }
    return {
      time,
      yaw: yawOf(fit.pose.turn),
      shake: fit.sigma,
      lasting: seamInView(fit, worn) ? LASTING_AT_SEAM : LASTING,
      square: 0,
    };
  });
  return worn.code === null ? readings : withoutMoments(readings);
}

/** Frames farther apart than this, seconds, go on by themselves; */
const PAUSE = 0.04;
/** and of a code that is read for no longer than this, between hidden frames, any stretch may be meant. */
const MOMENT = 0.08;

/** @returns the same readings, but for those of stretches that are too short to be believed */
export function withoutMoments(readings: readonly BandReading[]): BandReading[] {
  const read = readings.filter((one) => 'yaw' in one);
  const stretches = read.reduce<(typeof read)[]>((all, one) => {
    const last = all[all.length - 1];
    if (last && one.time - last[last.length - 1]!.time <= PAUSE) last.push(one);
    else all.push([one]);
    return all;
  }, []);
  const believed = new Set<BandReading>(
    stretches.filter((all) => all[all.length - 1]!.time - all[0]!.time > MOMENT).flat(),
  );
  return readings.map((one) =>
    'why' in one || believed.has(one)
      ? one
      : { time: one.time, why: 'it is read for a moment only' },
  );
}

/** A band that is there is read in more of the frames, and explains more of what is seen. */
const READ_AT_LEAST = 0.25;
const USUALLY_EXPLAINED = 0.75;

function isThisBand(fits: readonly (Fit | null)[], sights: readonly (Sight | null)[]): boolean {
  const seenIn = sights.filter((sight) => sight !== null).length;
  const known = fits.filter((fit) => fit !== null);
  return (
    known.length >= READ_AT_LEAST * seenIn &&
    median(known, ({ explained }) => explained)! > USUALLY_EXPLAINED
  );
}

/** A frame of which less than this is explained is misread, */
const LEAST_EXPLAINED = { code: 0.8, tape: 0.7 };
/** except in a film that nothing explains so well: by so many times as much as is usual there. */
const MORE_THAN_USUAL = 3;

/**
 * A code that an arm hides from one side to the middle was laid two bars aside, and explained 65 to 85 %; of frames
 * that were read rightly, 98 in 100 were explained to more than 80 %, on films of made-up fighters.
 */
function mostUnexplained(fits: readonly (Fit | null)[], { code }: Worn): number {
  const seen = fits.filter((fit) => fit !== null && fit.uncovered >= LEAST_UNCOVERED);
  const usual = median(seen, (fit) => 1 - fit!.explained) ?? 0;
  return Math.max(1 - LEAST_EXPLAINED[code === null ? 'tape' : 'code'], MORE_THAN_USUAL * usual);
}

/** Seen closer to the middle than this, the seam is in view, radians. */
const SEAM_SEEN = (65 * Math.PI) / 180;

function seamInView({ pose }: Fit, { seam, code }: Worn): boolean {
  if (code === null) return false;
  const away = pose.turn + pose.bearing - (seam === 'front' ? 0 : Math.PI);
  return Math.cos(away) > Math.cos(SEAM_SEEN);
}
