/** Strikes found in a take that the coach has neither taken nor refused yet. */
import type { Candidate } from '../observe/take/strikes';
import { nearestFrame } from '../observe/track/time';
import type { ClipDocument, Span, StrikeDocument } from './clipDocument';

export interface Proposal {
  /** Place in the order of the take, from 1. */
  readonly number: number;
  readonly span: Span;
  /** Where the hit is by its sound: its frame, and over how many frames that is unsure. */
  readonly contact: { readonly frame: number; readonly width: number } | null;
  /** Shared by the proposals of one combination; null for a strike of its own. */
  readonly combination: string | null;
}

/** The frame to look at. */
export function heartOf({ contact, span }: Proposal): number {
  return contact?.frame ?? (span.from + span.to) >> 1;
}

/** Two standard deviations each way. */
const WIDE = 4;
const WIDEST = 31;

/** @param times real time of every frame, seconds */
export function proposalsOf(
  candidates: readonly Candidate[],
  times: readonly number[],
): readonly Proposal[] {
  const frameAt = (time: number) => nearestFrame(times, time);
  return candidates.map(({ from, to, contact, combination }, index) => {
    const together = candidates.filter((one) => one.combination === combination);
    return {
      number: index + 1,
      span: { from: frameAt(from), to: frameAt(to) },
      contact: contact && { frame: frameAt(contact.time), width: widthOf(contact, times) },
      combination: together.length > 1 ? `from frame ${frameAt(together[0]!.from)}` : null,
    };
  });
}

function widthOf({ time, sigma }: { time: number; sigma: number }, times: readonly number[]) {
  const span =
    nearestFrame(times, time + (WIDE / 2) * sigma) - nearestFrame(times, time - (WIDE / 2) * sigma);
  // Odd, so that the frame stands in the middle.
  return Math.min(WIDEST, 2 * Math.ceil(span / 2) + 1);
}

const holds = ({ from, to }: Span, frame: number) => frame >= from && frame <= to;

/**
 * Spans of a combination touch; a strike is inside its own and at most at the border of the next.
 *
 * @param count how many were found in the take
 */
export function isOpen(
  proposal: Proposal,
  { strikes, refused }: ClipDocument,
  count: number,
): boolean {
  const heart = heartOf(proposal);
  // A clip of one strike that the coach has named without waiting is that strike's.
  if (count === 1 && strikes.some(({ span }) => !span)) return false;
  if (refused.some((span) => holds(span, heart))) return false;
  return !strikes.some(({ span, marks }) =>
    span
      ? heart > span.from && heart < span.to
      : Object.values(marks).some((mark) => holds(proposal.span, mark.frame)),
  );
}

/**
 * Every strike found in a film, taken as one of the technique it was filmed for; the whole film as
 * one where none was found.
 */
export function takeAutomatically(
  document: ClipDocument,
  named: Pick<StrikeDocument, 'technique' | 'side'>,
  proposals: readonly Proposal[],
  newId: () => string,
): ClipDocument {
  const [only, ...rest] = proposals;
  // A film of one strike is that strike's from end to end.
  const strikes = rest.length > 0 ? proposals : only ? [{ ...only, span: undefined }] : [null];
  return {
    ...document,
    strikes: strikes.map((found) => ({
      id: newId(),
      ...named,
      ...(found?.span && { span: found.span }),
      ...(found && found.combination !== null && { combination: found.combination }),
      isAutomatic: true,
      marks: found?.contact ? { contact: found.contact } : {},
    })),
  };
}
