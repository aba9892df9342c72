import { Problem } from '@sinew/core/foundation/problem/problem';
import { ownPagesOnly } from '@/app/api/answers';
import { noteDeed } from '@/data/access/deeds';
import { clipFiles } from '@/data/clip/clipFilesHere';
import { addClip } from '@/data/clip/clips';
import { changeJob, jobOf } from '@/data/clip/trackings';
import { database } from '@/data/database/database';
import { announce } from '@/data/news/news';
import { aboutFilm } from './aboutFilm';

/** Take in a clip: the body is the file itself, what is known about it stands in the query. */
export const POST = ownPagesOnly(async (request, _, asker) => {
  const { track, ...about } = aboutFilm(new URL(request.url).searchParams);
  if (!request.body) {
    throw new Problem('not-understood', {
      happened: 'There is no file.',
      safe: 'Nothing was kept.',
    });
  }
  const length = request.headers.get('content-length');
  const db = await database();
  const clip = await addClip(db, clipFiles(), {
    ...about,
    stream: request.body,
    announced: length === null ? null : Number(length),
  });
  if (track && !(await jobOf(db, clip.id))) {
    await changeJob(db, clip.id, { kind: 'start', model: track, person: null });
  }
  if (!clip.isKnown) await noteDeed(db, asker.name, 'added-film', { clipId: clip.id });
  announce({ kind: 'clip', clipId: clip.id, studentId: about.studentId });
  return Response.json(clip, { status: clip.isKnown ? 200 : 201 });
});
