/** Leaks of power, as data. Adding one is adding a row and its test. */
import { z } from 'zod';
import { CHAIN, TECHNIQUES } from '../technique/catalogue';
import { MEASURE_IDS } from '../measures/catalogue';
import { PHASES } from '../events/phases';

const phaseIds = PHASES.map((phase) => phase.id);

const limitSchema = z.object({
  reading: z.enum(MEASURE_IDS),
  /** The leak is on the far side of `value`; `outside` compares the size without its sign. */
  is: z.enum(['below', 'above', 'outside']),
  /** In the reading's own SI unit. */
  value: z.number(),
  /** Within this distance beyond the limit the leak costs nothing worth naming. */
  slack: z.number().nonnegative().default(0),
  /** A second witness: heard when the view shows it, not waited for when it does not. */
  ifShown: z.boolean().default(false),
});

const faultSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string(),
  /** The leak as a sentence, for the head of a page. */
  headline: z.string(),
  techniques: z.array(z.enum(TECHNIQUES.map((technique) => technique.id))).min(1),
  link: z.enum(CHAIN),
  phase: z.enum(phaseIds),
  injury: z.boolean().default(false),
  /** All must be beyond their limits. The first one is quoted with the finding. */
  limits: z.array(limitSchema).min(1),
  /** `{id}` is the reading with ±, `{id:order}` a lead in words, `{limit}` the first limit. */
  evidence: z.string(),
  /** What the coach is told when the reading is on the right side of the limit. */
  clear: z.string(),
  why: z.string(),
  cue: z.string(),
  drill: z.string(),
  caution: z.string().optional(),
});

export type Fault = z.infer<typeof faultSchema>;
export type Limit = z.infer<typeof limitSchema>;

const degrees = (value: number) => (value * Math.PI) / 180;
const straights = TECHNIQUES.filter((t) => t.family === 'straight').map((t) => t.id);
const hooks = TECHNIQUES.filter((t) => t.family === 'hook').map((t) => t.id);
const punches = TECHNIQUES.filter((t) => t.end === 'fist');
const hipsLed = punches.filter((t) => t.hipsLead).map((t) => t.id);
const all = punches.map((t) => t.id);

export const FAULTS: readonly Fault[] = z.array(faultSchema).parse([
  {
    id: 'all-at-once',
    name: 'All at once',
    headline: 'Hips and trunk leave together.',
    techniques: hipsLed,
    link: 'trunk',
    phase: 'explode',
    limits: [
      { reading: 'lead.hipsTrunk', is: 'below', value: 0.02 },
      { reading: 'separation.growth', is: 'below', value: degrees(5), ifShown: true },
    ],
    evidence:
      'The trunk starts {lead.hipsTrunk:order} the hips. A stretch across the body needs {limit} or more.',
    clear: 'The hips lead the trunk by {lead.hipsTrunk}.',
    why: 'Without the hips ahead, the muscles across the body are never stretched, and the trunk throws alone.',
    cue: 'Hips leave first; the hand is late on purpose.',
    drill: 'Slow three-count: hips, trunk, hand',
  },
  {
    id: 'arm-first',
    name: 'Arm first',
    headline: 'The hand leaves before the hips.',
    techniques: hipsLed,
    link: 'fist',
    phase: 'explode',
    limits: [{ reading: 'lead.hipsArm', is: 'below', value: 0, slack: 0.01 }],
    evidence: 'The hand leaves {lead.hipsArm:order} the hips.',
    clear: 'The hand leaves {lead.hipsArm:order} the hips.',
    why: 'A hand that has left cannot be pushed by the hips; it lands with the weight of the arm.',
    cue: 'Hand waits for the hip.',
    drill: 'Hand on the wall of the guard; the hips call it',
  },
  {
    id: 'jammed',
    name: 'Jammed',
    headline: 'Too close for this punch.',
    techniques: straights,
    link: 'elbow',
    phase: 'accelerate',
    limits: [{ reading: 'reach', is: 'below', value: 0.85 }],
    evidence: 'Contact at {reach} of the arm’s own reach. A straight needs {limit} or more.',
    clear: 'Contact at {reach} of the arm’s own reach.',
    why: 'Too close for this punch: it lands before the chain has got to the fist.',
    cue: 'Pick the shorter one.',
    drill: 'Range ladder: the same target at four distances',
  },
  {
    id: 'elbow-flare',
    name: 'Elbow leaves the line',
    headline: 'The elbow swings off the line.',
    techniques: straights,
    link: 'elbow',
    phase: 'accelerate',
    limits: [{ reading: 'flare', is: 'above', value: 0.1 }],
    evidence: 'The elbow swings {flare} outside the shoulder on the way out. {limit} is the limit.',
    clear: 'The elbow stays within {flare} of the line.',
    why: 'What goes sideways does not go to the target, and the turn of the elbow is seen early.',
    cue: 'Slide the elbow past your ribs.',
    drill: 'Wall-side jab and cross',
  },
  {
    id: 'slap',
    name: 'Slap',
    headline: 'The hook gives way as it lands.',
    techniques: hooks,
    link: 'elbow',
    phase: 'accelerate',
    limits: [{ reading: 'elbow.drift', is: 'outside', value: degrees(15) }],
    evidence:
      'The elbow changes by {elbow.drift} in the last 80 ms. More than {limit} either way is a slap.',
    clear: 'The elbow holds: {elbow.drift} in the last 80 ms.',
    why: 'An elbow that opens or closes as it lands gives way instead of passing on the turn of the body.',
    cue: 'Set the angle, then bring the body.',
    drill: 'Freeze-frame hooks',
  },
  {
    id: 'slow-home',
    name: 'Slow home',
    headline: 'The hand comes home late.',
    techniques: all,
    link: 'fist',
    phase: 'recover',
    limits: [{ reading: 'recoil', is: 'above', value: 1.2 }],
    evidence: 'The way home takes {recoil} of the way out. {limit} is the limit.',
    clear: 'The way home takes {recoil} of the way out.',
    why: 'A hand still out there guards nothing, and the next strike has nothing to leave from.',
    cue: 'Back as fast as out.',
    drill: 'Echo drill: partner claps, hand is home before the echo',
  },
] satisfies z.input<typeof faultSchema>[]);

export function faultById(id: string): Fault | undefined {
  return FAULTS.find((fault) => fault.id === id);
}
