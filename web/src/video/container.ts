/** What the checks of film containers share; see `isobmffTables.ts` and `matroskaElements.ts`. */

/** Bytes `from` to `to` (not included) of a file. */
export type ReadBytes = (from: number, to: number) => Promise<Uint8Array>;

/** What keeps a file from being read: it ends too early, or its structure contradicts itself. */
export type ContainerProblem = 'cut short' | 'senseless';

/** Two hours at 240 frames a second; a damaged table may claim billions. */
export const MOST_FRAMES = 2 * 3600 * 240;

export function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}
