import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { addDetections, detectionsOf } from '@/data/clip/trackings';
import { decodeDetections, encodeDetections } from '@/tracking/detectionBlob';

interface Context {
  params: Promise<{ id: string }>;
}

/** Everything the body tracker has seen of this clip so far. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const detections = await detectionsOf(await database(), (await params).id);
  return new Response(encodeDetections(detections), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  });
});

/** More of it. */
export const POST = ownPagesOnly(async (request, { params }: Context) => {
  const bytes = new Uint8Array(await request.arrayBuffer());
  try {
    const isKept = await addDetections(
      await database(),
      (await params).id,
      decodeDetections(bytes),
    );
    return isKept
      ? Response.json({})
      : Response.json({ message: 'This clip is not being tracked.' }, { status: 404 });
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return Response.json(
      { message: 'These are no pose detections; nothing was kept.' },
      { status: 400 },
    );
  }
});
