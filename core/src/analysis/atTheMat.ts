/**
 * What is said at the mat of a hit that has just been heard: from two dozen frames that the body tracker has
 * looked at, by the same way as everything else, only that nobody waits for it.
 */
import { glimpse, type Glimpse } from '../measure/measures/glimpse';
import { absent, type Measured } from '../foundation/reading/reading';
import { techniqueById, type Technique, type View } from '../foundation/technique/techniques';
import { strikingSide } from '../foundation/technique/strike';
import type { PoseDetection } from '../observe/track/poseDetection';
import { nearestFrame } from '../observe/track/time';
import {
  cleanDetections,
  trackFrom,
  type CleanDetections,
} from '../observe/track/trackFromDetections';
import { measureInClip } from './analyzeClip';
import { EMPTY_DOCUMENT } from './clipDocument';

export interface AtTheMat {
  /** Null where the coach has not said what is struck. */
  readonly technique: Technique['id'] | null;
  readonly stance: 'orthodox' | 'southpaw';
  readonly view: View;
  /** Metres, where it is known. */
  readonly heightM: number | null;
}

export interface Looks {
  /** One a frame at most, by the place of their frame among the times. */
  readonly detections: readonly PoseDetection[];
  /** Real time of every frame that was looked at, seconds. */
  readonly times: readonly number[];
  /** Pixels of the picture. */
  readonly width: number;
  readonly height: number;
  /** When the hit was heard, by the same clock. */
  readonly hit: number;
}

export function glimpseAtTheMat(looks: Looks, about: AtTheMat): Glimpse {
  const base = cleanDetections(looks.detections, looks.times);
  const { track, stature } = trackFrom(base, { placed: [], corrections: [] }, looks.height);
  const technique = about.technique === null ? null : techniqueById(about.technique);
  const striking =
    technique && technique.family !== 'kick' ? strikingSide(technique, about.stance) : null;
  return {
    ...glimpse(track, stature, about.heightM, looks.hit, striking),
    reach: technique
      ? reachOf(base, looks, technique, about)
      : absent('Say what is struck, and the reach is measured.'),
  };
}

/** A hit is heard a little late, and where in the frames it lies is known no better, frames. */
const UNSURE = 3;

function reachOf(
  base: CleanDetections,
  looks: Looks,
  technique: Technique,
  about: AtTheMat,
): Measured {
  const frame = nearestFrame(looks.times, looks.hit);
  const strike = {
    id: 'the hit',
    technique: technique.id,
    side: strikingSide(technique, about.stance),
    marks: { contact: { frame, width: UNSURE } },
  };
  const document = { ...EMPTY_DOCUMENT, view: about.view, strikes: [strike] };
  const { width, height, times } = looks;
  const film = { frameTimes: times, width, height, tracked: base };
  const student = { school: {}, stance: about.stance, heightM: about.heightM, massKg: null };
  try {
    return measureInClip({ document, film, student, second: null }, strike).readings.reach;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return absent(error.message);
  }
}
