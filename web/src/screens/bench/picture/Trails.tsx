'use client';

import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { sided } from '@sinew/core/foundation/body/landmarks';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikeOf, useBench } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useAnalysis } from '../document/useAnalysis';

/** Without a load to begin at: so long before the frame in hand, seconds. */
const BACK = 0.5;

/**
 * The way that striking end, elbow or knee, and belt have come since the load, a dot a frame: far apart
 * where they were fast.
 */
export function Trails({
  wayOf,
  unit,
}: {
  /** Where a point was, frame by frame, between two times. */
  wayOf: (landmark: Landmark, from: number, to: number) => readonly PixelPoint[];
  unit: number;
}) {
  const isOn = useBench((state) => state.isTrailOn);
  const strike = useBench(strikeOf);
  const frame = useBench((state) => state.shownFrame);
  const times = useRealTimes();
  const events = useAnalysis()?.events;
  if (!isOn || !strike || frame === null) return null;
  const now = times[frame]!;
  const load = events?.load?.time ?? events?.ready?.time;
  const from = load !== undefined && load < now ? load : now - BACK;
  const isKick = techniqueById(strike.technique).chain.includes('thigh');
  const of = (part: Parameters<typeof sided>[1]) => wayOf(sided(strike.side, part), from, now);
  const [left, right] = [wayOf('leftHip', from, now), wayOf('rightHip', from, now)];
  const belt =
    left.length === right.length
      ? left.map(({ x, y }, i) => ({ x: (x + right[i]!.x) / 2, y: (y + right[i]!.y) / 2 }))
      : left.length > right.length
        ? left
        : right;
  const ways = isKick
    ? [of('Ankle'), of('Knee'), belt]
    : [longer(of('IndexKnuckle'), of('Wrist')), of('Elbow'), belt];
  return (
    <g pointerEvents="none" data-trails>
      {ways.map((way, i) => (
        <Trail
          key={i}
          way={way}
          unit={unit}
          dash={[undefined, `${6 * unit} ${4 * unit}`, `${2 * unit} ${4 * unit}`][i]}
        />
      ))}
    </g>
  );
}

const longer = (a: readonly PixelPoint[], b: readonly PixelPoint[]) =>
  b.length > a.length ? b : a;

function Trail({ way, unit, dash }: { way: readonly PixelPoint[]; unit: number; dash?: string }) {
  if (way.length < 2) return null;
  const d = way.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('');
  return (
    <g fill="none" strokeLinecap="round" strokeLinejoin="round">
      <path d={d} stroke="#15130f" strokeOpacity={0.55} strokeWidth={4.5 * unit} />
      <path d={d} stroke="#fdfaf3" strokeWidth={1.8 * unit} strokeDasharray={dash} />
      {way.map(({ x, y }, i) => (
        <circle
          key={i}
          cx={x}
          cy={y}
          r={2.2 * unit}
          fill="#fdfaf3"
          stroke="#15130f"
          strokeWidth={0.8 * unit}
        />
      ))}
    </g>
  );
}
