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
  /** What to look for; what to answer when it is not so stands behind the dash. */
  asks: z.string(),
  /** The link of the chain whose measured verdict fills it in, where there is one. */
  link: z.enum(CHAIN).nullable().default(null),
  /** Families of techniques that have it; all when not given. */
  families: z.array(z.enum(['straight', 'hook', 'uppercut', 'elbow', 'kick'])).optional(),
  /** A matter of getting hurt: it is asked for first. */
  injury: z.boolean().default(false),
});

export type Check = z.infer<typeof checkSchema>;

export const CHECKS = z.array(checkSchema).parse([
  { id: 'back-foot', name: 'Back foot', asks: 'pushes off its ball – stays flat or slides' },
  { id: 'back-ankle', name: 'Back ankle', asks: 'springy – locked' },
  {
    id: 'back-knee',
    name: 'Back knee',
    asks: 'bent, turns in with the hip – straight or left behind',
  },
  { id: 'back-hip', name: 'Back hip', asks: 'comes through – stays back', link: 'pelvis' },
  { id: 'front-foot', name: 'Front foot', asks: 'nails the floor – swivels', link: 'feet' },
  { id: 'front-ankle', name: 'Front ankle', asks: 'holds – rolls' },
  { id: 'front-knee', name: 'Front knee', asks: 'posts – gives or falls in', link: 'knees' },
  { id: 'front-hip', name: 'Front hip', asks: 'makes room – blocks' },
  { id: 'lower-back', name: 'Lower back', asks: 'long – hollow' },
  { id: 'upper-back', name: 'Upper back', asks: 'wide – hunched', link: 'trunk' },
  { id: 'lower-abs', name: 'Lower abs', asks: 'tight at contact – slack' },
  { id: 'upper-abs', name: 'Upper abs', asks: 'pull the ribs round – lift the chest' },
  { id: 'breath', name: 'Breath', asks: 'out at contact – held' },
  {
    id: 'shoulders',
    name: 'Shoulders',
    asks: 'loose until they go – hunched before',
    link: 'shoulder',
  },
  { id: 'elbows', name: 'Elbows', asks: 'on the line – winged', link: 'elbow' },
  { id: 'wrists', name: 'Wrists', asks: 'one straight bone – broken', link: 'fist' },
  {
    id: 'fingers',
    name: 'Fingers',
    asks: 'loose, then tight at contact – clenched or open all the way',
  },
  { id: 'neck', name: 'Neck', asks: 'loose, chin down – stiff, chin up' },
  { id: 'face', name: 'Face', asks: 'quiet – grimacing' },
  { id: 'head', name: 'Head', asks: 'rides on the spine – thrown' },
  { id: 'gaze', name: 'Gaze', asks: 'on the target – on the floor or the own hand' },
  {
    id: 'knuckles',
    name: 'Knuckles',
    asks: 'the knuckles of the school land – the little-finger side or the palm',
    families: ['straight', 'hook', 'uppercut'],
    injury: true,
  },
  {
    id: 'palm-in',
    name: 'Palm in',
    asks: 'the palm faces in, the muscle of the forearm lands – the palm faces out',
    families: ['elbow'],
    injury: true,
  },
  {
    id: 'nerve-side',
    name: 'Nerve side',
    asks: 'the nerve side of the elbow is kept off the target – it lands',
    families: ['elbow'],
    injury: true,
  },
] satisfies z.input<typeof checkSchema>[]);

/** The coach's word on some checks, by their ids. */
export type Audit = Readonly<Partial<Record<string, Says>>>;

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
