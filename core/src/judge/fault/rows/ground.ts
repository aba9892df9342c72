/** Faults at the ground: stance, feet, knees, balance, the load. */
import type { FaultRow } from '../schema';
import {
  ALL,
  degrees,
  HIPS_LED,
  HOOKS,
  PUNCHES,
  STANDING,
  STRAIGHTS,
  TURNING_ELBOWS,
  UPPERCUTS,
  without,
} from './sets';

/** Strikes that turn over a pivoting foot of their own side. */
const PIVOTED = [
  ...['cross', 'rear-hook', 'lead-hook', 'rear-body-hook', 'lead-body-hook'],
  ...['stepping-straight', 'elbow-round'],
];

/** How far from square the hips stand in guard, degrees, by school: Sinew's own starting values. */
const ANGLES = [
  { school: 'half', least: 30, most: 60, cue: 'Stand 45° to the target.' },
  { school: 'squarer', least: 10, most: 40, cue: 'Show the target both hips.' },
  { school: 'bladed', least: 45, most: 80, cue: 'Show the target one hip.' },
] as const;

export const GROUND: readonly FaultRow[] = [
  {
    id: 'hips-tilted',
    name: 'Belt not level',
    headline: 'The belt hangs to one side.',
    techniques: ALL,
    link: 'pelvis',
    phase: 'load',
    cases: [
      {
        limits: [{ reading: 'stance.level', is: 'outside', value: degrees(7) }],
        evidence: 'In guard the pelvis is {stance.level} off level. {limit} is the limit.',
        clear: 'In guard the pelvis is {stance.level} off level.',
      },
    ],
    why: 'A tilted pelvis has one leg straight and nothing to push with on that side.',
    cue: 'Sit until the belt is level.',
    drill: 'belt-level',
    costs: 'footing',
  },
  {
    id: 'feet-in-line',
    name: 'Feet in line',
    headline: 'Both feet stand on one line.',
    techniques: ALL,
    link: 'feet',
    phase: 'load',
    cases: [
      {
        limits: [{ reading: 'stance.width', is: 'below', value: 0.1 }],
        evidence:
          'The feet stand {stance.width} of a shoulder’s width apart. {limit} is the least.',
        clear: 'The feet stand {stance.width} of a shoulder’s width apart.',
      },
    ],
    why: 'On one line the hip has no room to turn and every push tips the body over.',
    cue: 'Feet on two tracks.',
    drill: 'line-drill',
    costs: 'footing',
  },
  {
    id: 'square-stance',
    name: 'No angle in the stance',
    headline: 'The rear hip has nowhere to turn from.',
    // Lead hooks start from hips that are on their way already; whip and chambered straights from square.
    techniques: [
      'jab',
      'cross',
      'stepping-straight',
      'rear-hook',
      'rear-uppercut',
      'rear-body-hook',
    ],
    link: 'pelvis',
    phase: 'load',
    cases: [
      ...ANGLES.flatMap(({ school, least, most, cue }) => [
        {
          id: school === 'half' ? 'square' : `${school}-square`,
          when: { stanceAngle: [school] },
          limits: [{ reading: 'angle.ready', is: 'below', value: degrees(least) } as const],
          evidence: 'In guard the hips stand {angle.ready} from square. {limit} is the least.',
          clear: 'In guard the hips stand {angle.ready} from square.',
          cue,
        },
        {
          id: school === 'half' ? 'bladed' : `${school}-bladed`,
          when: { stanceAngle: [school] },
          limits: [{ reading: 'angle.ready', is: 'above', value: degrees(most) } as const],
          evidence: 'In guard the hips stand {angle.ready} from square. {limit} is the most.',
          clear: 'In guard the hips stand {angle.ready} from square.',
          cue,
        },
      ]),
    ],
    why: 'Half a turn to the target (about 45°) leaves the rear hip a way to go and the lead side a shield.',
    cue: 'Stand 45° to the target.',
    drill: 'half-turn',
    remedy: 'turned-away',
  },
  {
    id: 'weight-off',
    name: 'Weight not where it should be',
    headline: 'The weight stands on the wrong foot.',
    techniques: PUNCHES,
    link: 'feet',
    phase: 'load',
    cases: [
      ...(
        [
          ['centred', 0.35, 0.65],
          ['rear-60', 0.45, 0.75],
          ['forward', 0.1, 0.45],
        ] as const
      ).flatMap(([school, least, most]) => [
        {
          id: `${school}-light`,
          when: { weight: [school] },
          limits: [{ reading: 'split', is: 'below', value: least } as const],
          evidence:
            '{split} of the weight stands on the rear foot (static estimate). {limit} is the least.',
          clear: '{split} of the weight stands on the rear foot.',
        },
        {
          id: `${school}-heavy`,
          when: { weight: [school] },
          limits: [{ reading: 'split', is: 'above', value: most } as const],
          evidence:
            '{split} of the weight stands on the rear foot (static estimate). {limit} is the most.',
          clear: '{split} of the weight stands on the rear foot.',
        },
      ]),
    ],
    why: 'The push goes from the foot that carries; with the weight elsewhere there is nothing to push with.',
    cue: 'Stand where you will push from.',
    drill: 'belt-level',
    costs: 'footing',
  },
  {
    id: 'weight-back',
    name: 'Weight goes the wrong way',
    headline: 'The weight goes the wrong way.',
    techniques: ['cross', 'rear-hook', 'rear-body-hook', 'lead-hook', 'lead-body-hook'],
    link: 'feet',
    phase: 'explode',
    // Sinew's own starting values.
    cases: [
      {
        id: 'rear-hand',
        techniques: ['cross', 'rear-hook', 'rear-body-hook'],
        limits: [{ reading: 'shift.travel', is: 'below', value: 0 }],
        evidence:
          'From load to contact the weight goes {shift.travel} of the stance forward (minus is back). It is to go forward.',
        clear: 'From load to contact the weight goes {shift.travel} of the stance forward.',
        cue: 'Rear foot pushes you onto the front one.',
      },
      {
        id: 'lead-hook',
        techniques: ['lead-hook', 'lead-body-hook'],
        // A foot that is planted keeps the weight.
        when: { hookFoot: ['pivot'] },
        limits: [{ reading: 'shift.travel', is: 'above', value: 0.1 }],
        evidence:
          'From load to contact the weight goes {shift.travel} of the stance forward. {limit} is the most for a lead foot that turns.',
        clear: 'From load to contact the weight goes {shift.travel} of the stance forward.',
        cue: 'Turn off the front foot, land on the back one.',
      },
    ],
    why: 'The push ends where the weight is going; a body that goes the other way takes its mass out of the hand.',
    cue: 'Let the weight cross with the hand.',
    drill: 'push-turn',
    remedy: 'comes-along',
  },
  {
    id: 'rear-heel',
    name: 'Rear heel',
    headline: 'The rear heel is not where this school has it.',
    techniques: PUNCHES,
    link: 'feet',
    phase: 'load',
    cases: [
      {
        id: 'raised',
        when: { rearHeel: ['raised'] },
        limits: [{ reading: 'stance.rearHeel', is: 'below', value: 0.01 }],
        evidence: 'In guard the rear heel is {stance.rearHeel} up. {limit} is the least.',
        clear: 'In guard the rear heel is {stance.rearHeel} up.',
      },
      {
        id: 'flat',
        when: { rearHeel: ['flat'] },
        limits: [{ reading: 'stance.rearHeel', is: 'above', value: 0.025 }],
        evidence: 'In guard the rear heel is {stance.rearHeel} up. {limit} is the most.',
        clear: 'In guard the rear heel is {stance.rearHeel} up.',
      },
    ],
    why: 'Raised, the foot is a spring that is set; flat, it is a post to drive off. Neither works half.',
    cue: 'Set the rear foot before you go.',
    drill: 'stick-pivots',
    costs: 'footing',
  },
  {
    id: 'no-load',
    name: 'No load',
    headline: 'Nothing is wound up before it goes.',
    techniques: without([...HIPS_LED], 'stepping-straight', 'whip-straight'),
    link: 'knees',
    phase: 'load',
    cases: [
      {
        limits: [
          { reading: 'sink.height', is: 'below', value: 0.01 },
          { reading: 'coil', is: 'below', value: degrees(5) },
        ],
        evidence:
          'The body sinks by {sink.height} of its height and coils by {coil}. One of the two is needed.',
        clear: 'The body sinks by {sink.height} of its height, or coils.',
      },
    ],
    why: 'Muscles that are stretched first push harder; from a standstill half of the push is late.',
    cue: 'Sink a little, then go.',
    drill: 'dip-and-go',
    remedy: 'coiled',
  },
  {
    id: 'hips-blocked',
    name: 'Hips blocked',
    headline: 'The foot holds, and the hips stop with it.',
    techniques: PIVOTED,
    link: 'pelvis',
    phase: 'explode',
    cases: [
      {
        // About 45° is expected of these; 15° less is blocked.
        id: 'usual',
        techniques: without(PIVOTED, 'lead-hook', 'lead-body-hook'),
        when: { hipAction: ['turn-through'] },
        limits: [
          { reading: 'turn.pelvis', is: 'below', value: degrees(30) },
          { reading: 'pivot.own', is: 'below', value: degrees(15) },
        ],
        evidence:
          'The pelvis turns {turn.pelvis} to contact, the foot {pivot.own}. {limit} is the least.',
        clear: 'The pelvis turns {turn.pelvis} to contact, or the foot lets go.',
      },
      {
        // A lead foot that is planted on purpose may stop the hip earlier.
        id: 'lead-hook',
        techniques: ['lead-hook', 'lead-body-hook'],
        when: { hipAction: ['turn-through'], hookFoot: ['pivot', 'by-situation'] },
        limits: [
          { reading: 'turn.pelvis', is: 'below', value: degrees(30) },
          { reading: 'pivot.own', is: 'below', value: degrees(15) },
        ],
        evidence:
          'The pelvis turns {turn.pelvis} to contact, the foot {pivot.own}. {limit} is the least.',
        clear: 'The pelvis turns {turn.pelvis} to contact, or the foot lets go.',
      },
    ],
    why: 'A foot that does not let go stops the knee, the knee the hip, and the trunk throws alone.',
    cue: 'Let the heel go so the hip can.',
    drill: 'press-and-turn',
    remedy: 'full-turn',
  },
  {
    id: 'pivot-no-turn',
    name: 'Foot turns, body does not',
    headline: 'The foot turns and the body stays.',
    techniques: PIVOTED,
    link: 'pelvis',
    phase: 'explode',
    cases: [
      {
        when: { hipAction: ['turn-through'] },
        limits: [
          { reading: 'turn.pelvis', is: 'below', value: degrees(15) },
          { reading: 'pivot.own', is: 'above', value: degrees(30) },
        ],
        evidence:
          'The foot turns {pivot.own}, the pelvis only {turn.pelvis}. {limit} is the least.',
        clear: 'The pelvis turns {turn.pelvis} to contact, or the foot is quiet.',
      },
    ],
    why: 'A foot that spins by itself looks like power and carries none.',
    cue: 'Turn the shoulders; the foot follows.',
    drill: 'top-down-turns',
    remedy: 'full-turn',
  },
  {
    id: 'toe-tip',
    name: 'On the toe tips',
    headline: 'The strike stands on its toe tips.',
    techniques: STANDING,
    link: 'feet',
    phase: 'accelerate',
    cases: (['heel.rear', 'heel.lead'] as const).map((reading) => ({
      id: reading === 'heel.rear' ? 'rear' : 'lead',
      limits: [{ reading, is: 'above', value: 0.12 } as const],
      evidence: `The ${reading === 'heel.rear' ? 'rear' : 'lead'} heel is {${reading}} up at contact. {limit} is the limit.`,
      clear: `The ${reading === 'heel.rear' ? 'rear' : 'lead'} heel is {${reading}} up at contact.`,
    })),
    why: 'On the toe tips there is nothing left to push with and little to stand on.',
    cue: 'Ball of the foot, heel just off.',
    drill: 'stick-pivots',
    costs: 'footing',
  },
  {
    id: 'anchor-swivel',
    name: 'Support foot spins out',
    headline: 'The other foot gives the push away.',
    techniques: without(STANDING, 'stepping-straight', 'elbow-thrust', 'elbow-spin'),
    link: 'feet',
    phase: 'explode',
    cases: [
      {
        id: 'turns',
        when: { supportHeel: ['set-down'] },
        limits: [{ reading: 'anchor.foot', is: 'outside', value: degrees(15) }],
        evidence:
          'The support foot turns {anchor.foot} between its set and contact. {limit} is the limit.',
        clear: 'The support foot turns {anchor.foot}.',
      },
      {
        id: 'travels',
        when: { supportHeel: ['set-down'] },
        limits: [{ reading: 'anchor.travel', is: 'above', value: 0.05 }],
        evidence:
          'The support foot slides {anchor.travel} between its set and contact. {limit} is the limit.',
        clear: 'The support foot slides {anchor.travel}.',
      },
    ],
    why: 'What the floor does not hold, the fist does not get.',
    cue: 'Press the other foot flat, knee over toes.',
    drill: 'paper-foot',
    caution: 'A foot pressed flat while the body turns loads the knee: stop at a twinge.',
    costs: 'footing',
  },
  {
    id: 'hook-foot',
    name: 'Lead foot of the hook',
    headline: 'The lead foot does not do what this hook asks.',
    techniques: ['lead-hook', 'lead-body-hook'],
    link: 'feet',
    phase: 'explode',
    cases: [
      {
        id: 'planted',
        when: { hookFoot: ['plant'] },
        cue: 'Grip the floor.',
        limits: [{ reading: 'pivot.own', is: 'above', value: degrees(25) }],
        evidence: 'The lead foot turns {pivot.own}; planted, {limit} is the most.',
        clear: 'The lead foot turns {pivot.own}.',
      },
      {
        id: 'pivoting',
        when: { hookFoot: ['pivot'] },
        cue: 'Turn the heel out.',
        limits: [{ reading: 'pivot.own', is: 'below', value: degrees(20) }],
        evidence: 'The lead foot turns {pivot.own}; in a pivot, {limit} is the least.',
        clear: 'The lead foot turns {pivot.own}.',
      },
    ],
    why: 'The foot that pivots frees the hip; the foot that is planted keeps the place for the next strike.',
    cue: 'Settle the lead foot before the hook goes.',
    drill: 'press-and-turn',
    costs: 'footing',
  },
  {
    id: 'knee-gives',
    name: 'Knee gives',
    headline: 'The front knee gives as it should post.',
    techniques: STANDING,
    link: 'knees',
    phase: 'explode',
    cases: [
      {
        id: 'anchor',
        // Strikes that go down with the knees bend them on purpose.
        techniques: [
          ...without(STRAIGHTS, 'jab', 'stepping-straight'),
          ...(['rear-hook', 'rear-uppercut', 'elbow-round'] as const),
        ],
        when: { bodyMass: ['by-technique', 'level', 'rise'] },
        limits: [{ reading: 'anchor.knee', is: 'above', value: degrees(10) }],
        evidence: 'The front knee bends by {anchor.knee} after it is set. {limit} is the limit.',
        clear: 'The front knee bends by {anchor.knee} after it is set.',
      },
      {
        id: 'lead-in',
        limits: [{ reading: 'knee.in.lead', is: 'above', value: 0.04 }],
        evidence: 'The front knee falls {knee.in.lead} inside its toes. {limit} is the limit.',
        clear: 'The front knee stays over its toes, {knee.in.lead} inside.',
      },
    ],
    why: 'The turn is thrown over a post; a knee that gives swallows it, and may get hurt.',
    cue: 'Front knee still while you hit.',
    drill: 'wall-post',
    caution: 'A knee that falls in under load may get hurt: slow until it holds.',
    costs: 'footing',
  },
  {
    id: 'knee-locks',
    name: 'Front knee locked',
    headline: 'The front leg is straight: nothing to hit over.',
    techniques: without(STANDING, 'stepping-straight'),
    link: 'knees',
    phase: 'accelerate',
    // The rear leg that drives may straighten.
    cases: [
      {
        id: 'lead',
        limits: [{ reading: 'knee.lead', is: 'above', value: degrees(170) }],
        evidence: 'The front knee is at {knee.lead} at contact. {limit} is the most.',
        clear: 'The front knee is at {knee.lead} at contact.',
      },
    ],
    why: 'A straight front leg gives nothing to turn over, and takes the blow in the joint.',
    cue: 'Keep the springs bent.',
    drill: 'low-line',
    costs: 'footing',
  },
  {
    id: 'rear-leg',
    name: 'Rear leg',
    headline: 'The rear leg is not as this school has it.',
    techniques: ['cross', 'chambered-straight'],
    link: 'knees',
    phase: 'accelerate',
    cases: [
      {
        id: 'bent',
        when: { rearLeg: ['bent'] },
        limits: [{ reading: 'knee.own', is: 'above', value: degrees(160) }],
        evidence: 'The rear knee is at {knee.own} at contact. {limit} is the most for a bent leg.',
        clear: 'The rear knee is at {knee.own} at contact.',
        cue: 'Keep a spring in the rear knee.',
      },
      {
        id: 'straight',
        when: { rearLeg: ['straight'] },
        limits: [{ reading: 'knee.own', is: 'below', value: degrees(150) }],
        evidence:
          'The rear knee is at {knee.own} at contact. {limit} is the least for a leg that drives through.',
        clear: 'The rear knee is at {knee.own} at contact.',
        cue: 'Push the floor away until the leg is long.',
      },
    ],
    why: 'A leg that stays bent can hit again; one that drives straight puts all of its push into this one.',
    cue: 'Rear leg as we do it here.',
    drill: 'push-turn',
  },
  {
    id: 'reach-lean',
    name: 'Falls after the target',
    headline: 'The body falls after the target.',
    techniques: without(PUNCHES, 'stepping-straight'),
    link: 'trunk',
    phase: 'accelerate',
    cases: [
      {
        limits: [
          { reading: 'lean', is: 'above', value: degrees(15) },
          { reading: 'head.ahead', is: 'above', value: 0, onlyClears: true },
        ],
        evidence: 'Head, hips and feet lean {lean} to the target at contact. {limit} is the limit.',
        clear: 'Head, hips and feet lean {lean} to the target at contact.',
      },
    ],
    why: 'The target is out of reach: let it miss, or step. Falling after it leaves nothing to come back on.',
    cue: 'Out of reach means no punch: step first.',
    drill: 'half-step',
    costs: 'footing',
  },
  {
    id: 'step-early',
    name: 'Steps, then punches',
    headline: 'The foot has landed long before the fist.',
    techniques: ['stepping-straight'],
    link: 'feet',
    phase: 'accelerate',
    cases: [
      {
        when: { stepTiming: ['before-or-with', 'both-feet'] },
        limits: [{ reading: 'step.contact', is: 'above', value: 0.04 }],
        evidence: 'The fist lands {step.contact:order} the foot. {limit} is the most.',
        clear: 'The fist lands {step.contact:order} the foot.',
      },
    ],
    why: 'The travel of the step is gone once the foot has stopped it.',
    cue: 'Hand beats the foot.',
    drill: 'step-hit',
    remedy: 'carried',
  },
  {
    id: 'travel-no-turn',
    name: 'Travels without turning',
    headline: 'The step carries; the hips do not turn.',
    techniques: ['stepping-straight'],
    link: 'pelvis',
    phase: 'explode',
    cases: [
      {
        limits: [{ reading: 'turn.air', is: 'below', value: degrees(10) }],
        evidence: 'The pelvis turns {turn.air} while the foot is in the air. {limit} is the least.',
        clear: 'The pelvis turns {turn.air} while the foot is in the air.',
      },
    ],
    why: 'Without the turn it is a push: by trade estimate a third of the punch is lost.',
    cue: 'Turn the hip before the foot lands.',
    drill: 'step-turn',
    remedy: 'full-turn',
  },
  {
    id: 'no-rise',
    name: 'No rise',
    headline: 'It goes up without the legs.',
    techniques: [...UPPERCUTS, 'elbow-rise', 'elbow-up'],
    link: 'knees',
    phase: 'explode',
    cases: [
      {
        when: { bodyMass: ['by-technique', 'rise', 'relax-rise-fall'] },
        limits: [
          { reading: 'drop.height', is: 'above', value: -0.015 },
          { reading: 'portion.rise', is: 'below', value: 0.15, onlyClears: true },
        ],
        evidence:
          'From the hips’ start to contact the body goes {drop.height} of its height down; it should stand up through the strike.',
        clear: 'The body stands up through the strike.',
      },
    ],
    why: 'Upward strikes are legs first: an arm that lifts alone is light.',
    cue: 'Stand up through it.',
    drill: 'under-line',
    remedy: 'carried',
  },
  {
    id: 'no-drop',
    name: 'No drop',
    headline: 'It comes down without the body.',
    techniques: ['elbow-drop'],
    link: 'knees',
    phase: 'explode',
    cases: [
      {
        id: 'elbow-drop',
        limits: [{ reading: 'drop.height', is: 'below', value: 0.03 }],
        evidence: 'The body drops by {drop.height} of its height. {limit} is the least.',
        clear: 'The body drops by {drop.height} of its height.',
      },
    ],
    why: 'The weight falls onto the target or it does not take part.',
    cue: 'Drop your weight onto it.',
    drill: 'squat-drop',
    remedy: 'carried',
  },
  {
    id: 'no-rise-first',
    name: 'No rise before the drop',
    headline: 'It drops from where it stood.',
    techniques: ['elbow-drop'],
    link: 'knees',
    phase: 'load',
    cases: [
      {
        // Sinew's own starting value. Who keeps level, or only drops, does not rise first.
        when: { bodyMass: ['by-technique', 'relax-rise-fall'] },
        limits: [{ reading: 'rise.first', is: 'below', value: 0.006 }],
        evidence:
          'Before the drop the body rises by {rise.first} of its height. {limit} is the least.',
        clear: 'The body rises by {rise.first} of its height before it drops.',
      },
    ],
    why: 'What has not gone up has little way to fall; the drop starts a hand lower than it could.',
    cue: 'Tall first, then drop.',
    drill: 'squat-drop',
  },
  {
    id: 'off-level',
    name: 'Body mass against the school',
    headline: 'The body does not go the way this school sends it.',
    techniques: [...HOOKS, ...STRAIGHTS, ...TURNING_ELBOWS],
    link: 'knees',
    phase: 'explode',
    cases: [
      {
        id: 'no-drop',
        when: { bodyMass: ['drop'] },
        limits: [{ reading: 'drop.height', is: 'below', value: 0.015 }],
        evidence:
          'From the hips’ start to contact the body sinks by {drop.height} of its height. {limit} is the least where it drops with the strike.',
        clear: 'The body sinks by {drop.height} of its height.',
        cue: 'Sink as it goes.',
      },
      {
        id: 'sinks',
        when: { bodyMass: ['level'] },
        limits: [{ reading: 'drop.height', is: 'above', value: 0.03 }],
        evidence:
          'From the hips’ start to contact the body sinks by {drop.height} of its height. {limit} is the most where it stays level.',
        clear: 'The body sinks by {drop.height} of its height.',
        cue: 'Belt along one line.',
      },
      {
        id: 'rises',
        when: { bodyMass: ['level'] },
        limits: [{ reading: 'drop.height', is: 'below', value: -0.03 }],
        evidence:
          'From the hips’ start to contact the body goes {drop.height} of its height down (minus is up). It should stay level.',
        clear: 'From the hips’ start to contact the body goes {drop.height} of its height down.',
        cue: 'Belt along one line.',
      },
    ],
    why: 'Whichever way the mass is sent, it adds to the strike only when it goes that way with it.',
    cue: 'Settle which way the belt goes.',
    drill: 'low-line',
  },
];
