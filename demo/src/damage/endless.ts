import { shortFilm } from './films';
import { partsOf } from './parts';

/** Identifiers of Matroska's elements (RFC 9559, 5.1). */
const [SEGMENT, CUES, CUE_POSITION] = ['18538067', '1c53bb6b', 'f1'] as const;

/**
 * A WebM whose index leads behind the last cluster, where a reader looks for another one. The reader
 * that Sinew uses looks for it for ever.
 */
export function endlessFilm(): Buffer {
  const film = shortFilm('webm');
  const parts = partsOf(film, true);
  const last = (name: string) => parts.findLast((part) => part.name === name)!;
  const { from, to } = last(CUE_POSITION);
  film.writeUIntBE(last(CUES).from + 20 - last(SEGMENT).from, from, to - from);
  return film;
}
