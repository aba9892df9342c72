import type { SidedPart } from '../body/landmarks';
import type { Technique } from './techniques';

/** The parts whose middle is the striking end; where only one of two is known, that one. */
export const END_PARTS: Readonly<Record<Technique['end'], readonly SidedPart[]>> = {
  fist: ['IndexKnuckle', 'LittleKnuckle'],
  elbow: ['Elbow'],
  knee: ['Knee'],
  ball: ['Toe'],
  instep: ['Ankle', 'Toe'],
  heel: ['Heel'],
};
