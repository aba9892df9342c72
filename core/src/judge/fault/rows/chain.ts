/** Faults in the order and the shares of the chain: hips, trunk, arm. */
import type { FaultRow } from '../schema';
import {
  degrees,
  HIPS_LED,
  HOOKS,
  PUNCHES,
  STRAIGHTS,
  TURNING_ELBOWS,
  UPPERCUTS,
  without,
} from './sets';

/**
 * Hips that hardly work have no start to speak of: that is another fault, and their order is none.
 * Seen in the way in which each strike's hips work.
 */
const HIPS_WORK = [
  {
    id: 'turned',
    techniques: without(HIPS_LED, ...UPPERCUTS),
    witness: { reading: 'turn.pelvis', is: 'above', value: degrees(15), onlyClears: true } as const,
  },
  {
    id: 'uppercut',
    techniques: UPPERCUTS,
    witness: { reading: 'drop.height', is: 'below', value: -0.015, onlyClears: true } as const,
  },
];

export const CHAIN_FAULTS: readonly FaultRow[] = [
  {
    id: 'arm-only',
    name: 'Arm alone',
    headline: 'The arm does it alone.',
    techniques: [...without(PUNCHES, 'whip-straight', 'stepping-straight'), ...TURNING_ELBOWS],
    link: 'pelvis',
    phase: 'explode',
    cases: [
      {
        id: 'turned',
        techniques: [...without(HIPS_LED, 'whip-straight', 'stepping-straight')],
        when: { hipAction: ['turn-through'] },
        limits: [
          { reading: 'turn.pelvis', is: 'below', value: degrees(10) },
          { reading: 'portion.body', is: 'below', value: 0.2, onlyClears: true },
        ],
        evidence:
          'The pelvis turns {turn.pelvis} to contact. {limit} is the least for a strike that the body throws.',
        clear: 'The pelvis turns {turn.pelvis} to contact.',
      },
      {
        id: 'jab',
        techniques: ['jab'],
        when: { jabHips: ['slight'] },
        limits: [
          { reading: 'turn.pelvis', is: 'below', value: degrees(4) },
          { reading: 'portion.body', is: 'below', value: 0.1, onlyClears: true },
        ],
        evidence: 'The pelvis turns {turn.pelvis} to contact. {limit} is the least, even in a jab.',
        clear: 'The pelvis turns {turn.pelvis} to contact.',
      },
    ],
    why: 'An arm weighs a twentieth of the body; what it throws alone is light.',
    cue: 'Let your belt buckle throw it.',
    drill: 'feet-to-hips',
    remedy: 'full-turn',
  },
  {
    id: 'all-at-once',
    name: 'All at once',
    headline: 'Hips and trunk leave together.',
    techniques: HIPS_LED,
    link: 'trunk',
    phase: 'explode',
    cases: HIPS_WORK.flatMap(({ id, techniques, witness }) => [
      {
        id,
        techniques,
        when: { order: ['hips-first'] },
        limits: [
          { reading: 'lead.hipsTrunk', is: 'below', value: 0.02 } as const,
          {
            reading: 'separation.growth',
            is: 'below',
            value: degrees(5),
            onlyClears: true,
          } as const,
          witness,
        ],
        evidence:
          'The trunk starts {lead.hipsTrunk:order} the hips. A stretch across the body needs {limit} or more.',
        clear: 'The hips lead the trunk by {lead.hipsTrunk}.',
      },
      {
        id: `${id}-half-way`,
        techniques,
        when: { order: ['hips-first'] },
        standsInFor: id,
        // Sinew's own: where both links turn alike it is the lead of their starts; a stretch makes it longer, a trunk
        // that catches up by contact shorter. Of made-up bodies whose starts lie 27 to 52 ms apart it was 8 to 28 ms.
        limits: [
          { reading: 'lead.half', is: 'below', value: 0.02, strays: 0.012 } as const,
          witness,
        ],
        evidence:
          'The trunk is half-way through its turn {lead.half:order} the hips. A stretch across the body needs {limit} or more.',
        clear: 'Half-way through the turn the hips lead the trunk by {lead.half}.',
      },
    ]),
    why: 'Without the hips ahead, the muscles across the body are never stretched, and the trunk throws alone.',
    cue: 'Hips leave first; the hand is late on purpose.',
    drill: 'three-count',
    remedy: 'in-order',
  },
  {
    id: 'falls-apart',
    name: 'Falls apart',
    headline: 'The hips leave alone.',
    techniques: HIPS_LED,
    link: 'trunk',
    phase: 'explode',
    cases: HIPS_WORK.map(({ id, techniques, witness }) => ({
      id,
      techniques,
      when: { order: ['together'] },
      // Sinew's own starting value.
      limits: [{ reading: 'lead.hipsTrunk', is: 'above', value: 0.03 } as const, witness],
      evidence:
        'The hips lead the trunk by {lead.hipsTrunk}. {limit} is the most where all leaves together.',
      clear: 'The trunk starts {lead.hipsTrunk:order} the hips.',
    })),
    why: 'Where the whole body is to hit as one piece, hips that leave alone arrive alone.',
    cue: 'Everything at once.',
    drill: 'feet-to-hips',
  },
  {
    id: 'jab-hand-first',
    name: 'Hand before shoulder',
    headline: 'The hand leaves before the shoulder.',
    techniques: ['jab'],
    link: 'fist',
    phase: 'explode',
    cases: [
      {
        limits: [{ reading: 'lead.trunkArm', is: 'below', value: 0, slack: 0.01 }],
        evidence: 'The hand leaves {lead.trunkArm:order} the shoulder line.',
        clear: 'The hand leaves {lead.trunkArm:order} the shoulder line.',
      },
    ],
    why: 'A jab weighs what the shoulder puts behind it; a hand that has left cannot be pushed.',
    cue: 'Shoulder throws the fist.',
    drill: 'hand-waits',
  },
  {
    id: 'arm-first',
    name: 'Arm first',
    headline: 'The hand leaves before the hips.',
    techniques: HIPS_LED,
    link: 'fist',
    phase: 'explode',
    cases: HIPS_WORK.map(({ id, techniques, witness }) => ({
      id,
      techniques,
      limits: [{ reading: 'lead.hipsArm', is: 'below', value: 0, slack: 0.01 } as const, witness],
      evidence: 'The hand leaves {lead.hipsArm:order} the hips.',
      clear: 'The hand leaves {lead.hipsArm:order} the hips.',
    })),
    why: 'A hand that has left cannot be pushed by the hips; it lands with the weight of the arm.',
    cue: 'Hand waits for the hip.',
    drill: 'hand-waits',
    remedy: 'hand-later',
  },
  {
    id: 'over-load',
    name: 'Winds up',
    headline: 'The hand draws back before it goes.',
    techniques: without(PUNCHES, 'chambered-straight'),
    link: 'fist',
    phase: 'load',
    cases: [
      {
        id: 'usual',
        techniques: without(PUNCHES, 'chambered-straight', 'stepping-straight'),
        // A hand that is properly late behind a turning trunk falls behind its shoulder and stays where it is.
        limits: [
          { reading: 'telegraph.hand', is: 'above', value: 0.05 },
          { reading: 'telegraph.back', is: 'above', value: 0.05 },
        ],
        evidence:
          'The hand draws {telegraph.hand} back from its shoulder before it goes, {telegraph.back} in the room. {limit} is the limit.',
        lasts: 'seen.back',
        clear:
          'The hand draws {telegraph.hand} back from its shoulder before it goes, {telegraph.back} in the room.',
      },
      {
        // A step carries the hand on while it draws back.
        id: 'stepping',
        techniques: ['stepping-straight'],
        limits: [{ reading: 'telegraph.hand', is: 'above', value: 0.05 }],
        evidence:
          'The hand draws {telegraph.hand} back from its shoulder before it goes. {limit} is the limit.',
        lasts: 'seen.back',
        clear: 'The hand draws {telegraph.hand} back before it goes.',
      },
    ],
    why: 'A wind-up is seen, costs time, and starts the hand before the hips.',
    cue: 'Go from where the hand is.',
    drill: 'cheek-start',
    costs: 'warning',
  },
  {
    id: 'hand-drop',
    name: 'Hand drops',
    headline: 'The hand dips before it goes.',
    techniques: without(PUNCHES, 'chambered-straight'),
    link: 'fist',
    phase: 'load',
    cases: [
      {
        limits: [{ reading: 'telegraph.dip', is: 'above', value: 0.05 }],
        evidence:
          'The hand dips {telegraph.dip} under its shoulder before it goes. {limit} is the limit.',
        lasts: 'seen.dip',
        clear: 'The hand dips {telegraph.dip} before it goes.',
      },
    ],
    why: 'A dip opens the head and takes a way that is no use.',
    cue: 'Straight out, straight home.',
    drill: 'chin-string',
    costs: 'warning',
  },
  {
    id: 'hook-scoop',
    name: 'Shoulder scoops',
    headline: 'The shoulder lifts the hook by itself.',
    techniques: HOOKS,
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'portion.scoop', is: 'above', value: 0 }],
        evidence:
          'The shoulder’s share of the speed is {portion.scoop} over the trunk’s. In a hook the trunk throws.',
        clear: 'The trunk’s share is the larger: shoulder over trunk {portion.scoop}.',
      },
    ],
    why: 'A front-shoulder scoop is small muscle doing large muscle’s work, and it tires first.',
    cue: 'Trunk throws; the shoulder stays low.',
    drill: 'loose-turns',
  },
  {
    id: 'no-counter',
    name: 'Other shoulder stays',
    headline: 'One shoulder goes and the other does not pull.',
    techniques: [...HOOKS, 'cross', 'chambered-straight'],
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'counter', is: 'below', value: 0.05 }],
        evidence: 'The other shoulder pulls back {counter}. {limit} is the least.',
        clear: 'The other shoulder pulls back {counter}.',
      },
    ],
    why: 'The trunk turns about its middle: one side goes as far as the other comes back.',
    cue: 'Pull one shoulder to send the other.',
    drill: 'pull-push',
  },
];

