/** The part of the body that arrives. */
import { sided, type Side } from '@sinew/core/foundation/body/landmarks';
import type { Technique } from '@sinew/core/foundation/technique/techniques';
import { END_PARTS } from '@sinew/core/foundation/technique/end';
import type { Pose } from './pose';
import { mix, type Point } from './space';

/** Where the striking end is in a pose, metres. */
export function strikingEnd({ end }: Technique, side: Side): (pose: Pose) => Point {
  const parts = END_PARTS[end].map((part) => sided(side, part));
  return (pose) => mix(pose[parts[0]!], pose[parts[parts.length - 1]!], 0.5);
}
