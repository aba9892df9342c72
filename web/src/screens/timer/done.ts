/** What has been worked of a session, block by block, as it goes into the log. */
import { callsIn, punchesOf } from '@sinew/core/train/work/calls';
import type { Intent } from '@sinew/core/foundation/drill/intent';
import { segmentsOf } from '@sinew/core/train/work/session';
import { into } from '@sinew/core/train/work/timer';
import type { KeptRun } from '@/timer/keptRun';

export interface DoneBlock {
  /** The block's title. */
  readonly block: string;
  readonly name: string;
  readonly intent: Intent;
  readonly seconds: number;
  /** Punches called; strikes are as many, where they were all answered. */
  readonly strikes: number;
}

/** Calls of a segment; every round has its own. */
export function callsOf({ combinations, pace, seed, session }: KeptRun, index: number) {
  const segment = segmentsOf(session)[index];
  if (!segment?.isCalled || segment.seconds === null) return [];
  return callsIn(segment.seconds, pace, combinations, seed + index);
}

/** @param now ms; the segment in hand counts as far as it has come */
export function doneOf(kept: KeptRun, now: number): DoneBlock[] {
  const blocks = new Map<string, DoneBlock>();
  segmentsOf(kept.session).forEach((segment, index) => {
    if (segment.kind !== 'work' || index > kept.run.index) return;
    const isInHand = index === kept.run.index;
    const sofar = isInHand ? into(kept.run, now) : (segment.seconds ?? 0);
    const seconds = Math.round(Math.min(sofar, segment.seconds ?? sofar));
    const strikes = callsOf(kept, index)
      .filter(({ at }) => at <= sofar)
      .reduce((sum, { combination }) => sum + punchesOf(combination).length, 0);
    // Counted work says in its title how many it is.
    const counted =
      segment.seconds === null && !isInHand ? Number(/^\d+/.exec(segment.title)?.[0] ?? 0) : 0;
    const old = blocks.get(segment.block);
    blocks.set(segment.block, {
      block: segment.block,
      name: `${kept.session.name}: ${segment.block}`,
      intent: segment.intent,
      seconds: (old?.seconds ?? 0) + seconds,
      strikes: (old?.strikes ?? 0) + strikes + counted,
    });
  });
  return [...blocks.values()].filter(({ seconds, strikes }) => seconds > 0 || strikes > 0);
}
