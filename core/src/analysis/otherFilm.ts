/**
 * The same strike in another film of its take, where nothing joins the two but the clock: each picture is read by
 * itself, and what one shows more surely than the other is taken from there.
 */
import { isAbsent, type Measured, type Reading } from '../foundation/reading/reading';
import type { Readings } from '../measure/measures/allMeasures';
import { nearestFrame } from '../observe/track/time';
import type { Offset } from '../observe/sound/sync';
import type { Events } from '../measure/events/events';

/** Real times of the other film by the clock of the film in hand, seconds. */
export function atOurClock(frameTimes: readonly number[], { seconds }: Offset): number[] {
  return frameTimes.map((time) => time - seconds);
}

/**
 * Instants known in the film in hand, for the other: on its own frames, and as unsure as the two clocks are.
 *
 * @param frameTimes of the other film, by the clock of the film in hand
 */
export function instantsThere(
  instants: Events,
  frameTimes: readonly number[],
  { sigma }: Offset,
): Events {
  return Object.fromEntries(
    Object.entries(instants).map(([name, mark]) => [
      name,
      {
        ...mark,
        frame: nearestFrame(frameTimes, mark.time),
        sigma: Math.hypot(mark.sigma, sigma),
      },
    ]),
  );
}

interface Timed {
  readonly frameTimes: readonly number[];
}

/**
 * Readings of the film in hand, with those of the other that it does not have, or that the other shows more surely.
 * What a picture shows goes before what a tracker guesses.
 * Two that are further apart than their σ allow are each less sure by as much (Birge, Phys. Rev. 40 (1932) 207).
 * Spans of time are only filled in: each goes with the instants of its own film.
 */
export function readInOther(own: Readings, here: Timed, others: Readings, there: Timed): Readings {
  const brought = (one: Reading): Reading => ({
    ...one,
    isElsewhere: true,
    frames: one.frames.map((frame) => nearestFrame(here.frameTimes, there.frameTimes[frame]!)),
  });
  const entries = Object.entries(own) as [keyof Readings, Measured][];
  return Object.fromEntries(
    entries.map(([id, reading]): [keyof Readings, Measured] => {
      const other = others[id];
      if (isAbsent(other)) return [id, reading];
      if (isAbsent(reading)) return [id, brought(other)];
      if (reading.unit === 's') return [id, reading];
      // A guess is not set against what a picture shows.
      const [isGuessHere, isGuessThere] = [reading, other].map(
        ({ source }) => source === 'estimated-3d',
      );
      if (isGuessHere !== isGuessThere) return [id, isGuessHere ? brought(other) : reading];
      const surer = other.sigma < reading.sigma ? brought(other) : reading;
      const apart = Math.abs(other.value - reading.value) / Math.hypot(other.sigma, reading.sigma);
      return [id, apart > 1 ? { ...surer, sigma: surer.sigma * apart } : surer];
    }),
  ) as Readings;
}
