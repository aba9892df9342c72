/**
 * Whoever changes something says what they saw before. Where somebody else has changed it meanwhile,
 * nothing is kept and both are told: the later of two tabs does not undo the work of the earlier one.
 */
import { isDeepStrictEqual } from 'node:util';
import { Problem } from '@sinew/core/foundation/problem/problem';

/** @param what as in "The gym’s settings were" */
export const changedMeanwhile = (what: string): Problem =>
  new Problem('conflict', {
    happened: `${what} changed meanwhile, by somebody else or in another tab.`,
    safe: 'Yours was not kept, and theirs is.',
    todo: 'Reload the page to see it, and change it again if you still want to.',
  });

/** As it travels between page and server: what is undefined is not there. */
const travelled = (value: unknown): unknown =>
  value === undefined ? null : (JSON.parse(JSON.stringify(value)) as unknown);

export const isAsSeen = (now: unknown, seen: unknown): boolean =>
  isDeepStrictEqual(travelled(now), travelled(seen));
