'use client';

import { nearestFrame } from '@sinew/core/observe/track/time';
import type { FilmOfStrike } from '@/data/finding/comparing';
import { FilmFrame } from '@/ui/filmFrame';

/** The frame of a strike's film that is nearest to a time from contact. */
export function FrameAt({
  film: { clip, times },
  time,
  label,
}: {
  film: FilmOfStrike;
  time: number;
  label: string;
}) {
  const frame = nearestFrame(times, time);
  return <FilmFrame clip={clip} frame={frame} label={`${label}, frame ${frame}`} />;
}
