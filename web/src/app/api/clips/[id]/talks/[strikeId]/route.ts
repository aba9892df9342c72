import { Problem } from '@sinew/core/foundation/problem/problem';
import { CLIP_GONE, done, ownPagesOnly, there } from '@/app/api/answers';
import { servedFile } from '@/app/api/servedFile';
import { noteDeed } from '@/data/access/deeds';
import { clipById } from '@/data/clip/clips';
import { forgetTalk, keepTalk, MOST_TALK, talkOf, talkPath, talkSeconds } from '@/data/clip/talks';
import { database } from '@/data/database/database';
import { piecesOf } from '@/data/film/folderShelf';
import { dataFolder } from '@/data/database/dataFolder';

interface Context {
  params: Promise<{ id: string; strikeId: string }>;
}

const NOTHING_SAID = { happened: 'Nothing has been said over this strike.' };

async function opened({ params }: Context) {
  const { id, strikeId } = await params;
  const db = await database();
  const clip = there(await clipById(db, id), CLIP_GONE);
  const strike = await db
    .selectFrom('strike')
    .select('id')
    .where('id', '=', strikeId)
    .where('clip_id', '=', id)
    .where('removed_at', 'is', null)
    .executeTakeFirst();
  there(strike, { happened: 'This strike is not in the clip any more.' });
  return { db, clip, of: { clipId: id, strikeId } };
}

/** The coach’s words over the strike, as a film. */
export const GET = ownPagesOnly(async (request, context: Context) => {
  const { clip, of } = await opened(context);
  const data = dataFolder();
  const talk = there(await talkOf(data, of, clip.studentId), NOTHING_SAID);
  return servedFile(request, {
    read: (from, to) => piecesOf(talkPath(data, of), from, to),
    bytes: talk.bytes,
    type: 'video/mp4',
    etag: `${of.strikeId}-${Date.parse(talk.madeAt)}`,
  });
});

/**
 * What was said: the film is the body, its seconds stand in the address. What was said before gives way only
 * where `replace` is asked for.
 */
export const PUT = ownPagesOnly(async (request, context: Context, asker) => {
  const asked = new URL(request.url).searchParams;
  const seconds = talkSeconds.safeParse(Number(asked.get('seconds')));
  const { db, clip, of } = await opened(context);
  const data = dataFolder();
  const before = asked.has('replace') ? null : await talkOf(data, of, clip.studentId);
  if (before) {
    throw new Problem('conflict', {
      happened: `${before.madeBy} has talked over this strike before.`,
      safe: 'That is still there, and so is what you have said now.',
    });
  }
  const film = await atMost(request, MOST_TALK);
  if (!seconds.success || film === null) {
    throw new Problem(seconds.success ? 'refused' : 'not-understood', {
      happened: seconds.success
        ? 'This is longer than what can be kept of what was said.'
        : 'What was said cannot be read.',
      safe: 'Nothing was kept; it is still on your page.',
      todo: 'Say it again, shorter.',
    });
  }
  await keepTalk(data, of, film, {
    seconds: seconds.data,
    studentId: clip.studentId,
    madeBy: asker.name,
  });
  await noteDeed(db, asker.name, 'talked', { studentId: clip.studentId, clipId: clip.id });
  return done();
});

export const DELETE = ownPagesOnly(async (_, context: Context) => {
  const { of } = await opened(context);
  await forgetTalk(dataFolder(), of);
  return done();
});

/** @returns null when there is more; no more than that is taken in */
async function atMost(request: Request, most: number): Promise<Buffer | null> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > most) return null;
    parts.push(part);
  }
  return Buffer.concat(parts);
}
