/** Which model looks: the slower, the more exact. */
export const MODELS = ['quick', 'standard', 'fine'] as const;
export type Model = (typeof MODELS)[number];
