/** Once a day all films are read. */
import { isFilmHash } from '../clip/clipFiles';
import { have } from '../threads/threads';
import type { NamedFilm } from './alteredFilms';
import { rememberAltered } from './filmCheck';
import type { Place } from './place';

/** Read every film that a clip names, on a thread of its own, and remember those that are altered. */
export async function checkFilms({ db, files, folder }: Place, at: Date): Promise<string[]> {
  const rows = await db
    .selectFrom('clip')
    .select('sha256')
    .distinct()
    .where('purged_at', 'is', null)
    .execute();
  const films = rows
    .filter(({ sha256 }) => isFilmHash(sha256))
    .map(({ sha256 }): NamedFilm => ({ sha256, path: files.pathOf(sha256) }));
  const altered = await have('alteredFilms', films);
  await rememberAltered(folder, at, altered);
  return altered;
}
