/**
 * The stage after a body search: a film that was taken for one technique is taken apart without being
 * asked. Every strike found in it becomes one of that technique, marked as automatic until the coach
 * has confirmed it.
 */
import { nanoid } from 'nanoid';
import { cameraDistance } from '@sinew/core/analysis/clipCalibration';
import { proposalsOf, takeAutomatically } from '@sinew/core/analysis/strikesFound';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { strikesIn, takeOf } from '@sinew/core/observe/take/survey';
import { loadBench, saveBench } from '../bench/bench';
import type { Db } from '../database/db';
import { studentById } from '../student/students';
import { clipById } from './clips';
import { surveyOf } from './surveys';
import { jobOf } from './trackings';

/**
 * Runs when the search has ended or the film has been gone through, whichever is later. Nothing is
 * taken where the coach has been: with a strike marked or refused it is the coach's clip.
 *
 * @returns whether strikes were taken
 */
export async function takeFoundStrikes(db: Db, clipId: string): Promise<boolean> {
  const [job, survey, bench, clip] = await Promise.all([
    jobOf(db, clipId),
    surveyOf(db, clipId),
    loadBench(db, clipId),
    clipById(db, clipId),
  ]);
  if (job?.state !== 'done' || !survey || !bench || !clip) return false;
  const { document, revision } = bench;
  const { strikes, refused, purpose } = document;
  if (purpose === null || strikes.length > 0 || refused.length > 0) return false;
  const student = await studentById(db, clip.studentId);
  if (!student) return false;
  const take = takeOf(survey, clip.frameTimes, document.captureRate);
  const found = proposalsOf(strikesIn(take, cameraDistance(document, clip)), take.activity.times);
  const technique = techniqueById(purpose.technique);
  const named = { technique: technique.id, side: strikingSide(technique, student.stance) };
  const taken = takeAutomatically(document, named, found, () => nanoid());
  const outcome = await saveBench(db, clipId, { revision, document: taken });
  return outcome.kind === 'saved';
}
