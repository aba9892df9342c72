import type { Step } from './trackClip';

/** What the tracker is doing, as a coach would say it. */
export function stepName({ doing }: Step): string {
  return {
    survey: 'Going through the film',
    people: 'Looking for the student',
    body: 'Finding the body, frame by frame',
    bands: 'Reading the bands',
  }[doing];
}
