import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { addSightings, sightingsOf } from '@/data/clip/trackings';
import { decodeSightings, encodeSightings } from '@/tracking/detectionBlob';

interface Context {
  params: Promise<{ id: string }>;
}

/** Everything the body tracker has seen of this clip so far. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const sightings = await sightingsOf(await database(), (await params).id);
  return new Response(encodeSightings(sightings), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  });
});

/** More of it. */
export const POST = ownPagesOnly(async (request, { params }: Context) => {
  const bytes = new Uint8Array(await request.arrayBuffer());
  try {
    const isKept = await addSightings(await database(), (await params).id, decodeSightings(bytes));
    return isKept
      ? Response.json({})
      : Response.json({ message: 'This clip is not being tracked.' }, { status: 404 });
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return Response.json({ message: 'These are no sightings; nothing was kept.' }, { status: 400 });
  }
});
