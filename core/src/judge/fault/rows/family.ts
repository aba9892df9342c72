/** Faults of elbows, of strikes that follow each other, and of whole sets. */
import type { FaultRow } from '../schema';
import { ALL, ELBOWS, HIPS_LED, PUNCHES, without } from './sets';

/** Elbows that the body throws by going up, down or in: which ones, and what to say. */
const BODY_FIRST = [
  ['rise', ['elbow-rise', 'elbow-up'], 'Stand up first; the elbow rides on it.'],
  ['drop', ['elbow-drop'], 'Drop first; the elbow rides down.'],
  ['thrust', ['elbow-thrust'], 'Hips go in first; the elbow rides on them.'],
] as const;

/** Elbows that the body carries toward the target: not one that drops, nor one for who stands behind. */
const CARRIED = without(ELBOWS, 'elbow-drop', 'elbow-spin');

export const FAMILY_FAULTS: readonly FaultRow[] = [
  {
    id: 'elbow-first',
    name: 'Elbow before the body',
    headline: 'The elbow leaves before the body.',
    techniques: BODY_FIRST.flatMap(([, techniques]) => [...techniques]),
    link: 'elbow',
    phase: 'explode',
    cases: BODY_FIRST.map(([id, techniques, cue]) => ({
      id,
      techniques: [...techniques],
      limits: [{ reading: 'lead.hipsArm', is: 'below', value: 0, slack: 0.01 } as const],
      evidence: 'The elbow leaves {lead.hipsArm:order} the body.',
      clear: 'The elbow leaves {lead.hipsArm:order} the body.',
      cue,
    })),
    why: 'An elbow that has left cannot be lifted or dropped by the body; it lands with the weight of the arm.',
    cue: 'Body first, elbow last.',
    drill: 'hand-waits',
  },
  {
    id: 'elbow-stands',
    name: 'Body stays behind',
    headline: 'The elbow goes, the body stays where it is.',
    techniques: CARRIED,
    link: 'pelvis',
    phase: 'accelerate',
    cases: [
      {
        // Sinew's own starting value: about two centimetres on a grown man.
        limits: [{ reading: 'body.travel', is: 'below', value: 0.01 }],
        evidence:
          'From the hips’ start to contact the body goes {body.travel} of its height toward the target. {limit} is the least.',
        clear: 'The body goes {body.travel} of its height toward the target.',
      },
    ],
    why: 'An elbow is short: what makes it heavy is the body that comes with it.',
    cue: 'Bring the hips in with it.',
    drill: 'elbow-forms',
    remedy: 'carried',
  },
  {
    id: 'elbow-short',
    name: 'Elbow stops at the target',
    headline: 'The elbow stops at the target.',
    techniques: ELBOWS,
    link: 'shoulder',
    phase: 'follow-through',
    cases: [
      {
        limits: [{ reading: 'through', is: 'below', value: 0.05 }],
        evidence: 'The elbow goes {through} through the target. {limit} is the least.',
        clear: 'The elbow goes {through} through the target.',
      },
    ],
    why: 'An elbow cuts through or it bumps: what stops it was never behind it.',
    cue: 'Through the pad.',
    drill: 'elbow-forms',
    costs: 'behind',
  },
  {
    id: 'no-replant',
    name: 'Foot not replanted',
    headline: 'The next strike leaves before the foot is down.',
    techniques: [...PUNCHES, ...ELBOWS],
    link: 'feet',
    phase: 'recover',
    scope: 'pair',
    cases: [
      {
        limits: [{ reading: 'pair.heel', is: 'above', value: 0.03 }],
        evidence:
          'As the next hips start, the pivoted heel is still {pair.heel} above its place. {limit} is the limit.',
        lasts: 'pair.down',
        clear: 'As the next hips start, the heel is {pair.heel} above its place.',
      },
    ],
    why: 'The other side pushes off this foot: in the air it has no floor.',
    cue: 'Plant, then the other side.',
    drill: 'plant-other',
    costs: 'next',
  },
  {
    id: 'combo-reset',
    name: 'Hips go back to the middle',
    headline: 'The hips go back before the next one leaves.',
    techniques: HIPS_LED,
    link: 'pelvis',
    phase: 'recover',
    scope: 'pair',
    cases: [
      {
        limits: [{ reading: 'pair.kept', is: 'below', value: 0.25 }],
        evidence:
          'As the next hips start, {pair.kept} of this strike’s turn is left to load it. {limit} is the least.',
        lasts: 'pair.idle',
        clear: 'As the next hips start, {pair.kept} of this strike’s turn is left.',
      },
    ],
    why: 'The end of one turn is the load of the next; hips that go back to the middle start from nothing.',
    cue: 'Let the last one load the next.',
    drill: 'chain-pairs',
    costs: 'next',
  },
  {
    id: 'combo-late-home',
    name: 'Two hands out',
    headline: 'The next strike lands before this hand is home.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'recover',
    scope: 'pair',
    cases: [
      {
        limits: [{ reading: 'pair.home', is: 'above', value: 0.02 }],
        evidence: 'This hand comes home {pair.home:order} the next strike’s contact.',
        lasts: 'pair.home',
        clear: 'This hand comes home {pair.home:order} the next strike’s contact.',
      },
    ],
    why: 'As one returns the other goes: with both out there is no guard at all.',
    cue: 'One out, one home.',
    drill: 'echo-pairs',
    costs: 'cover',
  },
  {
    id: 'combo-balance',
    name: 'Off balance at the end',
    headline: 'The combination ends off balance.',
    techniques: [...PUNCHES, ...ELBOWS],
    link: 'feet',
    phase: 'recover',
    scope: 'pair',
    cases: [
      {
        limits: [{ reading: 'pair.balance', is: 'below', value: -0.12 }],
        evidence:
          'Home again, the weight runs {pair.balance} inside the feet (minus is outside). {limit} is the limit.',
        clear: 'Home again, the weight is {pair.balance} inside the feet.',
      },
    ],
    why: 'Whoever ends off balance cannot go on and cannot leave.',
    cue: 'End where you could start again.',
    drill: 'plant-other',
    costs: 'footing',
  },
  {
    id: 'too-fast-too-soon',
    name: 'Too fast too soon',
    headline: 'The order holds slow and breaks fast.',
    techniques: HIPS_LED,
    link: 'trunk',
    phase: 'explode',
    scope: 'set',
    cases: [
      {
        when: { speedGate: ['slow-first'] },
        limits: [
          { reading: 'set.fastLead', is: 'below', value: 0.02 },
          { reading: 'set.slowLead', is: 'above', value: 0.02 },
          { reading: 'set.speedRange', is: 'above', value: 1.15 },
        ],
        evidence:
          'In the faster strikes the hips lead by {set.fastLead}, in the slower ones by {set.slowLead}. {limit} is the least.',
        clear: 'In the faster strikes the hips lead by {set.fastLead}.',
      },
    ],
    why: 'What breaks at speed is not learned yet; practised broken, it is learned broken.',
    cue: 'Slow is the drill.',
    drill: 'speed-ladder',
  },
  {
    id: 'stance-fades',
    name: 'Stance fades',
    headline: 'The stance comes up as the set goes on.',
    techniques: ALL,
    link: 'knees',
    phase: 'load',
    scope: 'set',
    cases: [
      {
        limits: [{ reading: 'set.rise', is: 'above', value: 0.02 }],
        evidence:
          'From the first strike to the last the hips come up {set.rise}. {limit} is the limit.',
        clear: 'From the first strike to the last the hips come up {set.rise}.',
      },
    ],
    why: 'Legs that tire stand up, and what stands up cannot push.',
    cue: 'Last round, same height as the first.',
    drill: 'last-round',
    costs: 'footing',
  },
];
