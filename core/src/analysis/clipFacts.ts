/** What is known of a clip and its student beside what the coach sets on the bench. */
import type { School } from '../judge/school/schools';
import type { BandTurns } from '../observe/band/bandTurns';
import type { PoseDetection } from '../observe/track/poseDetection';
import { realFrameTimes } from '../observe/track/time';
import { cleanDetections, type CleanDetections } from '../observe/track/trackFromDetections';
import type { SpaceTrack } from '../observe/track/track';
import type { Offset } from '../observe/sound/sync';
import type { ClipDocument } from './clipDocument';

/** What does not change while the coach works: the film itself. */
export interface FilmFacts {
  /** The file's own presentation times, seconds. */
  readonly frameTimes: readonly number[];
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** What the body tracker saw in it, over real time; nothing when missing. */
  readonly tracked?: CleanDetections | null;
  /** A body in space that was measured elsewhere. */
  readonly series?: ImportedSeries | null;
  /** What worn bands tell of the turn of hips and ribs. */
  readonly bands?: BandTurns | null;
}

export interface ImportedSeries {
  readonly fileName: string;
  /** Real time of the film at which its own time is 0, seconds. */
  readonly begins: number;
  readonly track: SpaceTrack;
}

/** What the body tracker saw in a film, laid over real time; null when it saw nothing. */
export function trackedOf(
  detections: readonly PoseDetection[],
  { frameTimes }: Pick<FilmFacts, 'frameTimes'>,
  { captureRate }: Pick<FilmDocument, 'captureRate'>,
): CleanDetections | null {
  return detections.length > 0
    ? cleanDetections(detections, realFrameTimes(frameTimes, captureRate))
    : null;
}

/** What the analysis asks of the student. */
export interface StudentFacts {
  /** The student's own choices of school. */
  readonly school: School;
  readonly stance: 'orthodox' | 'southpaw';
  /** Metres and kilograms, where they are known. */
  readonly heightM: number | null;
  readonly massKg: number | null;
}

/** How and where a film was taken, and what was placed in it. */
export type FilmDocument = Omit<ClipDocument, 'strikes' | 'refused' | 'purpose'>;

/** Another film of the same take. */
export interface SecondFilm {
  readonly document: FilmDocument;
  readonly film: FilmFacts;
  /** To add to a real time of the first film to get this one's. */
  readonly offset: Offset;
}
