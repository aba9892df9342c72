import type { EventName } from './events';

/** The four phases of a strike and the way home, each between two events. */
export const PHASES = [
  { id: 'load', name: 'Load', from: 'load', to: 'hips' },
  { id: 'explode', name: 'Explode', from: 'hips', to: 'trunk' },
  { id: 'accelerate', name: 'Accelerate', from: 'trunk', to: 'contact' },
  { id: 'follow-through', name: 'Follow-through', from: 'contact', to: 'end' },
  { id: 'recover', name: 'Recover', from: 'end', to: 'home' },
] as const satisfies readonly { id: string; name: string; from: EventName; to: EventName }[];

export type PhaseId = (typeof PHASES)[number]['id'];
