/**
 * A motion with its jumps left out and its noise read: what of a marker system or another's tracker is
 * believed is what its own points show. A body tracker of ours tells its own noise, and points placed by
 * hand have none that could be read.
 */
import { readNoise } from '../../foundation/signal/noise';
import { withoutSpikes } from '../../foundation/signal/spikes';
import type { Landmark } from '../../foundation/body/landmarks';
import type { Motion, Path } from './motion';
import { isDense, withGapsFilled } from './prepare';

/**
 * Of a track that somebody has smoothed already nothing can be read: what is left of its noise comes and
 * goes over about this time, seconds (a low-pass of 6 to 10 Hz).
 */
const SMOOTHED_HANGS = 0.025;
/** Told to be so many times noisier than they look: somebody has smoothed them. */
const TOO_SMOOTH = 3;
/** Told to be surer than any tracker is: made-up points, which are smooth by themselves. */
const EXACT = { metres: 0.0005, pixels: 0.3 } as const;

export function cleaned(motion: Motion): Motion {
  const entries = Object.entries(motion.raw) as [Landmark, Path][];
  const dense = entries.filter(([, path]) => !path.isTracked && isDense(path));
  const first = dense[0]?.[1];
  if (!first) return motion;
  const spacing = spacingOf(motion.frameTimes);
  const kept = dense.map(([name, path]) => [name, withoutJumps(path, spacing)] as const);
  const axes = motion.axes.length;
  const noise = readNoise(
    kept.flatMap(([, { frames, along }]) => along.map((values) => ({ frames, values }))),
    spacing,
  );
  const hangs = noise.hangs ?? SMOOTHED_HANGS;
  const raw: Partial<Record<Landmark, Path>> = { ...motion.raw };
  kept.forEach(([name, path], i) => {
    const own = noise.sigmas.slice(i * axes, (i + 1) * axes);
    const read = Math.sqrt(own.reduce((sum, one) => sum + one ** 2, 0) / own.length);
    const sigma = path.sigma.map((told) => (noise.hangs === null ? told : Math.max(told, read)));
    raw[name] = withGapsFilled({ ...path, sigma, hangs }, motion.frameTimes);
  });
  const told = kept.map(([, { sigma }]) => sigma[0]!).sort((a, b) => a - b)[kept.length >> 1]!;
  const shown = [...noise.sigmas].sort((a, b) => a - b)[noise.sigmas.length >> 1]!;
  const isExact = told < EXACT[motion.metric ? 'metres' : 'pixels'];
  const isSmoothed = noise.hangs === null && !isExact && told > TOO_SMOOTH * shown;
  return { ...motion, raw, paths: raw, isSmoothed };
}

const spacingOf = (times: readonly number[]) =>
  (times[times.length - 1]! - times[0]!) / Math.max(1, times.length - 1);

function withoutJumps(path: Path, spacing: number): Path {
  const isKept = withoutSpikes(path.frames, path.along, spacing);
  if (!isKept.includes(false)) return path;
  const pick = <T>(list: readonly T[]) => list.filter((_, i) => isKept[i]);
  return {
    ...path,
    frames: pick(path.frames),
    times: pick(path.times),
    along: path.along.map(pick),
    sigma: pick(path.sigma),
    bias: pick(path.bias),
  };
}
