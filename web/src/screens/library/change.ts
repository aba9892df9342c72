import type { LibraryChange } from '@sinew/core/judge/library/edits';

/**
 * Changes one thing of the gym's library.
 *
 * @param said what to say when it is kept, before what it does to the gym's strikes
 * @returns whether it was kept
 */
export type Change = (wanted: LibraryChange, said?: string) => Promise<boolean>;