/** Faults of the arm on its way, at contact and home. */
export const ARM_FAULTS: readonly FaultRow[] = [
  {
    id: 'jammed',
    name: 'Jammed',
    headline: 'Too close for this punch.',
    techniques: STRAIGHTS,
    link: 'elbow',
    phase: 'accelerate',
    cases: [
      {
        id: 'straight',
        techniques: without(STRAIGHTS, 'whip-straight'),
        when: { range: ['not-said', 'middle', 'long'] },
        limits: [{ reading: 'reach', is: 'below', value: 0.85 }],
        evidence: 'Contact at {reach} of the arm’s own reach. A straight needs {limit} or more.',
        clear: 'Contact at {reach} of the arm’s own reach.',
      },
      {
        id: 'whip',
        // Its own form is short: the elbow stays a little bent.
        techniques: ['whip-straight'],
        limits: [{ reading: 'reach', is: 'below', value: 0.8 }],
        evidence: 'Contact at {reach} of the arm’s own reach. This straight needs {limit} or more.',
        clear: 'Contact at {reach} of the arm’s own reach.',
      },
    ],
    why: 'It lands before the chain has got to the fist.',
    cue: 'Too close: step back or throw short.',
    drill: 'range-ladder',
    remedy: 'to-reach',
  },
  {
    id: 'elbow-flare',
    name: 'Elbow leaves the line',
    headline: 'The elbow swings off the line.',
    // A chambered straight starts at the hip, outside the shoulder.
    techniques: without(STRAIGHTS, 'chambered-straight'),
    link: 'elbow',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'flare', is: 'above', value: 0.1 }],
        evidence:
          'The elbow swings {flare} outside the shoulder on the way out. {limit} is the limit.',
        clear: 'The elbow stays within {flare} of the line.',
      },
    ],
    why: 'What goes sideways does not go to the target, and the turn of the elbow is seen early.',
    cue: 'Slide the elbow past your ribs.',
    drill: 'wall-side',
  },
  {
    id: 'slap',
    name: 'Slap',
    headline: 'The hook gives way as it lands.',
    techniques: HOOKS,
    link: 'elbow',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'elbow.drift', is: 'outside', value: degrees(15) }],
        evidence:
          'The elbow changes by {elbow.drift} in the last 80 ms. More than {limit} either way is a slap.',
        clear: 'The elbow holds: {elbow.drift} in the last 80 ms.',
      },
    ],
    why: 'An elbow that opens or closes as it lands gives way instead of passing on the turn of the body.',
    cue: 'Set the angle, then bring the body.',
    drill: 'freeze-hooks',
    remedy: 'elbow-holds',
  },
  {
    id: 'hook-wide',
    name: 'Hook too wide',
    headline: 'The hook is wider than its range.',
    techniques: HOOKS,
    link: 'elbow',
    phase: 'accelerate',
    cases: [
      {
        id: 'close-middle',
        when: { range: ['close', 'middle'] },
        limits: [{ reading: 'elbow.contact', is: 'above', value: degrees(120) }],
        evidence:
          'The elbow is at {elbow.contact} at contact. {limit} is the most at close and middle range.',
        clear: 'The elbow is at {elbow.contact} at contact.',
      },
      {
        id: 'usual',
        when: { range: ['not-said'] },
        limits: [{ reading: 'elbow.contact', is: 'above', value: degrees(120) }],
        evidence:
          'The elbow is at {elbow.contact} at contact. {limit} is the most at close and middle range; was it thrown long, say so, and it is no leak.',
        clear: 'The elbow is at {elbow.contact} at contact.',
      },
    ],
    why: 'A wide hook is slow to arrive, is seen, and opens as it lands.',
    cue: 'Tighter hook, elbow behind the fist.',
    drill: 'freeze-hooks',
    remedy: 'drawn-in',
  },
  {
    id: 'hook-elbow-low',
    name: 'Bones not behind the knuckles',
    headline: 'Fist and forearm do not lie as this hook asks.',
    techniques: ['lead-hook', 'rear-hook'],
    link: 'elbow',
    phase: 'accelerate',
    cases: [
      {
        id: 'forearm',
        when: { hookFist: ['palm-down'] },
        limits: [{ reading: 'forearm.rise', is: 'above', value: degrees(25) }],
        evidence:
          'The forearm rises {forearm.rise} from elbow to wrist: the elbow hangs. {limit} is the most palm down.',
        clear: 'The forearm rises {forearm.rise} from elbow to wrist.',
      },
      {
        id: 'palm-down',
        when: { hookFist: ['palm-down'] },
        limits: [{ reading: 'knucklePlane', is: 'below', value: degrees(65) }],
        evidence:
          'The knuckles lie {knucklePlane} from upright. Palm down they lie {limit} or more.',
        clear: 'The knuckles lie {knucklePlane} from upright.',
      },
      {
        id: 'thumb-up',
        when: { hookFist: ['thumb-up'] },
        limits: [{ reading: 'knucklePlane', is: 'above', value: degrees(25) }],
        evidence: 'The knuckles lie {knucklePlane} from upright. Thumb up they lie within {limit}.',
        clear: 'The knuckles lie {knucklePlane} from upright.',
      },
    ],
    why: 'What lands without bone behind it bends at the wrist.',
    cue: 'Bones behind the knuckles.',
    drill: 'three-ranges',
  },
  {
    id: 'braking',
    name: 'Slows before it lands',
    headline: 'The strike brakes before it lands.',
    // A hook may be fastest as its angle is set, and of kicks no expected value is known: their speed
    // is read, not judged.
    techniques: [
      ...without(PUNCHES, ...HOOKS),
      ...(['elbow-round', 'elbow-reverse', 'elbow-rise', 'elbow-drop', 'elbow-up'] as const),
    ],
    link: 'fist',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'speed.keep', is: 'below', value: 0.9 }],
        evidence: 'At contact {speed.keep} of the top speed is left. {limit} is the least.',
        clear: 'At contact {speed.keep} of the top speed is left.',
      },
    ],
    why: 'Braking is the body’s care for the wrist or the partner; the target gets what is left.',
    cue: 'Aim a hand’s width behind it.',
    drill: 'target-through',
    remedy: 'to-the-end',
  },
  {
    id: 'push',
    name: 'Pushes',
    headline: 'It pushes where it should snap.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'follow-through',
    cases: [
      {
        when: { finish: ['snap'] },
        limits: [{ reading: 'phase.follow-through', is: 'above', value: 0.06 }],
        evidence: 'The fist stays in for {phase.follow-through}. {limit} is the most for a snap.',
        clear: 'The fist stays in for {phase.follow-through}.',
      },
    ],
    why: 'A push moves the bag and not what is in it: the blow is over in the first hundredths, and a hand that stays is late home.',
    cue: 'Fast in, fast out.',
    drill: 'snap-rounds',
    costs: 'behind',
  },
  {
    id: 'short-stop',
    name: 'Stops at the surface',
    headline: 'It stops where it should dig.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'follow-through',
    cases: [
      {
        when: { finish: ['dig'] },
        limits: [{ reading: 'through', is: 'below', value: 0.03 }],
        evidence: 'The fist goes {through} into the target. {limit} is the least for a dig.',
        clear: 'The fist goes {through} into the target.',
      },
    ],
    why: 'A lined-up strike is thrown at a spot behind the surface.',
    cue: 'Hit the spot behind.',
    drill: 'target-through',
    costs: 'behind',
  },
  {
    id: 'slow-home',
    name: 'Slow home',
    headline: 'The hand comes home late.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'recover',
    cases: [
      {
        limits: [{ reading: 'recoil', is: 'above', value: 1.2 }],
        evidence: 'The way home takes {recoil} of the way out. {limit} is the limit.',
        lasts: 'recoil.longer',
        clear: 'The way home takes {recoil} of the way out.',
      },
    ],
    why: 'A hand still out there guards nothing, and the next strike has nothing to leave from.',
    cue: 'Back as fast as out.',
    drill: 'echo',
    costs: 'cover',
  },
];
