import { Problem } from '@sinew/core/foundation/problem/problem';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { done, there } from '@/app/api/answers';
import { addDetections, detectionsOf } from '@/data/clip/trackings';
import { decodeDetections, encodeDetections } from '@/api/detectionBlob';
import { ofClip } from '../ofClip';

/** Everything the body tracker has seen of this clip so far. */
export const GET = ofClip(async (_, { db, clip }) => {
  const detections = await detectionsOf(db, clip.id);
  return new Response(encodeDetections(detections), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  });
});

/** More of it. */
export const POST = ofClip(async (request, { db, clip }) => {
  const detections = decoded(new Uint8Array(await request.arrayBuffer()));
  const isKept = await addDetections(db, clip.id, detections);
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
