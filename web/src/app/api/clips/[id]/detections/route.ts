import { Problem } from '@sinew/core/foundation/problem/problem';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { done, ownPagesOnly, there } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { addDetections, detectionsOf } from '@/data/clip/trackings';
import { decodeDetections, encodeDetections } from '@/api/detectionBlob';

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
  const detections = decoded(new Uint8Array(await request.arrayBuffer()));
  const isKept = await addDetections(await database(), (await params).id, detections);
  there(isKept, { happened: 'This clip is not being tracked.', safe: 'Nothing was kept.' });
  return done();
});

function decoded(bytes: Uint8Array): PoseDetection[] {
  try {
    return decodeDetections(bytes);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Problem('not-understood', {
      happened: 'These are no pose detections.',
      safe: 'Nothing was kept.',
    });
  }
}
