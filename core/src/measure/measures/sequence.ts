/** How well the chain keeps its order, as one number: 1 = from the ground outwards, 0 = reversed. */
import { orderOf, peakSteps, startSteps, type Step } from '../chain/sequence';
import { absent, isAbsent, reading, type Measured } from '../../foundation/reading/reading';
import { eventOf, motionShowing, type MeasureContext } from './context';

/** A tie counts half, give or take a half: σ of a value equally likely anywhere from 0 to 1. */
const TIE_SIGMA = 1 / Math.sqrt(12);

function ordered(steps: readonly Step[], context: MeasureContext, what: string): Measured {
  const { inOrder, ties, pairs } = orderOf(steps);
  if (pairs < 1) return absent(`The ${what} of two or more links must be known for their order.`);
  const frames = Object.values(context.events).map((mark) => mark.frame);
  return reading(
    (inOrder + ties / 2) / pairs,
    'ratio',
    (TIE_SIGMA * Math.sqrt(ties)) / pairs,
    context.motion.source,
    frames,
  );
}

export const SEQUENCE = {
  'sequence.onset': {
    name: 'Links start in order',
    measured: (context: MeasureContext): Measured =>
      ordered(startSteps(context.events, context.strike.technique), context, 'starts'),
  },
  'sequence.peak': {
    name: 'Links peak in order',
    measured: (context: MeasureContext): Measured => {
      const shown = motionShowing(context, { needs: 'space', name: 'how fast every link turns' });
      if (isAbsent(shown)) return shown;
      const contact = eventOf(context, 'contact');
      if (isAbsent(contact)) return contact;
      const { motion, strike } = context;
      // On rendered films the truth lay within its ± in 5 of 18.
      if (motion.source === 'estimated-3d') {
        return absent('A tracker’s guess in space does not tell when each link is fastest.');
      }
      return ordered(peakSteps(motion, strike.technique, contact), context, 'peaks');
    },
  },
} as const;
