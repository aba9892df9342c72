/** How much faster each link's far end gets than that of the link before. */
import type { SidedPart } from '../../foundation/body/landmarks';
import { length } from '../../foundation/geometry/vector';
import type { Technique } from '../../foundation/technique/techniques';
import type { MeasureProbe } from './probe';
import type { Measure } from './run';

type Part = SidedPart | 'end';

function peak(probe: MeasureProbe, point: Part): number {
  const part = point === 'end' ? point : probe.own(point);
  const from = probe.has('hips') ? probe.event('hips') : probe.event('load');
  const speed = (l: MeasureProbe, when: Parameters<MeasureProbe['at']>[1]) =>
    length(l.velocity(part, when));
  return speed(probe, probe.most(`peak ${part}`, from, probe.event('contact'), part, speed));
}

const hasArm = ({ family }: Technique) => family !== 'kick';
const hasFist = ({ end }: Technique) => end === 'fist';
const hasLeg = ({ family }: Technique) => family === 'kick';
const hasFoot = ({ family, end }: Technique) => family === 'kick' && end !== 'knee';

function gain<Id extends string>(
  id: Id,
  name: string,
  near: Part,
  far: Part,
  of: (technique: Technique) => boolean,
) {
  return {
    id,
    name,
    of,
    unit: 'ratio',
    needs: 'space',
    shows: 'how links hand on their speed',
    isMetric: true,
    value: (probe) => peak(probe, far) / peak(probe, near),
  } satisfies Measure<Id>;
}

export const GAIN = [
  gain('gain.trunk', 'Shoulder’s speed ÷ hip’s', 'Hip', 'Shoulder', hasArm),
  gain('gain.upperArm', 'Elbow’s speed ÷ shoulder’s', 'Shoulder', 'Elbow', hasArm),
  gain('gain.forearm', 'Wrist’s speed ÷ elbow’s', 'Elbow', 'Wrist', hasFist),
  gain('gain.hand', 'Fist’s speed ÷ wrist’s', 'Wrist', 'end', hasFist),
  gain('gain.thigh', 'Knee’s speed ÷ hip’s', 'Hip', 'Knee', hasLeg),
  gain('gain.shank', 'Ankle’s speed ÷ knee’s', 'Knee', 'Ankle', hasFoot),
  gain('gain.foot', 'Foot’s speed ÷ ankle’s', 'Ankle', 'end', hasFoot),
] as const satisfies readonly Measure[];
