/** Sheets that printers have, lying; millimetres. */
export const PAPERS = [
  { id: 'a4', name: 'A4', css: 'A4 landscape', width: 297, height: 210 },
  { id: 'letter', name: 'Letter', css: 'letter landscape', width: 279.4, height: 215.9 },
] as const;

export type Paper = (typeof PAPERS)[number];
