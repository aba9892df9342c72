/** What the coach can do to a bench document: pure functions from one document to the next. */
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { Drawing } from '@sinew/core/analysis/drawing';
import { least } from 'd3-array';
import { MOST_LOOKS, type Look } from '@sinew/core/judge/eye/blindLook';
import type { Says } from '@sinew/core/judge/eye/eyeChecks';
import type { Landmark, Side } from '@sinew/core/foundation/body/landmarks';
import { eventsOf, type EventName } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { Line, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import type { Correction } from '@sinew/core/observe/track/correction';
import {
  toEighth,
  type ClipDocument,
  type SavedCalibration,
  type StrikeDocument,
} from '@sinew/core/analysis/clipDocument';
import type { Proposal } from '@sinew/core/analysis/strikesFound';

function changeStrike(
  document: ClipDocument,
  strikeId: string,
  change: (strike: StrikeDocument) => StrikeDocument,
): ClipDocument {
  return {
    ...document,
    strikes: document.strikes.map((strike) => (strike.id === strikeId ? change(strike) : strike)),
  };
}

export function addStrike(
  document: ClipDocument,
  strike: Omit<StrikeDocument, 'marks'>,
): ClipDocument {
  return { ...document, strikes: [...document.strikes, { ...strike, marks: {} }] };
}

/** Take what was found as a strike: where it is in the take, its contact as heard, in its order. */
export function takeStrike(
  document: ClipDocument,
  strike: Pick<StrikeDocument, 'id' | 'technique' | 'side'>,
  { span, contact, combination }: Proposal,
): ClipDocument {
  const taken: StrikeDocument = {
    ...strike,
    span,
    ...(combination !== null && { combination }),
    marks: contact ? { contact } : {},
  };
  const begins = (one: StrikeDocument) => one.span?.from ?? 0;
  const strikes = [...document.strikes, taken].sort((a, b) => begins(a) - begins(b));
  return { ...document, strikes };
}

/** The coach's word that an automatic strike is right. */
export function confirmStrike(document: ClipDocument, strikeId: string): ClipDocument {
  return changeStrike(document, strikeId, ({ isAutomatic: _, ...strike }) => strike);
}

/** An automatic strike is none: it goes, and is not found again. */
export function refuseAutomatic(
  document: ClipDocument,
  { id, span }: StrikeDocument,
  lastFrame: number,
): ClipDocument {
  const refused = [...document.refused, span ?? { from: 0, to: lastFrame }];
  return { ...removeStrike(document, id), refused };
}

/** What was found is no strike. */
export function refuseStrike(document: ClipDocument, { span }: Proposal): ClipDocument {
  return { ...document, refused: [...document.refused, span] };
}

export function removeStrike(document: ClipDocument, strikeId: string): ClipDocument {
  return { ...document, strikes: document.strikes.filter((strike) => strike.id !== strikeId) };
}

export function renameStrike(
  document: ClipDocument,
  strikeId: string,
  named: { technique: StrikeDocument['technique']; side: Side },
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => ({ ...strike, ...named }));
}

/** Mark an event on a frame; it keeps how unsure the coach was about it. */
export function setMark(
  document: ClipDocument,
  strikeId: string,
  event: EventName,
  frame: number,
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => ({
    ...strike,
    marks: { ...strike.marks, [event]: { frame, width: strike.marks[event]?.width ?? 1 } },
  }));
}

/** Mark an event on a frame, or take the mark away when it is on that very frame already. */
export function toggleMark(
  document: ClipDocument,
  strike: StrikeDocument,
  event: EventName,
  frame: number,
): ClipDocument {
  return strike.marks[event]?.frame === frame
    ? clearMark(document, strike.id, event)
    : setMark(document, strike.id, event, frame);
}

export function clearMark(
  document: ClipDocument,
  strikeId: string,
  event: EventName,
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => {
    const { [event]: _, ...marks } = strike.marks;
    return { ...strike, marks };
  });
}

/** Widen or narrow the frames a mark may be on by two, so that it stays in their middle. */
export function widenMark(
  document: ClipDocument,
  strikeId: string,
  event: EventName,
  by: 2 | -2,
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => {
    const mark = strike.marks[event];
    if (!mark) return strike;
    const width = Math.min(31, Math.max(1, mark.width + by));
    return { ...strike, marks: { ...strike.marks, [event]: { ...mark, width } } };
  });
}

export function placePoint(
  document: ClipDocument,
  landmark: Landmark,
  frame: number,
  at: PixelPoint,
): ClipDocument {
  const others = document.placed.filter((p) => p.landmark !== landmark || p.frame !== frame);
  return {
    ...document,
    placed: [...others, { landmark, frame, x: toEighth(at.x), y: toEighth(at.y) }],
  };
}

export function removePoint(
  document: ClipDocument,
  landmark: Landmark,
  frame: number,
): ClipDocument {
  const placed = document.placed.filter((p) => p.landmark !== landmark || p.frame !== frame);
  return { ...document, placed };
}

/** The coach's word on a tracked stretch, in place of what was said of the whole of it before. */
export function correct(document: ClipDocument, said: Correction): ClipDocument {
  const isOver = ({ kind, landmark, from, to }: Correction) =>
    said.kind !== 'swap' &&
    kind !== 'swap' &&
    landmark === said.landmark &&
    from >= said.from &&
    to <= said.to;
  const others = document.corrections.filter((one) => !isOver(one));
  return { ...document, corrections: [...others, said] };
}

