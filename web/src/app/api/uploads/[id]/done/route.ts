import { Problem } from '@sinew/core/foundation/problem/problem';
import { FILM_SENT } from '@/api/endpoints';
import { bodyOf, ownPagesOnly } from '@/app/api/answers';
import { aboutFilm } from '@/app/api/clips/aboutFilm';
import { takeIn } from '@/app/api/clips/takeIn';
import { clipOfFilm } from '@/data/clip/clips';
import { arrived } from '@/data/clip/uploads';
import { database } from '@/data/database/database';

/**
 * A film has been sent to its end: it becomes a clip, if its hash is the phone's. Asked twice, because an
 * answer was lost on the way, it is one clip.
 */
export const POST = ownPagesOnly(
  async (request, { params }: { params: Promise<{ id: string }> }, asker) => {
    const { sha256, student } = await bodyOf(request, FILM_SENT.sends, {
      happened: 'The hash of the film is missing.',
      safe: 'What has come is kept.',
    });
    const db = await database();
    const film = await arrived((await params).id);
    if (!film) {
      const known = await clipOfFilm(db, student, sha256);
      if (known) return Response.json({ id: known, isKnown: true });
      throw new Problem('gone', {
        happened: 'Nothing is known of this film any more.',
        safe: 'It is still on the phone.',
        todo: 'Send it again.',
      });
    }
    const about = aboutFilm(new Map(Object.entries(film.about)));
    const { stream, bytes: announced } = film;
    const clip = await takeIn(about, { stream, announced, sha256 }, asker).catch(
      async (error: unknown) => {
        // What came damaged, or is no film, would be no better the next time.
        if (isForGood(error)) await film.forget();
        throw error;
      },
    );
    await film.forget();
    return Response.json(clip);
  },
  'assistant',
);

const isForGood = (error: unknown): boolean => {
  const { status } = error as { readonly status?: number };
  return status === 415 || status === 409;
};
