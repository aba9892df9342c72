import type { Stances } from '@sinew/core/train/work/prescription';

export const STANCE_NAMES: Readonly<Record<Stances, string>> = {
  both: 'both stances',
  own: 'own stance',
  other: 'the other stance',
};
