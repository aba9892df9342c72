/** A film of worn bands read as the app would read it, held against its truth. */
import type { Stance } from '@sinew/core/foundation/body/landmarks';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { markOnFrame, type Events } from '@sinew/core/measure/events/events';
import { turnStarts } from '@sinew/core/measure/events/starts';
import { BANDS, PRINTED, type BandName } from '@sinew/core/observe/band/band';
import { jointsOf } from '@sinew/core/observe/band/frames';
import { BandReader, sigmaOf, type BandReading } from '@sinew/core/observe/band/readBands';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { turnOf } from '@sinew/core/observe/band/bandTurns';
import { motionFromBands } from '@sinew/core/reconstruct/motion/bandMotion';
import { cleaned } from '@sinew/core/reconstruct/motion/clean';
import { prepared } from '@sinew/core/reconstruct/motion/prepare';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import { bandedFilm, USUALLY_BANDED, type BandedFilm } from '../film/banded';
import { tapeOf } from '../film/wornBands';
import type { Recipe } from '../fighter/recipe';

/** Seconds around contact that are filmed. */
const BEFORE = 0.4;
const AFTER = 0.06;

/** What the reader is told otherwise than it is. */
export interface Told {
  readonly azimuth?: number | null;
  readonly codes?: Readonly<Record<BandName, string | null>>;
  /** Factors and metres by which it is told wrong. */
  readonly focal?: number;
  readonly girth?: number;
  /** Whether elbows and wrists are tracked. */
  readonly hasArms?: boolean;
}

export interface BandTrial {
  readonly film: BandedFilm;
  readonly times: readonly number[];
  /** Of the film, those that were read. */
  readonly frames: readonly number[];
  readonly read: Partial<Record<BandName, readonly BandReading[]>>;
  /** Radians, one for each frame that says something. */
  readonly misses: Readonly<Record<BandName, readonly Miss[]>>;
  readonly starts: Events;
}

export interface Miss {
  readonly miss: number;
  readonly sigma: number;
}

export function readBanded(film: BandedFilm, told: Told = {}): BandTrial {
  const { times, points, yaw, picture } = bandedFilm(film);
  const { azimuth = film.azimuth, codes = PRINTED, focal = 1, girth = 0, hasArms = true } = told;
  const { contact, stance } = film.recipe;
  const worn = (name: BandName) => ({
    code: codes[name],
    girth: (film[name]?.girth ?? 0.95) + girth,
    seam: film.seam,
  });
  const reader = new BandReader({
    focal: focal * film.focal,
    azimuth,
    stance,
    bands: { hips: worn('hips'), ribs: worn('ribs') },
  });
  const frames = times.flatMap((time, i) =>
    time > contact - BEFORE && time < contact + AFTER ? [i] : [],
  );
  for (const frame of frames) {
    const joints = jointsOf((name) => {
      const isArm = name.endsWith('Elbow') || name.endsWith('Wrist');
      const [x, y] = (!isArm || hasArms ? points[name]?.[frame] : null) ?? [];
      return x === undefined || y === undefined ? null : { x, y };
    });
    reader.see({ ...film.size, data: picture(frame) }, times[frame]!, joints);
  }
  const read = reader.read();
  const misses = Object.fromEntries(
    BANDS.map((name) => [
      name,
      (read[name] ?? []).flatMap((one, i) =>
        'yaw' in one ? [{ miss: one.yaw - yaw[name][frames[i]!]!, sigma: sigmaOf(one) }] : [],
      ),
    ]),
  ) as Record<BandName, Miss[]>;
  return {
    film,
    times,
    frames,
    read,
    misses,
    starts: startsOf(read, times, frames, film.recipe),
  };
}

function startsOf(
  read: BandTrial['read'],
  times: readonly number[],
  frames: readonly number[],
  { technique: id, stance, contact }: Recipe,
): Events {
  const technique = techniqueById(id);
  const strike = { technique, side: strikingSide(technique, stance), stance };
  const whole = motionFromBands(
    {
      isSquareKnown: true,
      hips: turnOf(read.hips ?? [], frames),
      ribs: turnOf(read.ribs ?? [], frames),
    },
    times,
    strike,
  );
  const motion = prepared(cleaned(whole), contact);
  return turnStarts(motion, technique, markOnFrame(times, nearestFrame(times, contact)));
}

/** What a trial of bands varies beside the seed. */
export interface Banding {
  /** Radians. */
  readonly azimuth: number;
  /** Frames a second. */
  readonly rate: number;
  readonly seed: number;
  /** Strips of tape in place of printed bars, and nobody says where the camera stands. */
  readonly isTape?: boolean;
}

/** A body, a place and a camera that differ with the seed, each told a little wrong. */
export function randomBanded(
  recipe: Recipe,
  { azimuth, rate, seed, isTape = false }: Banding,
): BandTrial {
  const random = seeded(seed);
  const between = (from: number, to: number) => from + (to - from) * random();
  const shape = () => ({ flatness: between(0.65, 0.85), boxiness: between(2, 2.5) });
  const stance: Stance = seed % 2 ? 'orthodox' : 'southpaw';
  const film: BandedFilm = {
    ...USUALLY_BANDED,
    recipe: { ...recipe, stance },
    azimuth,
    rate,
    seed,
    distance: between(3.2, 3.9),
    hips: { ...shape(), code: PRINTED.hips, girth: between(0.85, 1.05) },
    ribs: { ...shape(), code: PRINTED.ribs, girth: between(0.8, 1) },
  };
  const told = { focal: between(0.95, 1.05), girth: between(-0.005, 0.005) };
  if (!isTape) return readBanded(film, told);
  const taped = {
    hips: { ...film.hips!, ...tapeOf(random) },
    ribs: { ...film.ribs!, ...tapeOf(random) },
  };
  return readBanded({ ...film, ...taped }, { ...told, ...UNKNOWN });
}

const UNKNOWN: Told = { codes: { hips: null, ribs: null }, azimuth: null };
