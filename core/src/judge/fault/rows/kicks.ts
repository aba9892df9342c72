/** Faults of kicks and knees, read as a chain: support foot, pelvis, thigh, shank. */
import type { FaultRow } from '../schema';
import { degrees, KICKS, without } from './sets';

const SHANKED = without(KICKS, 'knee-strike');

/**
 * How far the support heel turns by contact, by technique and height of the target, radians: Sinew's own
 * starting values. Heights are those of `kick.height`: the hip is 0, the shoulder 1.
 */
const PIVOTS = [
  { id: 'round-low', technique: 'round-kick', least: degrees(60), from: null },
  { id: 'round-middle', technique: 'round-kick', least: degrees(90), from: 0 },
  { id: 'round-high', technique: 'round-kick', least: degrees(110), from: 1 },
  { id: 'side-low', technique: 'side-kick', least: degrees(90), from: null },
  { id: 'side-middle', technique: 'side-kick', least: degrees(120), from: 0 },
  { id: 'side-high', technique: 'side-kick', least: degrees(140), from: 1 },
] as const;

export const KICK_FAULTS: readonly FaultRow[] = [
  {
    id: 'kick-no-pivot',
    name: 'Support foot does not turn',
    headline: 'The support foot holds the hip back.',
    techniques: ['round-kick', 'side-kick'],
    link: 'feet',
    phase: 'explode',
    cases: PIVOTS.map(({ id, technique, least, from }) => ({
      id,
      techniques: [technique],
      limits: [
        { reading: 'pivot.support', is: 'below', value: least } as const,
        ...(from === null ? [] : [{ reading: 'kick.height', is: 'above', value: from } as const]),
      ],
      evidence: `The support foot turns {pivot.support} by contact. {limit} is the least${from === null ? '' : from === 0 ? ' for a kick over the hip' : ' for a kick over the shoulder'}.`,
      clear: 'The support foot turns {pivot.support} by contact.',
    })),
    why: 'The pelvis opens over the support foot; a foot that holds stops it, and the knee pays.',
    cue: 'Heel turns as the knee comes through.',
    drill: 'wall-pivots',
    caution:
      'A support knee twisted over a foot that holds may get hurt: slow until the heel turns.',
    remedy: 'full-turn',
  },
  {
    id: 'kick-hip-under',
    name: 'Hip not turned over',
    headline: 'The hip stays under the kick.',
    techniques: ['round-kick', 'side-kick'],
    link: 'pelvis',
    phase: 'accelerate',
    cases: (
      [
        ['round', 'round-kick', 50],
        ['side', 'side-kick', 80],
      ] as const
    ).map(([id, technique, least]) => ({
      id,
      techniques: [technique],
      limits: [{ reading: 'turn.pelvis', is: 'below', value: degrees(least) } as const],
      evidence: 'The pelvis turns {turn.pelvis} to contact. {limit} is the least.',
      clear: 'The pelvis turns {turn.pelvis} to contact.',
    })),
    why: 'With the hip under it the leg swings alone; turned over, the whole side is behind it.',
    cue: 'Hip over, then the leg.',
    drill: 'hip-over',
    remedy: 'full-turn',
  },
  {
    id: 'kick-order',
    name: 'Leg before hips',
    headline: 'The thigh leaves with the hips or before them.',
    techniques: KICKS,
    link: 'thigh',
    phase: 'explode',
    cases: [
      {
        limits: [{ reading: 'lead.hipsTrunk', is: 'below', value: 0.015 }],
        evidence: 'The thigh starts {lead.hipsTrunk:order} the hips. {limit} is the least.',
        clear: 'The hips lead the thigh by {lead.hipsTrunk}.',
      },
    ],
    why: 'The hip throws the thigh; a thigh that has left cannot be thrown.',
    cue: 'Hip first, knee rides on it.',
    drill: 'hip-over',
    remedy: 'in-order',
  },
  {
    id: 'kick-straight-leg',
    name: 'Swings a straight leg',
    headline: 'The knee is never drawn up.',
    techniques: SHANKED,
    link: 'thigh',
    phase: 'explode',
    cases: [
      {
        // Sinew's own starting value.
        limits: [{ reading: 'kick.fold', is: 'above', value: degrees(110) }],
        evidence: 'The kicking knee is at {kick.fold} at its sharpest. {limit} is the most.',
        clear: 'The kicking knee folds to {kick.fold} on the way.',
      },
    ],
    why: 'A folded leg comes round lightly and lets the shank whip; a straight one is heavy to start and seen coming.',
    cue: 'Heel to the seat, then kick.',
    drill: 'chamber-stop',
    remedy: 'drawn-in',
  },
  {
    id: 'kick-falls',
    name: 'Leg falls down',
    headline: 'The leg falls where it was thrown.',
    techniques: SHANKED,
    link: 'shank',
    phase: 'follow-through',
    cases: [
      {
        // A kick that goes on through its target falls past it on purpose.
        when: { finish: ['snap'] },
        limits: [{ reading: 'kick.home', is: 'below', value: degrees(40) }],
        evidence: 'On the way home the knee folds by {kick.home}. {limit} is the least.',
        clear: 'On the way home the knee folds by {kick.home}.',
      },
    ],
    why: 'A leg that falls can be caught, and leaves the student on one foot.',
    cue: 'Back the way it came.',
    drill: 'kick-home',
    costs: 'behind',
  },
  {
    id: 'kick-post-locked',
    name: 'Support knee locked',
    headline: 'The leg that stands is straight.',
    techniques: without(KICKS, 'side-kick', 'knee-strike'),
    link: 'knees',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'knee.support', is: 'above', value: degrees(170) }],
        evidence: 'The support knee is at {knee.support} at contact. {limit} is the most.',
        clear: 'The support knee is at {knee.support} at contact.',
      },
    ],
    why: 'A straight post cannot give or push, and whatever meets it meets the joint.',
    cue: 'Stand on a soft knee.',
    drill: 'wall-pivots',
    caution: 'A locked support knee that is met from the side may get hurt.',
    costs: 'footing',
  },
  {
    id: 'kick-arm-stays',
    name: 'Arm does not answer the leg',
    headline: 'The arm of the kicking side stays where it was.',
    techniques: ['round-kick'],
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        when: { kickArm: ['swings'] },
        // Sinew's own starting value.
        limits: [{ reading: 'kick.arm', is: 'below', value: 0.3 }],
        evidence:
          'By contact the hand of the kicking side has gone {kick.arm} from its guard. {limit} is the least where the arm swings against the leg.',
        clear: 'The hand of the kicking side swings {kick.arm} out of its guard.',
      },
    ],
    why: 'An arm that swings back answers the leg; without it the trunk has to, and the hip stops.',
    cue: 'Throw the hand back as the leg goes.',
    drill: 'swing-arm',
  },
  {
    id: 'kick-arm-drops',
    name: 'Kicking-side hand leaves the guard',
    headline: 'The hand of the kicking side leaves the guard.',
    techniques: ['round-kick'],
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        when: { kickArm: ['guards'] },
        // Sinew's own starting value.
        limits: [{ reading: 'kick.arm', is: 'above', value: 0.2 }],
        evidence:
          'By contact the hand of the kicking side has gone {kick.arm} from its guard. {limit} is the most where it stays there.',
        lasts: 'away.kickArm',
        clear: 'The hand of the kicking side stays within {kick.arm} of its guard.',
      },
    ],
    why: 'Over a leg that is in the air the head has only the hands.',
    cue: 'Both gloves stay on the cheeks.',
    drill: 'kick-guard',
    costs: 'cover',
  },
  {
    id: 'kick-lean-away',
    name: 'Falls off the kick',
    headline: 'The body falls away from the kick.',
    techniques: KICKS,
    link: 'pelvis',
    phase: 'accelerate',
    cases: [
      {
        id: 'usual',
        limits: [
          { reading: 'lean.trunk', is: 'below', value: degrees(-45) },
          { reading: 'stability.contact', is: 'below', value: 0, onlyClears: true },
        ],
        evidence:
          'The trunk leans {lean.trunk} at contact (minus is away from the target). {limit} is the limit.',
        clear: 'The trunk leans {lean.trunk} at contact.',
      },
    ],
    why: 'A body that falls away takes the hip out of the target with it.',
    cue: 'Tall through the hip.',
    drill: 'tall-kicks',
  },
];

