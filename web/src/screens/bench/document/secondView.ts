/** Joining the clip in hand with another of the same take: by sound, or by one instant seen in both. */
import { markOnFrame } from '@sinew/core/measure/events/events';
import { offsetByEye, offsetBySound, type Offset } from '@sinew/core/observe/sound/sync';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { cameraDistance } from '@sinew/core/analysis/clipCalibration';
import type { SavedCalibration } from '@sinew/core/analysis/clipDocument';
import type { SecondView } from '@/data/clip/viewPairs';
import { surveyOf as keptSurvey } from '@/tracking/requests';
import { takeOf, type Survey } from '@sinew/core/observe/take/survey';
import type { Progress } from '@/video/progress';
import { survey as begin, type Surveying } from '@/video/surveyor';
import { sendSurvey } from '@/video/useSurvey';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { ask } from '@/api/client';
import { JOIN, PART, SECOND_VIEW } from '@/api/endpoints';

/** What both sides bring: their film, how it was set up, what was heard in it. */
export interface Side {
  readonly film: {
    readonly width: number;
    readonly height: number;
    readonly frameTimes: readonly number[];
  };
  readonly document: SavedCalibration & { readonly captureRate: number | null };
  readonly survey: Survey;
}

const PROBLEMS = {
  'no hits': 'No hit is heard in one of the two films. Join them by an instant that both show.',
  'no match':
    'What is heard in the two films does not fit together: are they of the same take? If so, join them by an instant that both show.',
  ambiguous:
    'The hits follow each other so evenly that the films fit together in more than one way. Join them by an instant that both show.',
} as const;

export function joinBySound(first: Side, second: Side): Offset | { readonly problem: string } {
  const [a, b] = [first, second].map(({ film, document, survey }) => ({
    hits: takeOf(survey, film.frameTimes, document.captureRate).hits,
    distance: cameraDistance(document, film),
  }));
  const isKnown = a!.distance !== null && b!.distance !== null;
  const found = offsetBySound(a!.hits, b!.hits, isKnown ? [a!.distance!, b!.distance!] : null);
  return typeof found === 'string' ? { problem: PROBLEMS[found] } : found;
}

/** The same instant on a frame of each film. */
export function joinByFrames(
  first: Omit<Side, 'survey'> & { readonly frame: number },
  second: Omit<Side, 'survey'> & { readonly frame: number },
): Offset {
  const [a, b] = [first, second].map(({ film, document, frame }) =>
    markOnFrame(realFrameTimes(film.frameTimes, document.captureRate), frame),
  );
  return offsetByEye(a!, b!);
}

/** What was heard in a clip that is not in hand; its film is gone through if nobody has yet. */
export async function surveyOfClip(
  clipId: string,
  frameCount: number,
  onProgress: (progress: Progress) => void,
  onStart: (work: Surveying) => void,
): Promise<Survey | null> {
  const kept = await keptSurvey(clipId);
  if (kept) return kept;
  const work = begin(`/api/clips/${clipId}/file`, frameCount, onProgress);
  onStart(work);
  const survey = await work.done;
  if (survey) await sendSurvey(clipId, survey);
  return survey;
}

/** @throws Problem */
export async function keepJoin(
  clipId: string,
  otherId: string,
  offset: Offset,
): Promise<SecondView> {
  await ask(JOIN, [clipId], { clip: otherId, offset });
  const second = await ask(SECOND_VIEW, [clipId]);
  if (second) return second;
  throw new Problem('gone', { happened: 'The other film is not there any more.' });
}

export async function partFromSecond(clipId: string): Promise<void> {
  await ask(PART, [clipId]);
}
