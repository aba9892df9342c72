/** How hard a strike is meant. */
export const INTENTS = ['slow', 'tempo', 'full', 'power'] as const;
export type Intent = (typeof INTENTS)[number];

export const INTENT_NAMES: Readonly<Record<Intent, string>> = {
  slow: 'slow',
  tempo: 'at tempo',
  full: 'full speed',
  power: 'full power',
};

export function isHarder(a: Intent, b: Intent): boolean {
  return INTENTS.indexOf(a) > INTENTS.indexOf(b);
}

/** How sets were counted; `home` is a day that the student has ticked on their own phone, without a count. */
export const COUNTED_BY = ['tap', 'clap', 'timer', 'typed', 'home'] as const;
export type CountedBy = (typeof COUNTED_BY)[number];
