/**
 * What only the coach's eye can judge, part by part: it drives the strike, is neutral, or drags.
 * No film is read for these; the coach's word is kept with the strike.
 */
import { z } from 'zod';
import { CHAIN, type Link, type Technique } from '../../foundation/technique/techniques';

export const SAYS = ['drives', 'neutral', 'drags'] as const;
export type Says = (typeof SAYS)[number];

/** Parts of the body in the order of the chain, and what is said of each. */
export const GROUPS = {
  ground: 'Ground',
  middle: 'Middle',
  top: 'Top',
  head: 'Head and breath',
} as const;
export type Group = keyof typeof GROUPS;

const checkSchema = z.object({
  id: z.string(),
  group: z.enum(['ground', 'middle', 'top', 'head']),
  name: z.string(),
  /** What it looks like when it drives, and when it drags. */
  well: z.string(),
  badly: z.string(),
  /** The link of the chain whose measured verdict fills it in, where there is one. */
  link: z.enum(CHAIN).nullable().default(null),
  /** Families of techniques that have it; all when not given. */
  families: z.array(z.enum(['straight', 'hook', 'uppercut', 'elbow', 'kick'])).optional(),
  /** The leak that it decides where no measurement can tell. */
  decides: z.string().optional(),
  /** Only of strikes of the rear hand: of the lead hand's the foot turns and the knee gives on purpose. */
  isOfRear: z.boolean().default(false),
  /** A matter of getting hurt: it is asked for first. */
  injury: z.boolean().default(false),
});

export type Check = z.infer<typeof checkSchema>;

export const CHECKS = z.array(checkSchema).parse([
  {
    id: 'back-foot',
    group: 'ground',
    name: 'Back foot',
    well: 'pushes off its ball',
    badly: 'stays flat or slides',
  },
  { id: 'back-ankle', group: 'ground', name: 'Back ankle', well: 'springy', badly: 'locked' },
  {
    id: 'back-knee',
    group: 'ground',
    name: 'Back knee',
    well: 'bent, turns in with the hip',
    badly: 'straight or left behind',
  },
  {
    id: 'back-hip',
    decides: 'arm-only',
    isOfRear: true,
    group: 'middle',
    name: 'Back hip',
    well: 'comes through',
    badly: 'stays back',
    link: 'pelvis',
  },
  {
    id: 'front-foot',
    decides: 'anchor-swivel',
    isOfRear: true,
    group: 'ground',
    name: 'Front foot',
    well: 'nails the floor',
    badly: 'swivels',
    link: 'feet',
  },
  { id: 'front-ankle', group: 'ground', name: 'Front ankle', well: 'holds', badly: 'rolls' },
  {
    id: 'front-knee',
    decides: 'knee-gives',
    isOfRear: true,
    group: 'ground',
    name: 'Front knee',
    well: 'posts',
    badly: 'gives or falls in',
    link: 'knees',
  },
  {
    id: 'front-hip',
    decides: 'hips-blocked',
    group: 'middle',
    name: 'Front hip',
    well: 'makes room',
    badly: 'blocks',
  },
  { id: 'lower-back', group: 'middle', name: 'Lower back', well: 'long', badly: 'hollow' },
  {
    id: 'upper-back',
    group: 'middle',
    name: 'Upper back',
    well: 'wide',
    badly: 'hunched',
    link: 'trunk',
  },
  { id: 'lower-abs', group: 'middle', name: 'Lower abs', well: 'tight at contact', badly: 'slack' },
  {
    id: 'upper-abs',
    group: 'middle',
    name: 'Upper abs',
    well: 'pull the ribs round',
    badly: 'lift the chest',
  },
  { id: 'breath', group: 'head', name: 'Breath', well: 'out at contact', badly: 'held' },
  {
    id: 'shoulders',
    group: 'top',
    name: 'Shoulders',
    well: 'loose until they go',
    badly: 'hunched before',
    link: 'shoulder',
  },
  {
    id: 'elbows',
    decides: 'elbow-flare',
    group: 'top',
    name: 'Elbows',
    well: 'on the line',
    badly: 'winged',
    link: 'elbow',
  },
  {
    id: 'wrists',
    decides: 'wrist-bent',
    group: 'top',
    name: 'Wrists',
    well: 'one straight bone',
    badly: 'broken',
    link: 'fist',
  },
  {
    id: 'fingers',
    group: 'top',
    name: 'Fingers',
    well: 'loose, then tight at contact',
    badly: 'clenched or open all the way',
  },
  { id: 'neck', group: 'head', name: 'Neck', well: 'loose, chin down', badly: 'stiff, chin up' },
  { id: 'face', group: 'head', name: 'Face', well: 'quiet', badly: 'grimacing' },
  {
    id: 'head',
    decides: 'head-whip',
    group: 'head',
    name: 'Head',
    well: 'carried on the spine',
    badly: 'thrown',
  },
  {
    id: 'gaze',
    group: 'head',
    name: 'Gaze',
    well: 'on the target',
    badly: 'on the floor or the own hand',
  },
  {
    id: 'knuckles',
    group: 'top',
    name: 'Knuckles',
    well: 'the knuckles of the school land',
    badly: 'the little-finger side or the palm',
    families: ['straight', 'hook', 'uppercut'],
    injury: true,
  },
  {
    id: 'kicking-knee',
    group: 'ground',
    name: 'Kicking knee',
    well: 'stops with a bend left, or in the target',
    badly: 'snaps straight in the air',
    families: ['kick'],
    injury: true,
  },
  {
    id: 'toes',
    group: 'ground',
    name: 'Toes',
    well: 'drawn back, ball, heel or shin lands',
    badly: 'toes or bare instep land',
    families: ['kick'],
    injury: true,
  },
  {
    id: 'palm-in',
    group: 'top',
    name: 'Palm in',
    well: 'the palm faces in, the muscle of the forearm lands',
    badly: 'the palm faces out',
    families: ['elbow'],
    injury: true,
  },
  {
    id: 'nerve-side',
    group: 'top',
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

/** From the ground up, and from the shoulders down. */
const ORDERS: Readonly<Record<string, readonly Group[]>> = {
  'ground-up': ['ground', 'middle', 'top', 'head'],
  'top-down': ['top', 'middle', 'ground', 'head'],
};

/**
 * Checks that a technique has, those about getting hurt first, then in the order in which the body is read.
 *
 * @param order a choice of the school `readingOrder`
 */
export function checksFor({ family }: Technique, order = 'ground-up'): readonly Check[] {
  const own = CHECKS.filter(({ families }) => !families || families.includes(family));
  const inOrder = (ORDERS[order] ?? ORDERS['ground-up']!).flatMap((group) =>
    own.filter((check) => !check.injury && check.group === group),
  );
  return [...own.filter(({ injury }) => injury), ...inOrder];
}

/** Whether a check decides something in a technique. */
export const isDeciding = ({ decides, isOfRear }: Check, { hand }: Technique) =>
  decides !== undefined && (!isOfRear || hand === 'rear');

/** The coach's word on a leak: on the leak itself, else by the check that decides it; none while neutral. */
export function wordOn(fault: string, technique: Technique, audit: Audit): Says | undefined {
  const own = audit[leakKey(fault)];
  if (own) return own;
  const check = CHECKS.find((one) => one.decides === fault && isDeciding(one, technique));
  const said = check && audit[check.id];
  return said === 'neutral' ? undefined : said;
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
