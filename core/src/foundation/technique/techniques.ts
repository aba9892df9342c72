/** The strikes Sinew knows, as data. Lead and rear are relative to the stance. */
import { z } from 'zod';

export const VIEWS = ['side', 'front', 'behind', 'above'] as const;
export type View = (typeof VIEWS)[number];

/** Every link there is, from the ground to the striking end; a technique uses some of them. */
export const CHAIN = [
  'feet',
  'knees',
  'pelvis',
  'trunk',
  'thigh',
  'shoulder',
  'shank',
  'elbow',
  'fist',
  'foot',
] as const;
export type Link = (typeof CHAIN)[number];

export const techniqueSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string(),
  family: z.enum(['straight', 'hook', 'uppercut', 'elbow', 'kick']),
  /** The side that strikes, relative to the stance. */
  hand: z.enum(['lead', 'rear', 'either']),
  /** What arrives: the middle of the two outer knuckles, a joint, or a part of the foot. */
  end: z.enum(['fist', 'elbow', 'knee', 'ball', 'instep', 'heel']),
  /** What the start of the hips is read off: their turn, or the way the pelvis goes. */
  start: z.enum(['turn', 'rise', 'drop', 'thrust']),
  /** Whether the striking side comes forward as the body turns, or goes back. */
  turns: z.enum(['forward', 'back']),
  /** The direction along which speed counts: the line to the target, or the end's own path. */
  along: z.enum(['target', 'path']),
  /** Whether hips are expected to start the strike (a jab lives from the push of the rear foot). */
  hipsLead: z.boolean(),
  /** Links of the chain, from the ground to the striking end. */
  chain: z.array(z.enum(CHAIN)),
  /** Single views in which the bend of the striking elbow or knee lies in the picture plane. */
  bendViews: z.array(z.enum(VIEWS)),
  /** Single views that hardly shorten the way of a strike along its own path. */
  pathViews: z.array(z.enum(VIEWS)),
});

export type Technique = z.infer<typeof techniqueSchema>;

const PUNCH = {
  end: 'fist',
  start: 'turn',
  turns: 'forward',
  along: 'target',
  hipsLead: true,
  chain: ['feet', 'knees', 'pelvis', 'trunk', 'shoulder', 'elbow', 'fist'],
  // Seen from above the elbow hangs below the line from shoulder to fist, and looks straight.
  bendViews: ['side'],
  pathViews: [],
} satisfies Partial<Technique>;
const STRAIGHT = { ...PUNCH, family: 'straight' } satisfies Partial<Technique>;
const HOOK = {
  ...PUNCH,
  family: 'hook',
  along: 'path',
  bendViews: ['above'],
  pathViews: ['above'],
} satisfies Partial<Technique>;
const UPPERCUT = {
  ...PUNCH,
  family: 'uppercut',
  start: 'rise',
  along: 'path',
  bendViews: ['side'],
} satisfies Partial<Technique>;
const ELBOW = {
  ...PUNCH,
  family: 'elbow',
  hand: 'either',
  end: 'elbow',
  along: 'path',
  chain: ['feet', 'knees', 'pelvis', 'trunk', 'shoulder'],
  bendViews: [],
} satisfies Partial<Technique>;
const KICK = {
  ...PUNCH,
  family: 'kick',
  hand: 'either',
  chain: ['feet', 'knees', 'pelvis', 'thigh', 'shank', 'foot'],
  bendViews: ['side'],
} satisfies Partial<Technique>;

export const TECHNIQUES: readonly Technique[] = z.array(techniqueSchema).parse([
  { ...STRAIGHT, id: 'jab', name: 'Jab', hand: 'lead', hipsLead: false },
  { ...STRAIGHT, id: 'cross', name: 'Cross', hand: 'rear' },
  { ...HOOK, id: 'lead-hook', name: 'Lead hook', hand: 'lead' },
  { ...HOOK, id: 'rear-hook', name: 'Rear hook', hand: 'rear' },
  { ...UPPERCUT, id: 'lead-uppercut', name: 'Lead uppercut', hand: 'lead' },
  { ...UPPERCUT, id: 'rear-uppercut', name: 'Rear uppercut', hand: 'rear' },
  { ...HOOK, id: 'lead-body-hook', name: 'Lead body hook', hand: 'lead' },
  { ...HOOK, id: 'rear-body-hook', name: 'Rear body hook', hand: 'rear' },
  { ...STRAIGHT, id: 'stepping-straight', name: 'Stepping straight', hand: 'either' },
  { ...STRAIGHT, id: 'whip-straight', name: 'Whip straight', hand: 'either' },
  { ...STRAIGHT, id: 'chambered-straight', name: 'Chambered straight', hand: 'either' },
  { ...ELBOW, id: 'elbow-round', name: 'Round elbow' },
  { ...ELBOW, id: 'elbow-reverse', name: 'Reverse elbow', turns: 'back' },
  { ...ELBOW, id: 'elbow-rise', name: 'Rising elbow', start: 'rise' },
  { ...ELBOW, id: 'elbow-drop', name: 'Dropping elbow', start: 'drop' },
  { ...ELBOW, id: 'elbow-up', name: 'Uppercut elbow', start: 'rise' },
  { ...ELBOW, id: 'elbow-thrust', name: 'Thrust elbow', start: 'thrust', along: 'target' },
  { ...ELBOW, id: 'elbow-spin', name: 'Spinning elbow', turns: 'back' },
  { ...KICK, id: 'front-kick', name: 'Front kick', end: 'ball', start: 'thrust' },
  { ...KICK, id: 'round-kick', name: 'Round kick', end: 'instep', along: 'path', bendViews: [] },
  { ...KICK, id: 'side-kick', name: 'Side kick', end: 'heel', bendViews: [] },
  {
    ...KICK,
    id: 'knee-strike',
    name: 'Knee',
    end: 'knee',
    start: 'thrust',
    along: 'path',
    chain: ['feet', 'knees', 'pelvis', 'thigh'],
    pathViews: ['side'],
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

/** What strikes, in a word: "hand", "elbow" or "leg". */
export function strikingLimb({ family }: Technique): 'hand' | 'elbow' | 'leg' {
  return family === 'kick' ? 'leg' : family === 'elbow' ? 'elbow' : 'hand';
}

/** The axis without which a technique's path cannot be seen in a single picture. */
export function pathAxis({ along, family, start }: Technique): 'toward' | 'up' | 'right' {
  if (along === 'target') return 'toward';
  return family === 'hook' || start === 'turn' ? 'right' : 'up';
}
