'use client';

import { useEffect, useState } from 'react';
import { checkLight, checkRate } from '@sinew/core/observe/footage/check';
import { greyFrom, lightOf, type Light } from '@sinew/core/observe/footage/grey';
import type { Rate } from '@sinew/core/observe/footage/rate';
import type { Question } from '@sinew/core/foundation/technique/questions';
import { CheckLines } from '@/ui/checkLines';
import type { Level } from '@/video/sound';

/** Before the take: whether rate and light are enough, and how loud it is. */
export function LiveCheck({
  stream,
  rate,
  level,
  question,
}: {
  stream: MediaStream | null;
  rate: Rate | null;
  level: Level | null;
  question: Question;
}) {
  const light = useLight(stream);
  const lines = [
    ...(rate ? [checkRate({ rate }, question)] : []),
    ...(light ? [checkLight({ light })] : []),
  ];
  return (
    <div
      aria-live="off"
      className="overflow-hidden border-ink px-5 py-1.5 max-md:border-t max-md:px-4 max-md:py-3 max-md:text-2xl md:h-28 md:w-[37%] md:min-w-80 md:border-l md:text-sm"
    >
      {level && (
        <div className="flex items-center gap-3">
          <span>Sound</span>
          <meter
            aria-label="Sound level"
            min={QUIETEST}
            max={0}
            value={level.peak}
            className="sr-only"
          />
          <span aria-hidden className="h-2 flex-1 border border-ink">
            <span
              className="block h-full bg-ink"
              style={{ width: `${100 * Math.max(0, 1 - level.peak / QUIETEST)}%` }}
            />
          </span>
        </div>
      )}
      {stream ? <CheckLines lines={lines} isShort /> : null}
    </div>
  );
}

/** Decibels below full scale at which the bar is empty. */
const QUIETEST = -60;

const SMALL = { width: 160, height: 90 };

/** Light of the live picture, looked at once a second. */
function useLight(stream: MediaStream | null): Light | null {
  const [light, setLight] = useState<Light | null>(null);
  useEffect(() => {
    if (!stream) return;
    const video = document.createElement('video');
    video.muted = true;
    video.srcObject = stream;
    void video.play().catch(() => undefined);
    const canvas = new OffscreenCanvas(SMALL.width, SMALL.height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    const timer = setInterval(() => {
      if (video.readyState < 2) return;
      const { width, height } = SMALL;
      context.drawImage(video, 0, 0, width, height);
      const { data } = context.getImageData(0, 0, width, height);
      setLight(lightOf([greyFrom(data, width, height)]));
    }, 1000);
    return () => {
      clearInterval(timer);
      video.srcObject = null;
      setLight(null);
    };
  }, [stream]);
  return light;
}
