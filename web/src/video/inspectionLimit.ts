/** How long a film file may be looked into, and what is said of one that takes longer. */

/**
 * Milliseconds. The films that cameras make are gone through in a tenth of it; what never ends is a
 * damaged file that leads its reader round and round.
 */
export const inspectionLimit = (bytes: number) => 8_000 + bytes / 100_000;

export const TOO_LONG =
  'This file is damaged: no end is found in it. Copy it from the camera again, or export it as MP4 ' +
  'with H.264 and add that file.';
