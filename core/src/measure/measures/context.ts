/** What measures are given of a strike, and the sentences for what they lack. */
import type { AnyEvent, Events, EventMark } from '../events/events';
import { VIEW_AXES, type Axis } from '../../reconstruct/calibration/calibration';
import type { Motion } from '../../reconstruct/motion/motion';
import { absent, type Absent } from '../../foundation/reading/reading';
import type { Strike } from '../../foundation/technique/strike';
import type { View } from '../../foundation/technique/techniques';

/** All a measure may look at. `motion` may hold no point yet. */
export interface MeasureContext {
  readonly strike: Strike;
  readonly events: Events;
  /** Prepared: see `motion/prepare`. */
  readonly motion: Motion;
  readonly body: Body;
  /** The strike that follows in the same combination. */
  readonly next?: NextStrike;
  /** The last strike of a combination of several. */
  readonly isLastOfSeveral?: boolean;
  /** Draw this many times for every σ instead of following it to first order. */
  readonly draws?: { readonly count: number; readonly seed: number };
}

/** The strike that follows in the same combination. */
export interface NextStrike {
  readonly strike: Strike;
  readonly events: Events;
}

/** What is known of the student's body; null where nothing is. */
export interface Body {
  /** Kilograms. */
  readonly mass: number | null;
  /** Metres, standing. */
  readonly height: number | null;
}

export const UNKNOWN_BODY: Body = { mass: null, height: null };

const EVENT_WORDS: Record<AnyEvent, string> = {
  ready: 'the ready frame',
  load: 'the start of the load',
  hips: 'the start of the hips',
  trunk: 'the start of the trunk',
  arm: 'the start of the arm',
  contact: 'contact',
  end: 'the end of the strike',
  home: 'the hand back home',
  drive: 'the start of the drive',
  rearHeelUp: 'the rear heel coming up',
  footLift: 'a foot leaving the floor',
  footLand: 'a foot landing',
  pivotStart: 'the foot starting to turn',
  anchorSet: 'the support foot being set',
};

const EVENT_LACKS: Partial<Record<AnyEvent, string>> = {
  drive:
    'No start of the drive is seen: film a straight from the side, the whole rear leg in the picture.',
  footLift: 'No foot leaves the floor in this strike.',
  footLand:
    'No foot is seen to land in this strike; a single picture shows that from the side only.',
  pivotStart: 'The foot does not turn in this strike, or its heel and toe are not known.',
  anchorSet: 'The support foot is never seen to be set.',
  rearHeelUp: 'The rear heel is not seen to come up.',
};

/** The marked event, or the request to mark it. */
export function eventOf(
  context: Pick<MeasureContext, 'events'>,
  name: AnyEvent,
): EventMark | Absent {
  return context.events[name] ?? absent(EVENT_LACKS[name] ?? `Mark ${EVENT_WORDS[name]}.`);
}

/** The motion when its view shows what is asked, else the reason it cannot be read. */
export function motionShowing(
  context: Pick<MeasureContext, 'motion'>,
  what: { readonly needs: Needs; readonly name: string; readonly advice?: string },
): Motion | Absent {
  const { motion } = context;
  const { axes, advice: usual } = NEEDED[what.needs];
  const advice = what.advice ?? usual;
  if (!axes.every((axis) => VIEW_AXES[motion.view].includes(axis))) {
    const why = `A view from ${viewWords(motion.view)} cannot show ${what.name}; ${advice}.`;
    return { absent: why, advice };
  }
  return motion.axes.length > 0 && axes.every((axis) => motion.axes.includes(axis))
    ? motion
    : absent('Draw the line to the target in the picture.');
}

/** What a view must show. */
export type Needs = 'any' | 'toward' | 'right' | 'up' | 'sagittal' | 'ground' | 'upright' | 'space';

const NEEDED: Record<Needs, { readonly axes: readonly Axis[]; readonly advice: string }> = {
  any: { axes: [], advice: '' },
  toward: { axes: ['toward'], advice: 'film from the side' },
  right: { axes: ['right'], advice: 'film from the front or from behind' },
  up: { axes: ['up'], advice: 'film from the side' },
  sagittal: { axes: ['toward', 'up'], advice: 'film from the side' },
  ground: { axes: ['toward', 'right'], advice: 'film from above' },
  upright: { axes: ['up', 'right'], advice: 'film from the front or from behind' },
  space: { axes: ['toward', 'up', 'right'], advice: 'two cameras would' },
};

/** What would show it, when some single views do. */
export const filmFrom = (views: readonly View[]): string =>
  views.length > 0 ? `film from ${views.map(viewWords).join(' or ')}` : 'two cameras would';

export function viewWords(view: Motion['view']): string {
  return {
    side: 'the side',
    front: 'the front',
    behind: 'behind',
    above: 'above',
    '3d': 'two cameras',
  }[view];
}
