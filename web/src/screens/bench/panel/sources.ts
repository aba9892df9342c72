/** What a reading was taken from, in words. */
import type { Reading, Source } from '@sinew/core/foundation/reading/reading';

export const SOURCE_WORDS: Readonly<Record<Source, string>> = {
  'measured-3d': 'in space',
  'measured-2d': 'in the picture',
  'measured-band': 'off the bands',
  'estimated-3d': 'estimated',
  eye: 'your marks',
};

/** Of which film it was read, where it is another than the one in hand. */
export function sourceInWords({ source, isElsewhere }: Reading): string {
  if (!isElsewhere) return SOURCE_WORDS[source];
  return source === 'measured-2d' ? 'in the other film' : `${SOURCE_WORDS[source]}, other film`;
}
