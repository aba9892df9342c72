/** What a drill or a part of a session asks of a body beyond moving: by it is decided who leaves it out. */

export const DEMANDS = ['impact', 'hold', 'weights', 'rotation', 'twist'] as const;
export type Demand = (typeof DEMANDS)[number];

export const DEMAND_NAMES: Readonly<Record<Demand, string>> = {
  impact: 'hits something',
  hold: 'holds against a wall',
  weights: 'a band or a weight in the hand',
  rotation: 'turns of the trunk',
  twist: 'a foot pressed flat while the body turns',
};

/** What is said beside it, wherever it is given. */
export const CAUTIONS: Readonly<Record<Demand, string>> = {
  impact: 'Hands wrapped, gloves on. On posts and walls: touch only.',
  hold: 'Breathe out slowly through each hold, never with held breath. Adults only.',
  weights: 'Never snap a weight or a band to a straight arm.',
  rotation: 'Only as far as it is free of pain. Not with a note on neck or back.',
  twist: 'Knee over toes; stop at a twinge. A foot pressed flat loads the knee as the body turns.',
};
