/** Drills and their doses, as data. All doses are Sinew's own; the coach decides. */
import { z } from 'zod';
import { CHAIN } from '../technique/techniques';
import { DEMANDS } from './demand';

export const drillSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().trim().min(1).max(120),
  /** Sets × repetitions or seconds; both sides unless it says otherwise. */
  dose: z.string().trim().max(120),
  link: z.enum(CHAIN),
  /** What it asks of a body, and so who leaves it out. */
  asks: z.array(z.enum(DEMANDS)).default([]),
});

export type Drill = z.infer<typeof drillSchema>;

/**
 * Small sets that end while form is clean: 3–5 sets of 6–12 for skill. No drill loads what its leak
 * flags: who lands on the wrong knuckles touches, wrapped, and does not press up on them.
 */
export const DRILLS: readonly Drill[] = z.array(drillSchema).parse([
  { id: 'feet-to-hips', name: 'Feet-to-hips turn, no arms', dose: '3 × 8 slow', link: 'pelvis' },
  {
    id: 'three-count',
    name: 'Slow three-count: hips, trunk, hand',
    dose: '3 × 8, counted aloud',
    link: 'trunk',
  },
  {
    id: 'hand-waits',
    name: 'Hand on the wall of the guard; the hips call it',
    dose: '3 × 8 slow',
    link: 'fist',
  },
  { id: 'dip-and-go', name: 'Dip and go, a drop under a line', dose: '3 × 8', link: 'knees' },
  {
    id: 'cheek-start',
    name: 'Fist-on-the-cheek start; partner calls every tell',
    dose: '3 × 8',
    link: 'fist',
  },
  { id: 'chin-string', name: 'String at chin height', dose: '3 × 8', link: 'fist' },
  {
    id: 'press-and-turn',
    name: 'Press and turn on the ball of the foot',
    dose: '3 × 8 a side',
    link: 'feet',
  },
  {
    id: 'top-down-turns',
    name: 'Top-down shoulder turns, feet quiet',
    dose: '3 × 6 a side, slow',
    link: 'trunk',
    asks: ['rotation', 'twist'],
  },
  { id: 'stick-pivots', name: 'Slow pivots with a stick', dose: '3 × 6 a side', link: 'feet' },
  {
    id: 'paper-foot',
    name: 'Sheet of paper under the foot',
    dose: '3 × 8',
    link: 'feet',
    asks: ['twist'],
  },
  {
    id: 'wall-post',
    name: 'Wall-side post and strike',
    dose: '3 × 6 a side',
    link: 'knees',
    asks: ['twist'],
  },
  { id: 'low-line', name: 'Low-line shadow', dose: '4 × 30 s', link: 'knees' },
  { id: 'belt-level', name: 'Belt-level shadow', dose: '4 × 30 s', link: 'pelvis' },
  {
    id: 'line-drill',
    name: 'Line drill: one foot on each of two tracks',
    dose: '4 × 30 s',
    link: 'feet',
  },
  { id: 'half-turn', name: 'Half-turn resets before a mirror', dose: '3 × 8', link: 'feet' },
  { id: 'half-step', name: 'Half-step range ladder', dose: '4 distances × 4', link: 'feet' },
  {
    id: 'range-ladder',
    name: 'Range ladder: the same target at four distances',
    dose: '4 distances × 4',
    link: 'elbow',
    asks: ['impact'],
  },
  { id: 'wall-side', name: 'Wall-side jab and cross', dose: '3 × 8', link: 'elbow' },
  { id: 'freeze-hooks', name: 'Freeze-frame hooks', dose: '3 × 6 a side', link: 'elbow' },
  {
    id: 'loose-turns',
    name: 'Loose turns, the shoulder low',
    dose: '3 × 8 slow',
    link: 'trunk',
    asks: ['rotation'],
  },
  {
    id: 'three-ranges',
    name: 'Bag at three ranges',
    dose: '3 distances × 6',
    link: 'elbow',
    asks: ['impact'],
  },
  {
    id: 'pull-push',
    name: 'Pull one shoulder to send the other, hands on the chest',
    dose: '3 × 8 slow',
    link: 'trunk',
  },
  {
    id: 'target-through',
    name: 'Target-through pads',
    dose: '4 × 6',
    link: 'fist',
    asks: ['impact'],
  },
  {
    id: 'snap-rounds',
    name: 'Snap on the bag, in and out',
    dose: '4 × 6',
    link: 'fist',
    asks: ['impact'],
  },
  {
    id: 'echo',
    name: 'Echo drill: partner claps, hand is home before the echo',
    dose: '3 × 8',
    link: 'fist',
  },
  { id: 'cheek-ball', name: 'Ball held at the cheek', dose: '4 × 30 s', link: 'shoulder' },
  {
    id: 'quiet-head',
    name: 'Beanbag on the head, slow strikes',
    dose: '3 × 8 slow',
    link: 'trunk',
  },
  { id: 'step-hit', name: 'Step and hit to a metronome', dose: '3 × 8', link: 'feet' },
  { id: 'step-turn', name: 'Step, turn, return', dose: '3 × 12', link: 'feet' },
  {
    id: 'under-line',
    name: 'Under-the-line stands',
    dose: '3 × 8, stop when form fades',
    link: 'knees',
  },
  {
    id: 'squat-drop',
    name: 'Squat or lunge onto the pad',
    dose: '3 × 6',
    link: 'knees',
    asks: ['impact'],
  },
  {
    id: 'elbow-forms',
    name: 'Two elbow forms, air then pad, replant between',
    dose: '4 × 6',
    link: 'shoulder',
    asks: ['impact'],
  },
  {
    id: 'elbow-air',
    name: 'Elbows in the air, then a light touch with the muscle side',
    dose: '3 × 6 a side, slow',
    link: 'shoulder',
  },
  { id: 'plant-other', name: 'Strike, plant, other side', dose: '3 × 8', link: 'feet' },
  { id: 'wall-pivots', name: 'Wall-held pivots', dose: '3 × 6 a side', link: 'feet' },
  {
    id: 'chamber-stop',
    name: 'Chamber, extend, chamber: one word each',
    dose: '3 × 6 a side',
    link: 'thigh',
  },
  {
    id: 'hip-over',
    name: 'Support foot and hip turn at the wall',
    dose: '3 × 6 a side',
    link: 'pelvis',
  },
  {
    id: 'kick-guard',
    name: 'Slow kicks with both gloves on the cheeks',
    dose: '3 × 6 a side',
    link: 'shoulder',
  },
  {
    id: 'swing-arm',
    name: 'The arm of the kicking side swings back as the leg goes',
    dose: '3 × 6 a side',
    link: 'trunk',
  },
  {
    id: 'toes-back',
    name: 'Toes back: slow kicks to a wall pad, ball of the foot first',
    dose: '3 × 6 a side',
    link: 'foot',
  },
  {
    id: 'soft-knee',
    name: 'Slow kicks that stop with a bend left',
    dose: '3 × 6 a side',
    link: 'shank',
  },
  {
    id: 'kick-home',
    name: 'Kick, and set the foot down on the mark it left',
    dose: '3 × 6 a side',
    link: 'feet',
  },
  {
    id: 'push-turn',
    name: 'Push off one foot, land on the other: weight across on a line',
    dose: '3 × 8',
    link: 'feet',
  },
  {
    id: 'shoulder-first',
    name: 'Shoulder taps: the shoulder goes, the fist follows',
    dose: '3 × 8 slow',
    link: 'shoulder',
  },
  {
    id: 'tall-kicks',
    name: 'Kicks with a hand on the wall, tall',
    dose: '3 × 6 a side',
    link: 'pelvis',
  },
  {
    id: 'straight-touch',
    name: 'Light wall touches, one straight bone',
    dose: '3 × 8, light',
    link: 'fist',
  },
  {
    id: 'wrapped-touch',
    name: 'Wrapped pad touches, the coach watching which knuckles land',
    dose: '3 × 6 slow',
    link: 'fist',
  },
  {
    id: 'soft-end',
    name: 'Shadow straights that stop with a bend left',
    dose: '3 × 8 slow',
    link: 'elbow',
  },
  { id: 'chain-pairs', name: 'Chains of two: 2–3 and 3–2', dose: '3 × 6', link: 'pelvis' },
  {
    id: 'speed-ladder',
    name: 'Speed ladder: slow, tempo, full',
    dose: '3 speeds × 6',
    link: 'trunk',
  },
  { id: 'last-round', name: 'Last round under a string', dose: '1 round of 2 min', link: 'knees' },
  {
    id: 'echo-pairs',
    name: 'As one returns the other goes, on a call',
    dose: '3 × 8',
    link: 'fist',
  },
] satisfies z.input<typeof drillSchema>[]);

export function drillById(id: string, drills: readonly Drill[] = DRILLS): Drill | undefined {
  return drills.find((drill) => drill.id === id);
}
