/** A band's turn in every frame, exactly: the body's place and distance held steady over time. */
import { mean, median } from 'd3-array';
import { fitted, type Fit } from './fit';
import type { Rough, Sight } from './match';
import { centreOf, expectedAt, LEAST_LIKE, type Candidate } from './search';

/** A share explained of less than this is no reading. */
const LEAST_EXPLAINED = 0.6;
/** Between black and white bars, grey levels: less is no print. */
const LEAST_CONTRAST = 15;
/**
 * How far the tracker's middle goes astray and comes back, metres, one standard deviation: by 3 to 12 mm in sixteen
 * films of made-up fighters. Held to 3 mm, a jump of it was read as a turn.
 */
const ASTRAY = 0.007;
/** A distance hardly changes from frame to frame; relative. */
const DISTANCE_HELD = 0.006;
/** Seconds to either side over which the torso keeps its place against the tracker's, and its distance. */
const STEADY = 0.33;
/** Seconds to either side over which the tracker's middle is averaged. */
const SMOOTH = 0.03;

/**
 * @param spacing seconds from frame to frame
 * @param before fits to begin from, where there are any
 */
export function refined(
  sights: readonly (Sight | null)[],
  spacing: number,
  way: readonly Rough[],
  { torso, distance, free }: Pick<Candidate, 'torso' | 'distance' | 'free'>,
  before: readonly (Fit | null)[] = [],
): (Fit | null)[] {
  const first = sights.map((sight, i) => {
    if (!sight || way[i]!.likeness <= LEAST_LIKE) return null;
    const expected = expectedAt(sight, way[i]!, distance, free);
    const known = before[i]?.pose;
    return fitted(torso, sight, known ? { ...expected, pose: known } : expected);
  });
  const good = (fit: Fit | null | undefined): fit is Fit =>
    !!fit && fit.explained > LEAST_EXPLAINED && fit.contrast > LEAST_CONTRAST;
  const [smooth, long] = [SMOOTH, STEADY].map((one) => Math.max(1, Math.round(one / spacing))) as [
    number,
    number,
  ];
  const centres = sights.map((_, i) => {
    const near = sights
      .slice(Math.max(0, i - smooth), i + smooth + 1)
      .filter((one) => one !== null);
    return mean(near, centreOf) ?? 0;
  });
  const steady = (i: number) => {
    const from = Math.max(0, i - long);
    const known = first
      .slice(from, i + long + 1)
      .flatMap((fit, k) => (good(fit) ? [{ fit, at: from + k }] : []));
    if (known.length < 3) return null;
    // Against the strip's own middle, which goes where the body goes.
    return {
      off: median(known, ({ fit, at }) => fit.pose.bearing - centres[at]!)!,
      distance: median(known, ({ fit }) => fit.pose.distance)!,
    };
  };
  return sights.map((sight, i) => {
    const held = sight && steady(i);
    if (!held) return null;
    const bearing = centres[i]! + held.off;
    const turn = first[i] ? first[i]!.pose.turn : way[i]!.turn - bearing;
    const pose = { turn, bearing, distance: held.distance };
    const expected = { pose, bearing: ASTRAY / held.distance, distance: DISTANCE_HELD };
    const fit = fitted(torso, sight, expected);
    return good(fit) ? fit : null;
  });
}
