/** Drills and their usual doses, as data. Doses are common practice, no source. */
import { z } from 'zod';
import { CHAIN } from '../technique/techniques';

export const drillSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().trim().min(1).max(120),
  /** Sets × repetitions or seconds; both sides unless it says otherwise. */
  dose: z.string().trim().max(120),
  link: z.enum(CHAIN),
});

export type Drill = z.infer<typeof drillSchema>;

export const DRILLS: readonly Drill[] = z.array(drillSchema).parse([
  { id: 'feet-to-hips', name: 'Feet-to-hips turn, no arms', dose: '3 × 10 slow', link: 'pelvis' },
  {
    id: 'three-count',
    name: 'Slow three-count: hips, trunk, hand',
    dose: '20 each stance, counted aloud',
    link: 'trunk',
  },
  {
    id: 'hand-waits',
    name: 'Hand on the wall of the guard; the hips call it',
    dose: '20 each stance',
    link: 'fist',
  },
  { id: 'dip-and-go', name: 'Dip and go, a drop under a line', dose: '3 × 10', link: 'knees' },
  {
    id: 'cheek-start',
    name: 'Fist-on-the-cheek start; partner calls every tell',
    dose: '20 each stance',
    link: 'fist',
  },
  { id: 'chin-string', name: 'String at chin height', dose: '20 each stance', link: 'fist' },
  {
    id: 'press-and-turn',
    name: 'Press and turn on the ball of the foot',
    dose: '3 × 10 a side',
    link: 'feet',
  },
  {
    id: 'top-down-turns',
    name: 'Top-down shoulder turns, feet quiet',
    dose: '20 full turns a side',
    link: 'trunk',
  },
  { id: 'stick-pivots', name: 'Slow pivots with a stick', dose: '3 × 8 a side', link: 'feet' },
  { id: 'paper-foot', name: 'Sheet of paper under the foot', dose: '20 each stance', link: 'feet' },
  { id: 'wall-post', name: 'Wall-side post and strike', dose: '3 × 10 a side', link: 'knees' },
  { id: 'low-line', name: 'Low-line rounds', dose: '2 rounds of 2 min', link: 'knees' },
  { id: 'belt-level', name: 'Belt-level shadow rounds', dose: '2 rounds of 2 min', link: 'pelvis' },
  {
    id: 'line-drill',
    name: 'Line drill: one foot on each rail',
    dose: '2 rounds of 2 min',
    link: 'feet',
  },
  { id: 'half-turn', name: 'Half-turn resets before a mirror', dose: '3 × 10', link: 'feet' },
  { id: 'half-step', name: 'Half-step range ladder', dose: '4 distances × 5', link: 'feet' },
  {
    id: 'range-ladder',
    name: 'Range ladder: the same target at four distances',
    dose: '4 distances × 5',
    link: 'elbow',
  },
  { id: 'wall-side', name: 'Wall-side jab and cross', dose: '20 each stance', link: 'elbow' },
  { id: 'freeze-hooks', name: 'Freeze-frame hooks', dose: '3 × 8 a side', link: 'elbow' },
  {
    id: 'loose-turns',
    name: 'Loose turns; shoulder springs',
    dose: '20 turns, 20–30 springs',
    link: 'trunk',
  },
  { id: 'three-ranges', name: 'Bag at three ranges', dose: '3 × 10', link: 'elbow' },
  {
    id: 'pull-push',
    name: 'Pull one shoulder to send the other, hands on the chest',
    dose: '3 × 10 slow',
    link: 'trunk',
  },
  { id: 'target-through', name: 'Target-through pads', dose: '3 × 10', link: 'fist' },
  { id: 'snap-rounds', name: 'Snap rounds', dose: '2 rounds of 2 min', link: 'fist' },
  {
    id: 'echo',
    name: 'Echo drill: partner claps, hand is home before the echo',
    dose: '20 each stance',
    link: 'fist',
  },
  { id: 'cheek-ball', name: 'Ball held at the cheek', dose: '2 rounds of 2 min', link: 'shoulder' },
  {
    id: 'quiet-head',
    name: 'Beanbag on the head, slow strikes',
    dose: '20 each stance',
    link: 'trunk',
  },
  { id: 'step-hit', name: 'Step and hit to a metronome', dose: '3 × 10', link: 'feet' },
  { id: 'step-turn', name: 'Step, turn, return', dose: 'up to 500 a day', link: 'feet' },
  {
    id: 'under-line',
    name: 'Under-the-line stands',
    dose: 'sets until form fades, stop there',
    link: 'knees',
  },
  { id: 'squat-drop', name: 'Squat or lunge onto the pad', dose: '3 × 8', link: 'knees' },
  {
    id: 'elbow-forms',
    name: 'Elbow five minutes: each form through the pad',
    dose: '30 s a form, about 5 min a day',
    link: 'shoulder',
  },
  { id: 'plant-other', name: 'Strike, plant, other side', dose: '3 × 10', link: 'feet' },
  { id: 'wall-pivots', name: 'Wall-held pivots', dose: '3 × 10 a side', link: 'feet' },
  {
    id: 'tall-kicks',
    name: 'Kicks with a hand on the wall, tall',
    dose: '3 × 8 a side',
    link: 'pelvis',
  },
  {
    id: 'wall-press',
    name: 'Wall presses, then the light bag',
    dose: '3 × 20 s, light only',
    link: 'fist',
  },
  {
    id: 'knuckle-press',
    name: 'Press-ups on the landing knuckles, soft mat',
    dose: '2 × 8',
    link: 'fist',
  },
  {
    id: 'soft-end',
    name: 'Shadow straights that stop with a bend left',
    dose: '20 each stance, slow',
    link: 'elbow',
  },
  {
    id: 'chain-pairs',
    name: 'Chains of two: 2–3 and 3–2',
    dose: '2 rounds of 2 min',
    link: 'pelvis',
  },
  {
    id: 'speed-ladder',
    name: 'Speed ladder: slow, tempo, full',
    dose: '3 clean sets a step',
    link: 'trunk',
  },
  { id: 'last-round', name: 'Last round under a string', dose: '1 round', link: 'knees' },
  {
    id: 'echo-pairs',
    name: 'As one returns the other goes, on a call',
    dose: '2 rounds of 2 min',
    link: 'fist',
  },
]);

export function drillById(id: string, drills: readonly Drill[] = DRILLS): Drill | undefined {
  return drills.find((drill) => drill.id === id);
}