/** What hurts the one who kicks. */
export const KICK_INJURIES: readonly FaultRow[] = [
  {
    id: 'knee-snaps',
    name: 'Knee snaps straight',
    headline: 'The knee snaps straight.',
    techniques: SHANKED,
    link: 'shank',
    phase: 'follow-through',
    injury: true,
    cases: [
      {
        // A knee may well end straight in a target; whether it met one, no camera can tell.
        limits: [{ eye: 'kicking-knee' }],
        evidence: 'By eye: the knee snaps straight with nothing hit.',
        clear: 'By eye: the kick stops with a bend left, or in its target.',
      },
    ],
    why: 'With nothing hit, the whole of the leg’s speed is stopped by the joint.',
    cue: 'Leave a little bend in the knee.',
    drill: 'soft-knee',
    caution:
      'No power work until the coach has cleared it. Never snap a kick to a straight knee in the air. Knee pain: stop, and see a clinician.',
  },
  {
    id: 'toes-land',
    name: 'Toes or instep land',
    headline: 'The toes meet the target.',
    techniques: SHANKED,
    link: 'foot',
    phase: 'accelerate',
    injury: true,
    cases: [
      {
        limits: [{ eye: 'toes' }],
        evidence: 'By eye: toes or bare instep meet the target.',
        clear: 'By eye: ball, heel or shin lands.',
      },
    ],
    why: 'Toes and the small bones of the instep break on what the ball, the heel and the shin can take.',
    cue: 'Toes back, heel heavy.',
    drill: 'toes-back',
    caution:
      'No power work until the coach has cleared it. The instep on pads only. Pain or swelling: stop, and see a clinician.',
  },
];
