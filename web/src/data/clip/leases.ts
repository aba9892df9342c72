/**
 * Which browser looks for the body in a clip: one at a time, so that two laptops do not do the same work.
 * A lease ends by itself when the browser says nothing more: it was closed, or the laptop sleeps.
 */

/** Milliseconds; renewed three times within. */
export const LEASE = 45_000;

interface Lease {
  readonly worker: string;
  readonly until: number;
}

const shared = globalThis as { sinewLeases?: Map<string, Lease> };
const leases = (shared.sinewLeases ??= new Map());

/** @returns whether the clip is this worker's for the next while */
export function takeLease(clipId: string, worker: string, at = Date.now()): boolean {
  const held = leases.get(clipId);
  if (held && held.worker !== worker && held.until > at) return false;
  leases.set(clipId, { worker, until: at + LEASE });
  return true;
}

export function endLease(clipId: string, worker: string): void {
  if (leases.get(clipId)?.worker === worker) leases.delete(clipId);
}
