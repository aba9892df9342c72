/** Where the film of what a coach said over a strike is read and kept. */
export const talkFilm = (of: { readonly clipId: string; readonly strikeId: string }): string =>
  `/api/clips/${encodeURIComponent(of.clipId)}/talks/${encodeURIComponent(of.strikeId)}`;
