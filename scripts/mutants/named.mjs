/**
 * Mutants written by hand, each a promise of the ± broken on purpose. A tool that changes operators never
 * makes these: they are constants and left-out terms, and the readings stay right while their ± lies.
 * Every one must die; `find` is in the file exactly once.
 *
 * @typedef {{ name: string, file: string, find: string, replace: string }} Named
 * @type {readonly Named[]}
 */
export const NAMED = [
  {
    name: 'no term for what a single picture cannot see out of its plane',
    file: 'reconstruct/calibration/picture.ts',
    find: 'const OUT_OF_PLANE = 0.02;',
    replace: 'const OUT_OF_PLANE = 0;',
  },
  {
    name: 'the term out of the plane is not added to shares',
    file: 'measure/measures/share.ts',
    find: 'Math.hypot(spread[id], motion.planeSigma, value.other / whole)',
    replace: 'Math.hypot(spread[id], value.other / whole)',
  },
  {
    name: 'the scale is left out of the way that a link carries the end',
    file: 'measure/measures/run.ts',
    find: '(context.motion.scaleSigma * value[id]) ** 2 +',
    replace: '',
  },
  {
    name: 'a first guess is not set back by half of what noise has lifted the threshold',
    file: 'measure/events/onset.ts',
    find: 'return crossed - (threshold - wanted) / rise / 2;',
    replace: 'return crossed;',
  },
  {
    name: 'a start does not own up to what other ways of gathering speed would give',
    file: 'measure/events/changePoint.ts',
    find: 'const SHAPE = 0.035;',
    replace: 'const SHAPE = 0;',
  },
  {
    name: 'a start does not own up to the noise of the rise that fits',
    file: 'measure/events/changePoint.ts',
    find: 'one.start ** 2 + loose * one.variance',
    replace: 'one.start ** 2',
  },
  {
    name: 'a rise that does not fit is as sure as one that does',
    file: 'measure/events/changePoint.ts',
    find: 'Math.max(1, least / Math.max(1, this.count - 5))',
    replace: '1',
  },
  {
    name: 'a start off points that somebody has smoothed is as sure as any',
    file: 'measure/events/starts.ts',
    find: 'const SMOOTHED_START = 0.012;',
    replace: 'const SMOOTHED_START = 0;',
  },
  {
    name: 'the noise of a track is what somebody says it is',
    file: 'reconstruct/motion/clean.ts',
    find: 'noise.hangs === null ? told : Math.max(told, read)',
    replace: 'told',
  },
  {
    name: 'noise is taken to be another one from frame to frame',
    file: 'reconstruct/motion/clean.ts',
    find: 'const hangs = noise.hangs ?? SMOOTHED_HANGS;',
    replace: 'const hangs = 0;',
  },
  {
    name: 'a low-pass leaves of noise that hangs together what it leaves of any',
    file: 'foundation/signal/butterworth.ts',
    find: 'const keeps = Math.round(100 * keptOver(1 / rate, hangs)) / 100;',
    replace: 'const keeps = 0;',
  },
  {
    name: 'jumps are left in',
    file: 'foundation/signal/spikes.ts',
    find: 'const OFF_BOTH = 4.5;',
    replace: 'const OFF_BOTH = 4500;',
  },
  {
    name: 'a speed is as sure as its likeliest strength of jerk has it',
    file: 'foundation/signal/kriging.ts',
    find: '(one.variances[of]! + apart)',
    replace: 'one.variances[of]!',
  },
  {
    name: 'an event read off a track knows no frame spacing',
    file: 'measure/events/events.ts',
    find: 'sigma: Math.hypot(sigma, sampling), source',
    replace: 'sigma, source',
  },
  {
    name: 'a mark by eye knows no frame spacing',
    file: 'measure/events/events.ts',
    find: 'const sigma = (width * frameSpacing(frameTimes, frame)) / Math.sqrt(12);',
    replace: 'const sigma = 0.001;',
  },
  {
    name: 'the contact of a tracked strike is as sure as a measured one',
    file: 'measure/events/contact.ts',
    find: 'const TRACKED_CONTACT = 0.02;',
    replace: 'const TRACKED_CONTACT = 0;',
  },
  {
    name: 'a place filled into a gap is as sure as a seen one',
    file: 'reconstruct/motion/prepare.ts',
    find: 'const GAP_SIGMA = 2;',
    replace: 'const GAP_SIGMA = 1;',
  },
  {
    name: 'smoothing takes no more noise out near the end of a run than inside',
    file: 'reconstruct/motion/prepare.ts',
    find: 'const depth = Math.min(i - from, to - 1 - i);',
    replace: 'const depth = to - from;',
  },
  {
    name: 'what leans for the whole strike is left out of a place',
    file: 'reconstruct/motion/motion.ts',
    find: 'return Math.hypot(sigma[index]!, bias[index]!);',
    replace: 'return sigma[index]!;',
  },
  {
    name: 'the range of a cost is one sigma wide, not nine tenths',
    file: 'judge/cost/estimate.ts',
    find: 'share - NINE_OF_TEN * keep.sigma',
    replace: 'share - keep.sigma',
  },
  {
    name: 'the range of a cost by the model is its middle half',
    file: 'judge/cost/estimate.ts',
    find: 'of(as) - quantileSorted(sorted, 0.05)!);\n    const over = Math.max(0, quantileSorted(sorted, 0.95)!',
    replace:
      'of(as) - quantileSorted(sorted, 0.25)!);\n    const over = Math.max(0, quantileSorted(sorted, 0.75)!',
  },
  {
    name: 'what a chain in one plane is off by is left out of the range of a cost',
    file: 'judge/cost/estimate.ts',
    find: 'NINE_OF_TEN * offBy(remedy, model)',
    replace: '0.5 * offBy(remedy, model)',
  },
  {
    name: 'a limb is held against the tracker for nothing',
    file: 'observe/track/sides.ts',
    find: 'const AGAINST = 60;',
    replace: 'const AGAINST = 0;',
  },
  {
    name: 'joints of the chain model are not damped',
    file: 'judge/simulate/strike.ts',
    find: 'const HOLD_DAMPING = 0.06;',
    replace: 'const HOLD_DAMPING = 0;',
  },
  {
    name: 'the slope of three tests is judged by the normal distribution',
    file: 'foundation/uncertainty/slope.ts',
    find: 'quantile(0.975, freedom)',
    replace: '1.96',
  },
  {
    name: 'scatter beyond its sigma does not make a slope less sure',
    file: 'foundation/uncertainty/slope.ts',
    find: 'Math.max(1, Math.sqrt(misfit / freedom))',
    replace: '1',
  },
  {
    name: 'a change is compared with one sigma',
    file: 'train/progress/change.ts',
    find: '1.96 * Math.hypot(sigma(then, strikes[0]), sigma(now, strikes[1]))',
    replace: 'Math.hypot(sigma(then, strikes[0]), sigma(now, strikes[1]))',
  },
  {
    name: 'the typical error of marking is left out of a change',
    file: 'train/progress/change.ts',
    find: 'Math.max(one.sigma, (typicalError ?? 0) / Math.sqrt(n))',
    replace: 'one.sigma',
  },
];
