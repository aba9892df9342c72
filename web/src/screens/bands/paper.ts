/**
 * Sheets that printers have, lying; millimetres. A sheet as high as its paper would begin a second page: half a
 * millimetre is left.
 */
export const PAPERS = [
  { id: 'a4', name: 'A4', css: 'A4 landscape', width: 297, height: 209.5 },
  { id: 'letter', name: 'Letter', css: 'letter landscape', width: 279.4, height: 215.4 },
] as const;

export type Paper = (typeof PAPERS)[number];
