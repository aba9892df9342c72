import { z } from 'zod';
import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';
import { joinClips, partClips, secondViewOf } from '@/data/clip/viewPairs';

interface Context {
  params: Promise<{ id: string }>;
}

const request = z.object({
  clip: z.string().min(1),
  offset: z.object({
    seconds: z.number().finite(),
    sigma: z.number().nonnegative().finite(),
    by: z.enum(['sound', 'eye']),
    pairs: z.number().int().positive(),
  }),
});

/** The clip joined with this one, its bench and the offset between their clocks; null for none. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  Response.json(await secondViewOf(await database(), (await params).id), {
    headers: { 'cache-control': 'no-store' },
  }),
);

export const PUT = ownPagesOnly(async (sent, { params }: Context) => {
  const body = request.safeParse(await sent.json().catch(() => null));
  if (!body.success) {
    return Response.json(
      { message: 'The other clip or the offset is missing; nothing was joined.' },
      { status: 400 },
    );
  }
  const [db, { id }] = [await database(), await params];
  const isJoined = await joinClips(db, id, body.data.clip, body.data.offset);
  if (isJoined) await measureClipLater(id);
  return isJoined
    ? Response.json({})
    : Response.json(
        { message: 'These two clips do not belong to one student; nothing was joined.' },
        { status: 404 },
      );
});

export const DELETE = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  await partClips(await database(), id);
  await measureClipLater(id);
  return Response.json({});
});
