/** A film becomes a clip, and what follows from that: its body looked for, its film made readable, the news. */
import type { Asker } from '@/data/access/roles';
import { noteDeed } from '@/data/access/deeds';
import { clipFiles } from '@/data/film/clipFilesHere';
import { addClip, type NewClip } from '@/data/clip/clips';
import { makeReadableLater } from '@/data/film/readable';
import { changeJob, jobOf } from '@/data/clip/trackings';
import { database } from '@/data/database/database';
import { announce } from '@/data/news/news';
import type { AboutFilm } from './aboutFilm';

/** @throws ClipFileError as `addClip` does */
export async function takeIn(
  { track, ...about }: AboutFilm,
  film: Pick<NewClip, 'stream' | 'announced' | 'sha256'>,
  asker: Asker,
): Promise<{ readonly id: string; readonly isKnown: boolean }> {
  const db = await database();
  const files = clipFiles();
  const added = await addClip(db, files, { ...about, ...film });
  const { id, isKnown } = added;
  if (track && !(await jobOf(db, id))) {
    await changeJob(db, id, { kind: 'start', model: track, person: null });
  }
  if (!isKnown) await noteDeed(db, asker.name, 'added-film', { clipId: id });
  await makeReadableLater(db, files, id);
  announce({ kind: 'clip', clipId: id, studentId: about.studentId });
  return added;
}
