/** The unit of every reading that a fault may be judged by. */
import type { Unit } from '../../foundation/reading/reading';
import { ENERGY } from './mass';
import { SINGLE_UNITS, type MeasureId } from './allMeasures';
import type { SetId } from './set';

const OTHERS: Readonly<Record<string, Unit>> = {
  'set.slowLead': 's',
  'set.fastLead': 's',
  'set.speedRange': 'ratio',
  'set.rise': 'm',
  'pair.gap': 's',
  'pair.home': 's',
  'pair.kept': 'ratio',
  'pair.idle': 's',
  'pair.heel': 'm',
  'pair.down': 's',
  'pair.balance': 'm',
};

export function unitOf(id: MeasureId | SetId): Unit {
  const known = SINGLE_UNITS[id] ?? OTHERS[id];
  if (known) return known;
  if (id.startsWith('share.')) return 'm/s';
  if (id.startsWith('travel.')) return 'm';
  return id in ENERGY ? 'J' : 'ratio';
}
