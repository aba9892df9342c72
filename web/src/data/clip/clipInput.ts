/** All that the strikes of a clip are measured and judged from. */
import type { ClipInput } from '@sinew/core/analysis/analyzeClip';
import { turnsOf } from '@sinew/core/observe/band/bandTurns';
import { trackedOf } from '@sinew/core/analysis/clipFacts';
import type { Library } from '@sinew/core/judge/library/edits';
import { loadBench } from '../bench/bench';
import type { Db } from '../database/db';
import { libraryOf } from '../gym/library';
import { studentById, type Student } from '../student/students';
import { bandTurnsOf } from './bandTurns';
import { clipById } from './clips';
import { seriesOf } from './series';
import { detectionsOf } from './trackings';
import { secondFilmOf } from './viewPairs';

export interface ClipAndLibrary {
  readonly clip: ClipInput & { readonly student: Student };
  readonly library: Library;
}

/** @returns null when the clip is gone */
export async function clipInputOf(db: Db, clipId: string): Promise<ClipAndLibrary | null> {
  const [clip, bench, library] = await Promise.all([
    clipById(db, clipId),
    loadBench(db, clipId),
    libraryOf(db),
  ]);
  const student = clip && (await studentById(db, clip.studentId));
  if (!clip || !student || !bench) return null;
  const [second, detections, series, bands] = await Promise.all([
    secondFilmOf(db, clipId),
    detectionsOf(db, clipId),
    seriesOf(db, clipId),
    bandTurnsOf(db, clipId),
  ]);
  const { document } = bench;
  const tracked = trackedOf(detections, clip, document);
  return {
    clip: {
      document,
      film: { ...clip, tracked, series, bands: bands && turnsOf(bands) },
      student,
      second,
    },
    library,
  };
}
