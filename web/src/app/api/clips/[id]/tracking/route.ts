import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';
import { changeJob, dropJob, jobOf } from '@/data/clip/trackings';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { requestSchema } from '@/tracking/job';

interface Context {
  params: Promise<{ id: string }>;
}

/** How far the tracking of this clip has come; null when nobody has asked for it. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  Response.json(await jobOf(await database(), (await params).id), {
    headers: { 'cache-control': 'no-store' },
  }),
);

/** Start, pause, resume, or say how it went. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const body = requestSchema.safeParse(await request.json().catch(() => null));
  if (!body.success) {
    return Response.json(
      { message: 'This cannot be asked of the body tracker; nothing was changed.' },
      { status: 400 },
    );
  }
  const [db, { id }] = [await database(), await params];
  const isDone = await changeJob(db, id, body.data);
  if (isDone && body.data.kind === 'finish') {
    await takeFoundStrikes(db, id);
    await measureClipLater(id);
  }
  return isDone
    ? Response.json({})
    : Response.json({ message: 'This clip is not being tracked.' }, { status: 404 });
});

/** Give it up: what was seen is forgotten, the coach's own points stay. */
export const DELETE = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  await dropJob(await database(), id);
  await measureClipLater(id);
  return Response.json({});
});
