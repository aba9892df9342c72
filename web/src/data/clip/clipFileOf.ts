/** A clip without its film, as a file that the command line analyses as the bench does. */
import { writeClipFile, type FilmToWrite } from '@sinew/core/analysis/clipFile';
import type { ImportedSeries } from '@sinew/core/analysis/clipFacts';
import { loadBench } from '../bench/bench';
import type { Db } from '../database/db';
import { editsOf } from '../gym/library';
import { studentById } from '../student/students';
import { bandTurnsOf } from './bandTurns';
import { clipById, type Clip } from './clips';
import { seriesOf } from './series';
import { detectionsOf } from './trackings';
import { secondViewOf } from './viewPairs';

/** @returns null when the clip is gone */
export async function clipFileOf(db: Db, clipId: string): Promise<string | null> {
  const [clip, bench, library, second, series] = await Promise.all([
    clipById(db, clipId),
    loadBench(db, clipId),
    editsOf(db),
    secondViewOf(db, clipId),
    seriesOf(db, clipId),
  ]);
  const student = clip && (await studentById(db, clip.studentId));
  if (!clip || !student || !bench) return null;
  return writeClipFile({
    film: await filmOf(db, clip, series),
    document: bench.document,
    student,
    second: second && {
      film: await filmOf(db, second.clip, null),
      document: second.bench.document,
      offset: second.offset,
    },
    library,
  });
}

async function filmOf(
  db: Db,
  { id, frameTimes, width, height }: Clip,
  series: ImportedSeries | null,
): Promise<FilmToWrite> {
  const [detections, bands] = await Promise.all([detectionsOf(db, id), bandTurnsOf(db, id)]);
  return { frameTimes, width, height, series, detections, bands };
}
