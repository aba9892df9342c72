/** The strikes Sinew knows, as data. Lead and rear are relative to the stance. */
import { z } from 'zod';

export const VIEWS = ['side', 'front', 'behind', 'above'] as const;
export type View = (typeof VIEWS)[number];

const techniqueSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string(),
  family: z.enum(['straight', 'hook', 'uppercut']),
  /** The hand that strikes, relative to the stance. */
  hand: z.enum(['lead', 'rear']),
  /** Whether hips are expected to start the strike (a jab lives from the push of the rear foot). */
  hipsLead: z.boolean(),
  /** Links of the chain, from the ground to the striking end. */
  chain: z.array(z.enum(['feet', 'knees', 'pelvis', 'trunk', 'shoulder', 'elbow', 'fist'])),
  /** Single views in which the elbow's bend lies in the picture plane at contact. */
  elbowViews: z.array(z.enum(VIEWS)),
});

export type Technique = z.infer<typeof techniqueSchema>;
export type Link = Technique['chain'][number];

export const CHAIN: readonly Link[] = [
  'feet',
  'knees',
  'pelvis',
  'trunk',
  'shoulder',
  'elbow',
  'fist',
];

const chain = [...CHAIN];

export const TECHNIQUES: readonly Technique[] = z.array(techniqueSchema).parse([
  {
    id: 'jab',
    name: 'Jab',
    family: 'straight',
    hand: 'lead',
    hipsLead: false,
    chain,
    elbowViews: ['side', 'above'],
  },
  {
    id: 'cross',
    name: 'Cross',
    family: 'straight',
    hand: 'rear',
    hipsLead: true,
    chain,
    elbowViews: ['side', 'above'],
  },
  {
    id: 'lead-hook',
    name: 'Lead hook',
    family: 'hook',
    hand: 'lead',
    hipsLead: true,
    chain,
    elbowViews: ['above'],
  },
  {
    id: 'rear-hook',
    name: 'Rear hook',
    family: 'hook',
    hand: 'rear',
    hipsLead: true,
    chain,
    elbowViews: ['above'],
  },
  {
    id: 'lead-uppercut',
    name: 'Lead uppercut',
    family: 'uppercut',
    hand: 'lead',
    hipsLead: true,
    chain,
    elbowViews: ['side'],
  },
  {
    id: 'rear-uppercut',
    name: 'Rear uppercut',
    family: 'uppercut',
    hand: 'rear',
    hipsLead: true,
    chain,
    elbowViews: ['side'],
  },
] satisfies Technique[]);

/** @throws RangeError naming the ids there are */
export function techniqueById(id: string): Technique {
  const found = TECHNIQUES.find((technique) => technique.id === id);
  if (!found) {
    const known = TECHNIQUES.map((technique) => technique.id).join(', ');
    throw new RangeError(`There is no technique "${id}". Known: ${known}.`);
  }
  return found;
}
