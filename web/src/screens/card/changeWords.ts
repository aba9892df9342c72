import type { Verdict } from '@sinew/core/train/progress/change';

/** What a change from then to now is called on paper. */
export const CHANGE_WORDS: Readonly<Record<Verdict, string>> = {
  better: 'better',
  worse: 'worse',
  changed: 'changed',
  noise: 'no change that can be claimed',
  few: 'too few strikes to claim a change',
};
