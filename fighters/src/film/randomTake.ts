/** Takes made up by a seed, for trying what finds strikes and joins films on more than one. */
import type { Activity } from '@sinew/core/observe/take/strikes';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { durationOf } from '../fighter/pose';
import { clean } from '../fighter/recipe';
import { project } from './camera';
import { takeMover, DEMO_TAKE, type DemoTake, type TakeFilm, type TakeStrike } from './takes';
import { filmTimes } from './takeTruth';

const cross = clean('cross', { height: 1.76 });
const jab = clean('jab', { height: 1.76, reach: 0.83 });

/** The second of a combination leaves when the first is on its way home. */
const CUT_SHORT = 0.9;
const OWN_START = 0.2;

/** Three to seven strikes with rests between them, every third or so the first of a pair. */
export function randomTake(seed: number, rate: number): DemoTake {
  const random = seeded(seed);
  const strikes: TakeStrike[] = [];
  let at = 0.5 + random();
  const count = 3 + Math.floor(5 * random());
  while (strikes.length < count) {
    const isPair = random() < 0.35;
    const recipe = isPair || random() < 0.3 ? jab : cross;
    strikes.push({ recipe, at, from: 0 });
    if (isPair) {
      at += CUT_SHORT;
      strikes.push({ recipe: cross, at, from: OWN_START });
      at -= OWN_START;
    }
    at += durationOf(cross) + 0.3 + 1.5 * random();
  }
  const [first, second] = DEMO_TAKE.films as [TakeFilm, TakeFilm];
  return {
    ...DEMO_TAKE,
    strikes,
    duration: at + 0.5,
    films: [
      { ...first, rate, starts: 0.2 * random() },
      { ...second, rate, starts: 0.2 + random() },
    ],
  };
}

/** Half the width of what moves with a joint, metres. */
const LIMB = 0.06;
/** What a camera's noise adds to the movement of every frame, as a share of the picture. */
const FLICKER = 2e-5;

/** How much of a film's picture changes from frame to frame: what every joint sweeps over. */
export function activityOf(take: DemoTake, film: TakeFilm, seed: number): Activity {
  const random = seeded(seed);
  const pose = takeMover(take);
  const times = filmTimes(take, film);
  const { width, height } = film.camera;
  const seen = times.map((time) =>
    Object.values(pose(time + film.starts)).map((joint) => project(film.camera, joint)),
  );
  const pixels = height / 2.4;
  const amounts = seen.map((joints, i) => {
    const before = seen[i - 1];
    if (!before) return 0;
    const swept = joints.reduce(
      (sum, joint, k) => sum + Math.hypot(joint.x - before[k]!.x, joint.y - before[k]!.y),
      0,
    );
    const share = (0.3 * swept * 2 * LIMB * pixels) / (width * height);
    return (share + FLICKER * Math.abs(normal(random))) * film.rate;
  });
  return { times, amounts };
}
