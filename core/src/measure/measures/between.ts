/** From one strike of a combination to the next: is it home, planted, and wound up for the other side? */
import type { Events } from '../events/events';
import { absent, isAbsent, reading, type Measured } from '../../foundation/reading/reading';
import { wrapped } from '../../foundation/geometry/angles';
import type { MeasureContext, NextStrike } from './context';
import type { Instant } from './probe';
import { run, type Measure } from './run';
import { pelvisYaw } from './turn';
import { BALANCE } from './balance';

export const PAIR = {
  'pair.gap': 'Contact to the next contact',
  'pair.home': 'Hand home after the next contact',
  'pair.kept': 'Turn left as the next hips start',
  'pair.heel': 'Pivoted heel above its place as the next hips start',
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
      'pair.heel': NOT_APPLICABLE,
      'pair.balance': ending,
    };
  }
  return {
    'pair.gap': between(context, next.events, 'contact', 'contact'),
    'pair.home': negated(between(context, next.events, 'home', 'contact')),
    'pair.kept': kept(context, next),
    'pair.heel': heel(context, next),
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

/** Share of the pelvis' turn from ready to contact that is still there; asked of strikes of two sides. */
function kept(context: MeasureContext, { strike, events }: NextStrike): Measured {
  if (strike.side === context.strike.side) return NOT_APPLICABLE;
  const { hips } = events;
  if (!hips) return absent('Mark the start of the hips of the next strike.');
  return run(
    {
      ...NEXT,
      id: 'pair.kept',
      name: PAIR['pair.kept'],
      unit: 'ratio',
      value: (probe) => {
        const ready = pelvisYaw(probe, probe.event('ready'));
        const turned = (when: Instant) => wrapped(pelvisYaw(probe, when) - ready);
        return turned(instant('hips', hips)) / turned(probe.event('contact'));
      },
    },
    context,
  );
}

/** How far the heel of this strike's foot is above where it was in guard. */
function heel(context: MeasureContext, { strike, events }: NextStrike): Measured {
  if (strike.side === context.strike.side) return NOT_APPLICABLE;
  const { hips } = events;
  if (!hips) return absent('Mark the start of the hips of the next strike.');
  return run(
    {
      ...NEXT,
      id: 'pair.heel',
      name: PAIR['pair.heel'],
      unit: 'm',
      needs: 'up',
      shows: 'the heel',
      isMetric: true,
      sizedBy: 'foot',
      value: (probe) => {
        const up = (when: Instant) =>
          probe.at(probe.own('Heel'), when)[1]! - probe.at(probe.own('Toe'), when)[1]!;
        return up(instant('hips', hips)) - up(probe.event('ready'));
      },
    },
    context,
  );
}
