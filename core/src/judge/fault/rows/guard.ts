/** What is open while the strike is out: the other hand, the chin, the head. */
import type { FaultRow } from '../schema';
import { ALL, PUNCHES, STANDING, without } from './sets';

export const GUARD_FAULTS: readonly FaultRow[] = [
  {
    id: 'guard-off-drop',
    name: 'Other hand leaves the face',
    headline: 'The other hand leaves the face.',
    techniques: without(ALL, 'chambered-straight', 'elbow-spin'),
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        id: 'drops',
        when: { offHand: ['temple'] },
        limits: [{ reading: 'guard.drop', is: 'above', value: 0.1 }],
        evidence: 'The other hand drops {guard.drop} on the way out. {limit} is the limit.',
        lasts: 'away.drop',
        clear: 'The other hand drops {guard.drop} on the way out.',
      },
      {
        id: 'leaves',
        when: { offHand: ['temple'] },
        limits: [{ reading: 'guard.leave', is: 'above', value: 0.15 }],
        evidence:
          'The other hand leaves its place by the head by {guard.leave}. {limit} is the limit.',
        lasts: 'away.leave',
        clear: 'The other hand stays within {guard.leave} of its place.',
      },
    ],
    why: 'While one hand is out the other is all the guard there is.',
    cue: 'Keep the far glove glued to the cheek.',
    drill: 'cheek-ball',
    costs: 'cover',
  },
  {
    id: 'chin-open',
    name: 'Chin open',
    headline: 'The shoulder does not cover the chin.',
    techniques: ['jab', 'cross', 'stepping-straight', 'lead-hook'],
    link: 'shoulder',
    phase: 'accelerate',
    cases: [
      {
        limits: [{ reading: 'guard.chin', is: 'above', value: 0.19 }],
        evidence:
          'The striking shoulder is {guard.chin} from the chin at contact. {limit} is the limit.',
        lasts: 'away.own',
        clear: 'The striking shoulder is {guard.chin} from the chin at contact.',
      },
    ],
    why: 'The counter comes over the striking arm: the shoulder is the only cover there.',
    cue: 'Shoulder to cheek.',
    drill: 'wall-side',
    costs: 'cover',
  },
  {
    id: 'head-whip',
    name: 'Head thrown',
    headline: 'The head is thrown with the strike.',
    techniques: STANDING,
    link: 'trunk',
    phase: 'accelerate',
    cases: [
      {
        when: { head: ['quiet'] },
        limits: [{ reading: 'head', is: 'above', value: 0.1, partly: 'head.seen' }],
        evidence: 'The head goes {head} off its place over the shoulders. {limit} is the limit.',
        clear: 'The head stays within {head} of its place over the shoulders.',
      },
    ],
    why: 'A head that is thrown has no eyes on the target and nothing behind it when it is met.',
    cue: 'Quiet head.',
    drill: 'quiet-head',
    caution: 'Dizziness or a blow to the head: stop, and see a clinician.',
  },
  {
    id: 'head-stays',
    name: 'Head stays on the line',
    headline: 'The head stays where it can be met.',
    techniques: ['jab', 'cross'],
    link: 'trunk',
    phase: 'accelerate',
    cases: [
      {
        when: { head: ['slips'] },
        // Sinew's own starting value.
        limits: [{ reading: 'head', is: 'below', value: 0.08 }],
        evidence:
          'The head goes {head} off its place over the shoulders. {limit} is the least for a head that slips.',
        clear: 'The head goes {head} off its place over the shoulders.',
      },
    ],
    why: 'What comes back comes down the same line; a head that has slipped is not there.',
    cue: 'Ear to the shoulder as it goes.',
    drill: 'dip-and-go',
    caution: 'Dizziness or a blow to the head: stop, and see a clinician.',
    costs: 'cover',
  },
];

