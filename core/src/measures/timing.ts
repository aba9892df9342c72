/** Durations and leads: what the marked instants alone tell. */
import type { EventName } from '../events/events';
import { PHASES, type PhaseId } from '../events/phases';
import { absent, isAbsent, isPresent, reading, type Measured } from '../reading/reading';
import { propagate } from '../uncertainty/propagate';
import { eventOf, type MeasureContext } from './context';

/** Time from one event to another, seconds; negative when the second came first. */
export function between(context: MeasureContext, from: EventName, to: EventName): Measured {
  const a = eventOf(context, from);
  const b = eventOf(context, to);
  if (isAbsent(a)) return a;
  if (isAbsent(b)) return b;
  const source = a.source === 'eye' || b.source === 'eye' ? 'eye' : a.source;
  return reading(b.time - a.time, 's', Math.hypot(a.sigma, b.sigma), source, [a.frame, b.frame]);
}

/** Duration of a phase, seconds. A phase whose end precedes its start did not take place. */
export function phaseDuration(context: MeasureContext, id: PhaseId): Measured {
  const phase = PHASES.find((one) => one.id === id)!;
  const span = between(context, phase.from, phase.to);
  if (isAbsent(span) || span.value >= 0) return span;
  return absent(
    `There is no ${phase.name.toLowerCase()} phase: “${phase.to}” comes before “${phase.from}”.`,
  );
}

/**
 * Time home ÷ time out: from the end of the strike to the hand in guard, over the arm's start to
 * contact. 1 means back as fast as out.
 */
export function recoil(context: MeasureContext): Measured {
  const marks = (['arm', 'contact', 'end', 'home'] as const).map((name) => eventOf(context, name));
  const lacking = marks.find(isAbsent);
  if (lacking) return lacking;
  const known = marks.filter(isPresent);
  const times = known.map((mark) => mark.time);
  if (times[1]! <= times[0]! || times[3]! < times[2]!) {
    return absent('The way out or the way home has no length; check arm, contact, end and home.');
  }
  const ratio = (t: readonly number[]) => (t[3]! - t[2]!) / (t[1]! - t[0]!);
  return reading(
    ratio(times),
    'ratio',
    propagate(
      ratio,
      times,
      known.map((mark) => mark.sigma),
    ),
    known.some((mark) => mark.source === 'eye') ? 'eye' : known[0]!.source,
    known.map((mark) => mark.frame),
  );
}
