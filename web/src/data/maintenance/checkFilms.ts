/** Once a day all films are read. */
import { isFilmHash } from '../film/filmShelf';
import { have } from '../threads/threads';
import type { NamedFilm } from './alteredFilms';
import { rememberAltered } from './filmCheck';
import type { Place } from './place';

/** Read every film on this machine that a clip names, on a thread of its own, and remember those that are altered. */
export async function checkFilms({ db, files, folder }: Place, at: Date): Promise<string[]> {
  const rows = await db
    .selectFrom('clip')
    .select('sha256')
    .distinct()
    .where('purged_at', 'is', null)
    .execute();
  // A store elsewhere looks after its own disks; to fetch every film each night would cost more than it tells.
  const films = rows
    .filter(({ sha256 }) => isFilmHash(sha256))
    .map(({ sha256 }) => ({ sha256, path: files.shelf.pathOf(sha256) }))
    .filter((film): film is NamedFilm => film.path !== null);
  const altered = await have('alteredFilms', films);
  await rememberAltered(folder, at, altered);
  return altered;
}
