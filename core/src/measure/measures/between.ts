/** From one strike of a combination to the next: is it home, planted, and wound up for the other side? */
import type { EventMark, Events } from '../events/events';
import { absent, isAbsent, reading, type Measured } from '../../foundation/reading/reading';
import { wrapped } from '../../foundation/geometry/angles';
import type { MeasureContext, NextStrike } from './context';
import { betweenFramesOf, goneBy, type Showing } from './lasting';
import type { Instant, MeasureProbe } from './probe';
import { run, type Measure } from './run';
import { pelvisYaw } from './turn';
import { BALANCE } from './balance';

export const PAIR = {
  'pair.gap': 'Contact to the next contact',
  'pair.home': 'Hand home after the next contact',
  'pair.kept': 'Turn left as the next hips start',
  'pair.idle': 'Turn half gone before the next hips start',
  'pair.heel': 'Pivoted heel above its place as the next hips start',
  'pair.down': 'Pivoted heel half down after the next hips start',
  'pair.balance': 'Balance margin, home again after a combination',
} as const;

export type PairId = keyof typeof PAIR;

/** Nothing follows, or nothing that this asks for. */
const NOT_APPLICABLE = {
  absent: 'No strike of this kind follows.',
  isNotApplicable: true,
} as const;

const NEXT = {
  unit: 'rad',
  needs: 'ground',
  shows: 'hips between two strikes',
  isMetric: false,
} as const;

/** An instant of the other strike in this one's time. */
function instant(label: string, { time }: { readonly time: number }): Instant {
  return { label: `next ${label}`, event: null, time, shift: 0 };
}

/**
 * @returns readings of a strike and the next one; foreign where none follows
 */
export function pairs(context: MeasureContext): Readonly<Record<PairId, Measured>> {
  const { next } = context;
  const ending = last(context);
  if (!next) {
    return {
      'pair.gap': NOT_APPLICABLE,
      'pair.home': NOT_APPLICABLE,
      'pair.kept': NOT_APPLICABLE,
      'pair.idle': NOT_APPLICABLE,
      'pair.heel': NOT_APPLICABLE,
      'pair.down': NOT_APPLICABLE,
      'pair.balance': ending,
    };
  }
  return {
    'pair.gap': between(context, next.events, 'contact', 'contact'),
    'pair.home': negated(between(context, next.events, 'home', 'contact')),
    ...turnAndHeel(context, next),
    'pair.balance': NOT_APPLICABLE,
  };
}

/** Only the end of a combination is asked whether it stands. */
function last(context: MeasureContext): Measured {
  if (!context.isLastOfSeveral) return NOT_APPLICABLE;
  return run(BALANCE.find(({ id }) => id === 'stability.home')! as Measure, context);
}

/** Seconds from an event of this strike to one of the next. */
function between(
  { events }: MeasureContext,
  next: Events,
  from: 'contact' | 'home',
  to: 'contact',
): Measured {
  const [a, b] = [events[from], next[to]];
  if (!a) return absent(`Mark ${from} of this strike.`);
  if (!b) return absent(`Mark ${to} of the next strike.`);
  return reading(b.time - a.time, 's', Math.hypot(a.sigma, b.sigma), a.source, [a.frame, b.frame]);
}

function negated(measured: Measured): Measured {
  return isAbsent(measured) ? measured : { ...measured, value: -measured.value };
}

/** How far the pelvis has turned since ready, radians. */
const TURN: Showing = {
  name: 'turn',
  needs: 'rightHip',
  least: 0.1,
  size: (probe, when) => wrapped(pelvisYaw(probe, when) - pelvisYaw(probe, probe.event('ready'))),
};

/** How far the heel of this strike's foot is above where it was in guard, metres. */
function heelUp(probe: MeasureProbe, when: Instant): number {
  const up = (at: Instant) =>
    probe.at(probe.own('Heel'), at)[1]! - probe.at(probe.own('Toe'), at)[1]!;
  return up(when) - up(probe.event('ready'));
}

const heelOf = (probe: MeasureProbe): Showing => ({
  name: 'heel',
  needs: probe.own('Heel'),
  size: heelUp,
});

const HEEL = { ...NEXT, needs: 'up', shows: 'the heel', isMetric: true } as const;
const LASTS = { unit: 's', doubt: (probe: MeasureProbe) => betweenFramesOf(probe, 1) } as const;

/** What of a strike is left as the hips of the next one start, and since when or until when; asked of two sides. */
function turnAndHeel(context: MeasureContext, { strike, events }: NextStrike) {
  const ids = ['pair.kept', 'pair.idle', 'pair.heel', 'pair.down'] as const;
  const all = (one: Measured) =>
    Object.fromEntries(ids.map((id) => [id, one])) as Record<(typeof ids)[number], Measured>;
  if (strike.side === context.strike.side) return all(NOT_APPLICABLE);
  const { hips } = events;
  if (!hips) return all(absent('Mark the start of the hips of the next strike.'));
  const lands = events.contact;
  if (hips.source !== 'eye' && lands && lands.time - hips.time > LONGEST_DRIVE) {
    return all(absent(GOING_BACK));
  }
  const measure = (id: PairId, one: Omit<Measure, 'id' | 'name' | 'value'>, value: AtStart) =>
    around(hips, context, (start) => ({
      ...one,
      id,
      name: PAIR[id],
      value: (probe) => value(probe, start),
    }));
  return {
    // Share of the pelvis' turn from ready to contact that is still there.
    'pair.kept': measure(
      'pair.kept',
      { ...NEXT, unit: 'ratio' },
      (probe, start) => TURN.size(probe, start) / TURN.size(probe, probe.event('contact')),
    ),
    'pair.idle': measure('pair.idle', { ...NEXT, ...LASTS }, (probe, start) => {
      return start.time - goneBy(probe, TURN, probe.event('contact'), start);
    }),
    'pair.heel': measure('pair.heel', { ...HEEL, sizedBy: 'foot' }, heelUp),
    'pair.down': lands
      ? measure('pair.down', { ...HEEL, ...LASTS }, (probe, start) => {
          return goneBy(probe, heelOf(probe), start, instant('contact', lands)) - start.time;
        })
      : absent('Mark contact of the next strike.'),
  };
}

/**
 * From the start of the hips to contact, seconds: made-up strikes take 0.2 to 0.3. Hips that seem to start earlier may
 * be those of the strike before on their way back, which turn the same way and as fast.
 */
const LONGEST_DRIVE = 0.35;
const GOING_BACK =
  'The hips may only be on their way back from this strike: mark where the next hips start.';

type AtStart = (probe: MeasureProbe, start: Instant) => number;

/** A reading at an instant of the next strike; its σ holds that instant's own, by how much more it changes on one side. */
function around(
  { time, sigma }: EventMark,
  context: MeasureContext,
  measure: (start: Instant) => Measure,
): Measured {
  const at = (shift: number) => run(measure(instant('hips', { time: time + shift })), context);
  const found = at(0);
  if (isAbsent(found)) return found;
  const changes = [-sigma, sigma].map((shift) => {
    const other = at(shift);
    return isAbsent(other) ? 0 : Math.abs(other.value - found.value);
  });
  return { ...found, sigma: Math.hypot(found.sigma, Math.max(...changes)) };
}
