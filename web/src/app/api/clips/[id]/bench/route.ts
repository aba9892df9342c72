import { ownPagesOnly } from '@/app/api/local';
import { loadBench, saveBench } from '@/data/bench/bench';
import { saveRequestSchema } from '@sinew/core/analysis/clipDocument';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';

interface Context {
  params: Promise<{ id: string }>;
}

/** What is set on the bench, as it is on disk. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const saved = await loadBench(await database(), (await params).id);
  return saved
    ? Response.json(saved, { headers: { 'cache-control': 'no-store' } })
    : Response.json({ message: 'This clip has been deleted.' }, { status: 404 });
});

/** Save what the coach has set on the bench. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const body = saveRequestSchema.safeParse(await request.json().catch(() => null));
  if (!body.success) {
    return Response.json(
      { message: 'The marks could not be read, so they were not saved.' },
      { status: 400 },
    );
  }
  const [db, { id }] = await Promise.all([database(), params]);
  const outcome = await saveBench(db, id, body.data);
  if (outcome.kind === 'saved') {
    await measureClipLater(id);
    return Response.json({ revision: outcome.revision });
  }
  return outcome.kind === 'conflict'
    ? Response.json(
        {
          message:
            'This clip was changed in another tab. Your last change here was not saved; ' +
            'reload to see the other tab’s work.',
        },
        { status: 409 },
      )
    : Response.json({ message: 'This clip has been deleted.' }, { status: 404 });
});
