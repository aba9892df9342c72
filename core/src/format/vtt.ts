/**
 * Marks and phases as WebVTT, so that any player shows them: chapters for the phases, metadata cues
 * with a JSON payload for the events.
 */
import vtt from 'node-webvtt';
import { z } from 'zod';
import { firstWrong } from '../foundation/problem/problem';
import { EVENTS, type EventName, type Events, type Marks } from '../measure/events/events';
import { nearestFrame } from '../observe/track/time';
import { PHASES } from '../measure/events/phases';
import { FormatError } from './formatError';

/** How long an event's cue lasts, seconds: it has no length, but a cue must have one. */
const INSTANT = 0.001;

interface Cue {
  readonly identifier: string;
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly styles: string;
}

function compiled(kind: string, cues: readonly Cue[]): string {
  return vtt.compile({ valid: true, meta: { Kind: kind }, cues: [...cues] });
}

/** What is said while a film runs, for who reads along. Times in seconds, rounded to milliseconds. */
export function writeSubtitles(
  said: readonly { readonly from: number; readonly to: number; readonly words: string }[],
): string {
  return compiled(
    'subtitles',
    said.map(({ from, to, words }) => ({
      identifier: '',
      start: from,
      end: to,
      text: words.replaceAll('-->', '→'),
      styles: '',
    })),
  );
}

/** Chapters: the phases that took place. Times are rounded to milliseconds, as the format has them. */
export function writePhases(events: Events): string {
  const cues = PHASES.flatMap(({ name, from, to }) => {
    const [start, end] = [events[from], events[to]];
    return start && end && end.time > start.time
      ? [{ identifier: '', start: start.time, end: end.time, text: name, styles: '' }]
      : [];
  });
  return compiled('chapters', cues);
}

/** Metadata: `{"event": "hips", "time": 0.51234, "sigma": 0.0012}`, times in seconds. */
export function writeEvents(events: Events): string {
  const cues = Object.entries(events)
    .sort(([, a], [, b]) => a.time - b.time)
    .map(([event, { time, sigma }]) => ({
      identifier: event,
      start: time,
      end: time + INSTANT,
      text: JSON.stringify({ event, time, sigma }),
      styles: '',
    }));
  return compiled('metadata', cues);
}

const payload = z.object({
  event: z.string(),
  time: z.number(),
  sigma: z.number().nonnegative(),
});

/**
 * The coach's marks out of a metadata file; events that are not marked by hand are passed over.
 *
 * @param frameTimes seconds of every frame of the clip they belong to
 * @throws FormatError naming the cue
 */
export function readEvents(text: string, frameTimes: readonly number[]): Marks {
  const marks: Marks = {};
  for (const [i, cue] of parsed(text).entries()) {
    const where = `cue ${i + 1}`;
    let value: unknown;
    try {
      value = JSON.parse(cue.text);
    } catch {
      throw new FormatError(`${where}: the text is not JSON`);
    }
    const found = payload.safeParse(value);
    if (!found.success) {
      throw new FormatError(`${where}: ${firstWrong(found.error)}`);
    }
    const { event, time, sigma } = found.data;
    if (!(EVENTS as readonly string[]).includes(event)) continue;
    const [first, last] = [frameTimes[0]!, frameTimes[frameTimes.length - 1]!];
    if (!(time >= first && time <= last)) {
      throw new FormatError(`${where}: ${time} s is not within the film (${first} to ${last} s)`);
    }
    if (marks[event as EventName]) throw new FormatError(`${where}: “${event}” is there twice`);
    const frame = nearestFrame(frameTimes, time);
    marks[event as EventName] = { frame, time, sigma, source: 'eye' };
  }
  return marks;
}

function parsed(text: string): readonly Cue[] {
  try {
    return vtt.parse(text.replace(/\r\n?/g, '\n'), { meta: true }).cues;
  } catch (error) {
    throw new FormatError(`not WebVTT: ${(error as Error).message}`);
  }
}
