/** What only a kick has: how high it lands. */
import type { Technique } from '../../foundation/technique/techniques';
import type { Measure } from './run';

const hasShank = ({ family, end }: Technique) => family === 'kick' && end !== 'knee';

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
] as const satisfies readonly Measure[];
