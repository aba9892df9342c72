import { Problem } from '@sinew/core/foundation/problem/problem';
import { ownPagesOnly } from '@/app/api/answers';
import { aboutFilm } from './aboutFilm';
import { takeIn } from './takeIn';

/** Take in a clip: the body is the file itself, what is known about it stands in the query. */
export const POST = ownPagesOnly(async (request, _, asker) => {
  const about = aboutFilm(new URL(request.url).searchParams);
  const { body: stream } = request;
  if (!stream) {
    throw new Problem('not-understood', {
      happened: 'There is no file.',
      safe: 'Nothing was kept.',
    });
  }
  const length = request.headers.get('content-length');
  const announced = length === null ? null : Number(length);
  const clip = await takeIn(about, { stream, announced }, asker);
  return Response.json(clip, { status: clip.isKnown ? 200 : 201 });
});
