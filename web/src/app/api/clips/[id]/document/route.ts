import { CLIP_GONE, there } from '@/app/api/answers';
import { clipFileOf } from '@/data/clip/clipFileOf';
import { ofClip } from '../ofClip';

/** All that a clip is judged by, without film and names, as a file for the command line. */
export const GET = ofClip(async (_, { db, clip: { id } }) => {
  const file = there(await clipFileOf(db, id), CLIP_GONE);
  return new Response(file, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="clip-${id}.json"`,
      'cache-control': 'no-store',
    },
  });
});
