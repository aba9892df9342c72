/** The coarse pass: where the student is, a few times a second, over the whole film. */
import { withRoom, type Box } from '@sinew/core/observe/track/box';
import type { Found, Person } from '../api/job';
import { overlap } from './plan';

/** Everybody seen in a part of a frame, as boxes, the surest first. */
export type SeeBoxes = (frame: number, within: Box) => Promise<readonly Box[]>;

/** Room round the last box in which the next is looked for, as a share of it. */
const NEXT = 0.6;
/** A box that shares less than this with the one before is somebody else's. */
const SAME = 0.15;
/** How often, at most, the whole picture is looked at to see who else is there, or part by part. */
const LOOKS_AT_ALL = 8;
/** The coach's box is drawn close; a body moves out of it, as a share. */
const DRAWN = 0.25;

/**
 * @param frames to look at, ascending
 * @param drawn whom the coach has drawn a box round; null when the largest is the student
 * @param onProgress called with a share of the work, 0 to 1
 */
export async function findPeople(
  see: SeeBoxes,
  frames: readonly number[],
  size: { readonly width: number; readonly height: number },
  drawn: Person | null,
  onProgress: (share: number) => void,
): Promise<Found> {
  const { width, height } = size;
  const whole: Box = { x: 0, y: 0, width, height };
  const people = new Map<number, Box>();
  let done = 0;
  let most = 0;
  let searches = 0;
  const every = Math.max(1, Math.floor(frames.length / LOOKS_AT_ALL));

  const follow = async (order: readonly number[], first: Box | null) => {
    let last = first;
    for (const [index, frame] of order.entries()) {
      const near = last && withRoom(last, last === drawn?.box ? DRAWN : NEXT, size);
      const isLookingRound = !drawn && index % every === 0;
      const found = await (near && !isLookingRound ? see(frame, near) : lookEverywhere(frame));
      if (isLookingRound) most = Math.max(most, apart(found));
      // Somebody small is not seen in the whole picture, only near where they were.
      const isLost = isLookingRound && near !== null && !closest(found, last!);
      const seen = isLost ? [...found, ...(await see(frame, near))] : found;
      const student = last ? closest(seen, last) : largest(seen, (box) => box);
      if (student) people.set(frame, student);
      // Lost: the next look is at the whole picture, unless the coach has said who it is.
      last = student ?? (drawn ? last : null);
      done += 1;
      onProgress(done / frames.length);
    }
  };
  /** Somebody small is only found in an enlarged part. */
  const lookEverywhere = async (frame: number): Promise<readonly Box[]> => {
    const found = await see(frame, whole);
    if (found.length > 0 || searches >= LOOKS_AT_ALL) return found;
    searches += 1;
    for (const part of parts(whole)) {
      const small = await see(frame, part);
      if (small.length > 0) return small;
    }
    return [];
  };

  if (drawn) {
    const start = frames.findIndex((frame) => frame >= drawn.frame);
    const middle = start < 0 ? frames.length : start;
    await follow(frames.slice(middle), drawn.box);
    await follow(frames.slice(0, middle).reverse(), drawn.box);
  } else {
    await follow(frames, null);
  }
  return {
    people: [...people].sort(([a], [b]) => a - b).map(([frame, box]) => ({ frame, box })),
    most: Math.max(most, people.size > 0 ? 1 : 0),
  };
}

const area = ({ width, height }: Box) => width * height;

/** Of several people the one whose box is largest; null of none. */
export function largest<Person>(
  people: readonly Person[],
  box: (person: Person) => Box,
): Person | null {
  return people.reduce<Person | null>((a, b) => (a && area(box(a)) >= area(box(b)) ? a : b), null);
}

function closest(boxes: readonly Box[], to: Box): Box | null {
  const best = boxes.reduce<Box | null>(
    (a, b) => (a && overlap(a, to) >= overlap(b, to) ? a : b),
    null,
  );
  return best && overlap(best, to) >= SAME ? best : null;
}

/** How many of the boxes are different people. */
function apart(boxes: readonly Box[]): number {
  const counted: Box[] = [];
  for (const box of boxes) {
    if (counted.every((other) => overlap(other, box) < 0.3)) counted.push(box);
  }
  return counted.length;
}

/** Six overlapping parts, each half as wide and two thirds as high. */
function parts({ width, height }: Box): Box[] {
  return [0, 1 / 3].flatMap((top) =>
    [0, 1 / 4, 1 / 2].map((left) => ({
      x: left * width,
      y: top * height,
      width: width / 2,
      height: (2 * height) / 3,
    })),
  );
}
