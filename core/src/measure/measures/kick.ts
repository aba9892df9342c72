/** What only a kick has: a knee drawn up sharply, how high it lands, the leg that folds again. */
import type { Technique } from '../../foundation/technique/techniques';
import type { Instant, MeasureProbe } from './probe';
import type { Measure } from './run';
import { kneeAngle } from './stance';

/** A leg that has not begun to fold by then does not fold on its way home, seconds after contact. */
const FOLDS_BY = 0.3;

const hasShank = ({ family, end }: Technique) => family === 'kick' && end !== 'knee';

const KNEE = {
  unit: 'rad',
  needs: 'space',
  isMetric: false,
  isBend: true,
  shows: 'the bend of the kicking knee',
  of: hasShank,
} as const;

const kneeBend = (probe: MeasureProbe, when: Instant) =>
  kneeAngle(probe, probe.motion.striking, when);

const sharpest = (probe: MeasureProbe, name: string, from: Instant, to: Instant) =>
  probe.most(name, from, to, probe.own('Ankle'), (l, when) => -kneeBend(l, when));

export const KICKING = [
  {
    unit: 'ratio',
    needs: 'up',
    isMetric: false,
    shows: 'the height of the kick',
    id: 'kick.height',
    name: 'Height of the kick, 0 at the hip, 1 at the shoulder in guard',
    of: hasShank,
    value: (probe) => {
      const ready = probe.event('ready');
      const hip = probe.middle('leftHip', 'rightHip', ready)[1]!;
      const shoulder = probe.middle('leftShoulder', 'rightShoulder', ready)[1]!;
      return (probe.at('end', probe.event('contact'))[1]! - hip) / (shoulder - hip);
    },
  },
  {
    ...KNEE,
    id: 'kick.fold',
    name: 'Kicking knee at its sharpest before contact',
    value: (probe) =>
      kneeBend(probe, sharpest(probe, 'drawn up', probe.event('trunk'), probe.event('contact'))),
  },
  {
    ...KNEE,
    id: 'kick.home',
    name: 'Knee folds again on the way home',
    value: (probe) => {
      const contact = probe.event('contact');
      const home = probe.event('contact', FOLDS_BY);
      return kneeBend(probe, contact) - kneeBend(probe, sharpest(probe, 'folded', contact, home));
    },
  },
] as const satisfies readonly Measure[];
