/**
 * What only the coach's eye can judge, part by part: it drives the strike, is neutral, or drags.
 * No film is read for these; the coach's word is kept with the strike.
 */
import { z } from 'zod';
import { CHAIN, type Link, type Technique } from '../../foundation/technique/techniques';

export const SAYS = ['drives', 'neutral', 'drags'] as const;
export type Says = (typeof SAYS)[number];

const checkSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** What it looks like when it drives, and when it drags. */
  well: z.string(),
  badly: z.string(),
  /** The link of the chain whose measured verdict fills it in, where there is one. */
  link: z.enum(CHAIN).nullable().default(null),
  /** Families of techniques that have it; all when not given. */
  families: z.array(z.enum(['straight', 'hook', 'uppercut', 'elbow', 'kick'])).optional(),
  /** A matter of getting hurt: it is asked for first. */
  injury: z.boolean().default(false),
});

export type Check = z.infer<typeof checkSchema>;

export const CHECKS = z.array(checkSchema).parse([
  {
    id: 'back-foot',
    name: 'Back foot',
    well: 'pushes off its ball',
    badly: 'stays flat or slides',
  },
  { id: 'back-ankle', name: 'Back ankle', well: 'springy', badly: 'locked' },
  {
    id: 'back-knee',
    name: 'Back knee',
    well: 'bent, turns in with the hip',
    badly: 'straight or left behind',
  },
  { id: 'back-hip', name: 'Back hip', well: 'comes through', badly: 'stays back', link: 'pelvis' },
  { id: 'front-foot', name: 'Front foot', well: 'nails the floor', badly: 'swivels', link: 'feet' },
  { id: 'front-ankle', name: 'Front ankle', well: 'holds', badly: 'rolls' },
  {
    id: 'front-knee',
    name: 'Front knee',
    well: 'posts',
    badly: 'gives or falls in',
    link: 'knees',
  },
  { id: 'front-hip', name: 'Front hip', well: 'makes room', badly: 'blocks' },
  { id: 'lower-back', name: 'Lower back', well: 'long', badly: 'hollow' },
  { id: 'upper-back', name: 'Upper back', well: 'wide', badly: 'hunched', link: 'trunk' },
  { id: 'lower-abs', name: 'Lower abs', well: 'tight at contact', badly: 'slack' },
  { id: 'upper-abs', name: 'Upper abs', well: 'pull the ribs round', badly: 'lift the chest' },
  { id: 'breath', name: 'Breath', well: 'out at contact', badly: 'held' },
  {
    id: 'shoulders',
    name: 'Shoulders',
    well: 'loose until they go',
    badly: 'hunched before',
    link: 'shoulder',
  },
  { id: 'elbows', name: 'Elbows', well: 'on the line', badly: 'winged', link: 'elbow' },
  { id: 'wrists', name: 'Wrists', well: 'one straight bone', badly: 'broken', link: 'fist' },
  {
    id: 'fingers',
    name: 'Fingers',
    well: 'loose, then tight at contact',
    badly: 'clenched or open all the way',
  },
  { id: 'neck', name: 'Neck', well: 'loose, chin down', badly: 'stiff, chin up' },
  { id: 'face', name: 'Face', well: 'quiet', badly: 'grimacing' },
  { id: 'head', name: 'Head', well: 'carried on the spine', badly: 'thrown' },
  { id: 'gaze', name: 'Gaze', well: 'on the target', badly: 'on the floor or the own hand' },
  {
    id: 'knuckles',
    name: 'Knuckles',
    well: 'the knuckles of the school land',
    badly: 'the little-finger side or the palm',
    families: ['straight', 'hook', 'uppercut'],
    injury: true,
  },
  {
    id: 'kicking-knee',
    name: 'Kicking knee',
    well: 'stops with a bend left, or in the target',
    badly: 'snaps straight in the air',
    families: ['kick'],
    injury: true,
  },
  {
    id: 'toes',
    name: 'Toes',
    well: 'drawn back, ball, heel or shin lands',
    badly: 'toes or bare instep land',
    families: ['kick'],
    injury: true,
  },
  {
    id: 'palm-in',
    name: 'Palm in',
    well: 'the palm faces in, the muscle of the forearm lands',
    badly: 'the palm faces out',
    families: ['elbow'],
    injury: true,
  },
  {
    id: 'nerve-side',
    name: 'Nerve side',
    well: 'the nerve side of the elbow is kept off the target',
    badly: 'it lands',
    families: ['elbow'],
    injury: true,
  },
] satisfies z.input<typeof checkSchema>[]);

/** Under which the coach's word on a whole leak is kept: it is there (`drags`), or it is not (`drives`). */
export const leakKey = (fault: string) => `leak:${fault}`;

/** The coach's word on some checks, by their ids, and on leaks that no camera could tell, by `leakKey`. */
export type Audit = Readonly<Partial<Record<string, Says>>>;

export const auditSchema = z.record(
  z
    .string()
    .max(80)
    .refine((key) => checkById(key) !== undefined || /^leak:[a-z-]+$/.test(key), 'is no check'),
  z.enum(SAYS),
);

/** Checks that a technique has, those about getting hurt first. */
export function checksFor({ family }: Technique): readonly Check[] {
  const own = CHECKS.filter(({ families }) => !families || families.includes(family));
  return [...own.filter(({ injury }) => injury), ...own.filter(({ injury }) => !injury)];
}

export function checkById(id: string): Check | undefined {
  return CHECKS.find((check) => check.id === id);
}

/**
 * The audit of a strike before the coach has looked: measured links give their own word.
 *
 * @param links verdicts of the chain, where they are known
 */
export function prefilled(
  technique: Technique,
  links: Readonly<Partial<Record<Link, { readonly verdict: Says }>>>,
): Audit {
  return Object.fromEntries(
    checksFor(technique).flatMap(({ id, link }) => {
      const verdict = link && links[link]?.verdict;
      return verdict ? [[id, verdict]] : [];
    }),
  );
}