/** What hurts the student; these come before any power. */
export const INJURIES: readonly FaultRow[] = [
  {
    id: 'wrist-bent',
    name: 'Wrist bent',
    headline: 'The wrist breaks at contact.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'accelerate',
    injury: true,
    cases: [
      ...(['wrist.flex', 'wrist.side'] as const).map((reading) => ({
        id: reading === 'wrist.flex' ? 'flex' : 'side',
        limits: [{ reading, is: 'outside', value: (15 * Math.PI) / 180 } as const],
        evidence: `The hand is bent {${reading}} ${reading === 'wrist.flex' ? 'up or down' : 'sideways'} at contact. {limit} is the limit.`,
        clear: `The hand is bent {${reading}} ${reading === 'wrist.flex' ? 'up or down' : 'sideways'}.`,
      })),
      {
        id: 'eye',
        onlyIfSaid: true,
        limits: [{ eye: 'wrists' }],
        evidence: 'By eye: the wrist breaks at contact.',
        clear: 'By eye: one straight bone.',
      },
    ],
    why: 'A bent wrist takes the blow in its ligaments.',
    cue: 'One straight bone from elbow to knuckle.',
    drill: 'straight-touch',
    caution:
      'No power work until the coach has cleared it. Pain or numbness: stop, and see a clinician.',
  },
  {
    id: 'wrong-knuckles',
    name: 'Wrong knuckles',
    headline: 'It lands on the wrong knuckles.',
    techniques: PUNCHES,
    link: 'fist',
    phase: 'accelerate',
    injury: true,
    cases: [
      {
        // Where the last three land on purpose it is no leak, and has its own caution.
        when: { knuckles: ['first-two'] },
        limits: [{ eye: 'knuckles' }],
        evidence: 'By eye: the fist lands on the little-finger side or the palm.',
        clear: 'By eye: the right knuckles land.',
      },
      {
        id: 'palm',
        when: { knuckles: ['last-three'] },
        limits: [{ eye: 'knuckles' }],
        evidence:
          'By eye: it lands on the palm or on the little finger alone, not on the last three knuckles together.',
        clear: 'By eye: the last three knuckles land together.',
      },
    ],
    why: 'The little finger’s bone is thin and breaks behind the knuckle.',
    cue: 'Knuckles first, bones behind them.',
    drill: 'wrapped-touch',
    caution:
      'No power work until the coach has cleared it. The bones behind the last two knuckles are thin: hands wrapped, touch only on hard surfaces.',
  },
  {
    id: 'hyperextension',
    name: 'Elbow snaps straight',
    headline: 'The elbow snaps straight.',
    techniques: ['jab', 'cross', 'stepping-straight', 'chambered-straight', 'whip-straight'],
    link: 'elbow',
    phase: 'follow-through',
    injury: true,
    cases: [
      {
        limits: [{ reading: 'elbow.most', is: 'above', value: (178 * Math.PI) / 180 }],
        evidence: 'The elbow goes to {elbow.most} at the end of the strike. {limit} is the limit.',
        clear: 'The elbow goes to {elbow.most} at the end of the strike.',
      },
    ],
    why: 'With nothing hit, the whole of the arm’s speed is stopped by the joint.',
    cue: 'Leave a little bend.',
    drill: 'soft-end',
    caution: 'No power work until the coach has cleared it. Elbow pain: stop, and see a clinician.',
  },
  {
    id: 'nerve-side',
    name: 'Nerve side lands',
    headline: 'The nerve side of the elbow lands.',
    techniques: ALL.filter((id) => id.startsWith('elbow-')),
    link: 'shoulder',
    phase: 'accelerate',
    injury: true,
    cases: [
      {
        id: 'nerve-side',
        limits: [{ eye: 'nerve-side' }],
        evidence: 'By eye: the nerve side of the elbow meets the target.',
        clear: 'By eye: the nerve side is kept off the target.',
      },
      {
        id: 'palm-in',
        // Elbows that land the forearm.
        techniques: ['elbow-round', 'elbow-rise', 'elbow-up'],
        limits: [{ eye: 'palm-in' }],
        evidence:
          'By eye: the palm faces out, so the bare bone or the nerve side meets the target.',
        clear: 'By eye: the palm faces in.',
      },
    ],
    why: 'The nerve lies bare on the inside of the elbow.',
    cue: 'Palm in, muscle on the pad.',
    drill: 'elbow-air',
    caution:
      'No power work until the coach has cleared it. Numb fingers: stop, and see a clinician. Elbows to the head are illegal in many rule sets.',
  },
];
