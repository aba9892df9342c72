/** What a reading was taken from, in words. */
import type { Source } from '@sinew/core/foundation/reading/reading';

export const SOURCE_WORDS: Readonly<Record<Source, string>> = {
  'measured-3d': 'in space',
  'measured-2d': 'in the picture',
  'measured-band': 'off the bands',
  'estimated-3d': 'estimated',
  eye: 'your marks',
};
