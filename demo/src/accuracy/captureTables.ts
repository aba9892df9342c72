/** The tables of docs/accuracy.md on sound, offsets, splits, lengths, lenses and two views. */
import {
  lengthTrials,
  lensTrials,
  offsetTrials,
  soundTrials,
  spaceTrials,
  splitTrials,
} from '@sinew/fighters/trials/capture';
import { quantile, table } from './table';

const seeds = (count: number) => Array.from({ length: count }, (_, i) => i + 1);

/** "median / 95th percentile" of the sizes of errors. */
function spread(errors: readonly number[], factor: number, digits: number): string {
  if (errors.length === 0) return '–';
  const sizes = errors.map((error) => factor * Math.abs(error));
  return `${quantile(sizes, 0.5).toFixed(digits)} / ${quantile(sizes, 0.95).toFixed(digits)}`;
}

const percent = (part: number, whole: number) =>
  whole === 0 ? '–' : `${((100 * part) / whole).toFixed(0)}`;

const GLOVE = 0.6;
const roomSays = (room: number) => `${Math.round(20 * Math.log10(GLOVE / room))} dB below a hit`;

function sound(): string {
  return table(
    ['room', 'hits', 'missed', 'invented', 'error, ms', 'within ±, %'],
    [0.001, 0.004, 0.02, 0.06].map((room) => {
      const found = soundTrials(room, seeds(20));
      const { all, missed, invented, errors, covered } = found;
      return [
        roomSays(room),
        ...[all, missed, invented].map(String),
        spread(errors, 1000, 2),
        percent(covered, errors.length),
      ];
    }),
  );
}

function offsets(): string {
  const cases = [true, false].flatMap((isMeasured) =>
    [0.004, 0.02, 0.06].map((room) => ({ isMeasured, room })),
  );
  return table(
    ['distances to the bag', 'room', 'takes joined', 'error, ms', 'within ±, %'],
    cases.map(({ isMeasured, room }) => {
      const { errors, covered, refused } = offsetTrials(room, isMeasured, seeds(20));
      return [
        isMeasured ? 'known' : 'not known',
        roomSays(room),
        `${errors.length} of ${errors.length + refused.length}`,
        spread(errors, 1000, 2),
        percent(covered, errors.length),
      ];
    }),
  );
}

function splits(): string {
  const cases = [true, false].flatMap((isHeard) =>
    [30, 60, 120].map((rate) => ({ isHeard, rate })),
  );
  return table(
    [
      'frames a second',
      'sound',
      'strikes',
      'missed',
      'invented',
      'pairs mistaken',
      'contact off by, ms',
      'within ±, %',
    ],
    cases.map(({ isHeard, rate }) => {
      const found = splitTrials(rate, isHeard, seeds(20));
      const { all, missed, invented, errors, covered, wrongPairs } = found;
      return [
        String(rate),
        isHeard ? 'yes' : 'no',
        ...[all, missed, invented].map(String),
        isHeard ? String(wrongPairs) : '–',
        isHeard ? spread(errors, 1000, 1) : 'not told',
        isHeard ? percent(covered, errors.length) : '–',
      ];
    }),
  );
}

function lengths(): string {
  return table(
    ['corners and ends off by, px', 'error, % of a metre', 'within ±, %'],
    [0, 1, 3].map((sigma) => {
      const { errors, covered } = lengthTrials(sigma, seeds(100));
      return [String(sigma), spread(errors, 100, 2), percent(covered, errors.length)];
    }),
  );
}

function lenses(): string {
  const cases = [-0.1, 0.05, 0.2].flatMap((bend) => [0, 1].map((sigma) => ({ bend, sigma })));
  return table(
    ['bow', 'places off by, px', 'left in the corner, px', 'without a lens set, px'],
    cases.map(({ bend, sigma }) => {
      const { left, without } = lensTrials(bend, sigma, seeds(20));
      return [`${100 * bend} %`, String(sigma), spread(left, 1, 1), without.toFixed(0)];
    }),
  );
}

function space(): string {
  return table(
    ['corners and points off by, px', 'error, mm', 'within ±, %'],
    [0, 1, 3].map((sigma) => {
      const { errors, covered } = spaceTrials(sigma, seeds(6));
      return [String(sigma), spread(errors, 1000, 1), percent(covered, errors.length)];
    }),
  );
}

export function captureSection(): string {
  return `## Sound, two clocks, and strikes in a take

Made-up takes of three to nine strikes, pairs among them (\`fighters/src/film/randomTake.ts\`), heard through a room's noise. Each error cell: median / 95th percentile.

Hits found in the sound:

${sound()}

The offset between two cameras' clocks, from the sound of both. Sound needs 2.9 ms a metre: unless the distances to the bag are known (two rectangles on the floor tell them), the offset is off by the difference, and its ± says so.

${offsets()}

Strikes found in a take, by how much moves and, where there is sound, by what is hit. Without sound a strike is where much moves, and its contact is left to the coach. A pair is mistaken when two strikes are taken for one combination and are none, or the other way round.

${splits()}

## Metres from a picture

A metre rod in the plane of the strike, leaning any way, read with the ruler from an oblique side view (5.5 m away) by a taped rectangle of 2 × 1.5 m on the floor:

${lengths()}

The bow of a lens from seven places on each of two straight edges near the border of a 1280 × 720 picture:

${lenses()}

## Two views

All 23 landmarks of a cross placed in both films of the demo's take on every fourth frame, each camera found from the same rectangle on the floor, triangulated and held against the truth; what all points share (corners clicked amiss move the whole body alike) is taken off.

${space()}`;
}
