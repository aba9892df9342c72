import type { Events, EventName, EventMark } from '../events/events';
import { VIEW_AXES, type Axis, type Motion } from '../motion/motion';
import { absent, type Absent } from '../reading/reading';
import type { Strike } from '../technique/strike';

/** All a measure may look at. `motion` may hold no point yet. */
export interface MeasureContext {
  readonly strike: Strike;
  readonly events: Events;
  readonly motion: Motion;
}

const EVENT_WORDS: Record<EventName, string> = {
  ready: 'the ready frame',
  load: 'the start of the load',
  hips: 'the start of the hips',
  trunk: 'the start of the trunk',
  arm: 'the start of the arm',
  contact: 'contact',
  end: 'the end of the strike',
  home: 'the hand back home',
};

/** The marked event, or the request to mark it. */
export function eventOf(context: MeasureContext, name: EventName): EventMark | Absent {
  return context.events[name] ?? absent(`Mark ${EVENT_WORDS[name]}.`);
}

/** The motion when its view shows what is asked, else the reason it cannot be read. */
export function motionShowing(
  context: MeasureContext,
  what: { readonly needs: keyof typeof NEEDED; readonly name: string },
): Motion | Absent {
  const { motion } = context;
  const { axes, advice } = NEEDED[what.needs];
  if (!axes.every((axis) => VIEW_AXES[motion.view].includes(axis))) {
    return absent(`A view from ${viewWords(motion.view)} cannot show ${what.name}; ${advice}.`);
  }
  return axes.every((axis) => motion.axes.includes(axis))
    ? motion
    : absent('Draw the line to the target in the picture.');
}

const NEEDED: Record<
  'toward' | 'right' | 'up' | 'ground',
  { readonly axes: readonly Axis[]; readonly advice: string }
> = {
  toward: { axes: ['toward'], advice: 'film from the side' },
  right: { axes: ['right'], advice: 'film from the front or from behind' },
  up: { axes: ['up'], advice: 'film from the side' },
  ground: { axes: ['toward', 'right'], advice: 'film from above' },
};

export function viewWords(view: Motion['view']): string {
  return {
    side: 'the side',
    front: 'the front',
    behind: 'behind',
    above: 'above',
    '3d': 'two cameras',
  }[view];
}