const roundedPoint = ({ x, y }: PixelPoint): PixelPoint => ({ x: toEighth(x), y: toEighth(y) });

const roundedLine = ({ from, to }: Line) => ({ from: roundedPoint(from), to: roundedPoint(to) });

export function setTarget(document: ClipDocument, line: Line | null): ClipDocument {
  return { ...document, target: line && roundedLine(line) };
}

export function setScale(document: ClipDocument, scale: ClipDocument['scale']): ClipDocument {
  return { ...document, scale: scale && { ...roundedLine(scale), metres: scale.metres } };
}

export function setRectangle(
  document: ClipDocument,
  rectangle: ClipDocument['rectangle'],
): ClipDocument {
  return {
    ...document,
    rectangle: rectangle && { ...rectangle, corners: rectangle.corners.map(roundedPoint) },
  };
}

/** Move one corner of the rectangle. */
export function moveCorner(document: ClipDocument, index: number, to: PixelPoint): ClipDocument {
  const { rectangle } = document;
  if (!rectangle) return document;
  const corners = rectangle.corners.map((corner, i) => (i === index ? to : corner));
  return setRectangle(document, { ...rectangle, corners });
}

export function setLens(document: ClipDocument, lens: ClipDocument['lens']): ClipDocument {
  return { ...document, lens };
}

/** Where the camera stood; its exact place is forgotten where only the view is said. */
export function placedCamera(document: ClipDocument, view: View, azimuth?: number): ClipDocument {
  const { azimuth: _, ...rest } = document;
  return { ...rest, view, ...(azimuth !== undefined && { azimuth }) };
}

/** Everything that a camera set-up holds, in place of what is set. */
export function applyCalibration(
  document: ClipDocument,
  { view, azimuth, scale, target, rectangle, lens }: SavedCalibration,
): ClipDocument {
  return { ...placedCamera(document, view, azimuth), scale, target, rectangle, lens };
}

export function addDrawing(document: ClipDocument, drawing: Drawing): ClipDocument {
  const points = drawing.points.map(roundedPoint);
  return { ...document, drawings: [...(document.drawings ?? []), { ...drawing, points }] };
}

export function removeDrawing(document: ClipDocument, id: string): ClipDocument {
  const { drawings = [], ...rest } = document;
  const left = drawings.filter((one) => one.id !== id);
  return left.length > 0 ? { ...rest, drawings: left } : rest;
}

/** The first event, in order, that the strike has no mark for. */
export function nextUnmarked(strike: StrikeDocument): EventName | null {
  return eventsOf(techniqueById(strike.technique)).find((event) => !strike.marks[event]) ?? null;
}

/** The nearest mark before (−1) or after (+1) a frame, or null. */
export function neighbourMark(
  strike: StrikeDocument,
  frame: number,
  direction: 1 | -1,
): { readonly event: EventName; readonly frame: number } | null {
  const marks = Object.entries(strike.marks) as [EventName, { readonly frame: number }][];
  const ahead = marks
    .map(([event, mark]) => ({ event, frame: mark.frame, away: (mark.frame - frame) * direction }))
    .filter(({ away }) => away > 0);
  const next = least(ahead, ({ away }) => away);
  return next ? { event: next.event, frame: next.frame } : null;
}

/** What a strike is judged by: its own school, its situation, its range. */
export function judgeBy(
  document: ClipDocument,
  strikeId: string,
  by: Pick<StrikeDocument, 'school' | 'situation' | 'range'>,
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => withoutEmpty({ ...strike, ...by }));
}

/** The coach's word on one check; null takes it back. */
export function setAudit(
  document: ClipDocument,
  strikeId: string,
  check: string,
  says: Says | null,
): ClipDocument {
  return changeStrike(document, strikeId, (strike) => {
    const { [check]: _, ...others } = strike.audit ?? {};
    return withoutEmpty({ ...strike, audit: says ? { ...others, [check]: says } : others });
  });
}

/** One look more at who leaves first, looking blind; null takes them all back. */
export function addLook(document: ClipDocument, strikeId: string, look: Look | null): ClipDocument {
  return changeStrike(document, strikeId, ({ looks = [], ...strike }) =>
    look ? { ...strike, looks: [...looks, look].slice(-MOST_LOOKS) } : strike,
  );
}

/** @param strikeId null for a word on the whole film; empty words take it away */
export function setNote(
  document: ClipDocument,
  strikeId: string | null,
  words: string,
): ClipDocument {
  const said = words.trim();
  const noted = <T extends { note?: string }>({ note: _, ...rest }: T) =>
    said ? { ...rest, note: said } : rest;
  return strikeId === null
    ? (noted(document) as ClipDocument)
    : changeStrike(document, strikeId, (strike) => noted(strike) as StrikeDocument);
}

/** Without what is undefined, and records that have come to hold nothing. */
function withoutEmpty({ school, audit, situation, range, ...strike }: StrikeDocument) {
  return {
    ...strike,
    ...(school && Object.keys(school).length > 0 && { school }),
    ...(audit && Object.keys(audit).length > 0 && { audit }),
    ...(situation && { situation }),
    ...(range && { range }),
  };
}
