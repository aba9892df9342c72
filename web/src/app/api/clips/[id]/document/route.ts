import { CLIP_GONE, ownPagesOnly, there } from '@/app/api/answers';
import { clipFileOf } from '@/data/clip/clipFileOf';
import { database } from '@/data/database/database';

interface Context {
  params: Promise<{ id: string }>;
}

/** All that a clip is judged by, without film and names, as a file for the command line. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  const file = there(await clipFileOf(await database(), id), CLIP_GONE);
  return new Response(file, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="clip-${id}.json"`,
      'cache-control': 'no-store',
    },
  });
});
