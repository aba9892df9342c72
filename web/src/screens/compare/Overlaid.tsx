'use client';

import { useMemo, useState } from 'react';
import { overlayOf } from '@sinew/core/train/progress/overlay';
import type { FilmOfStrike } from '@/data/finding/comparing';
import { Button } from '@/ui/button';
import { FrameAt } from './FrameAt';

/**
 * Now over then: by the body at contact where both films know it, else frame on frame, which serves
 * when the camera has not moved; an arm alone is laid by when asked.
 */
export function Overlaid({
  then,
  now,
  time,
}: {
  then: FilmOfStrike;
  now: FilmOfStrike;
  time: number;
}) {
  const body = useMemo(() => overlayOf(then.places, now.places), [then, now]);
  const [isByBody, setByBody] = useState(body?.isByBody === true);
  const laid = isByBody ? body : null;
  const what = body?.isByBody ? 'the body' : 'the limb';
  const percent = (share: number) => `${100 * share}%`;
  return (
    <>
      <div className="relative overflow-hidden bg-shade">
        <FrameAt film={then} time={time} label="then" />
        <div
          className="absolute top-0 left-0 w-full opacity-50"
          data-laid={laid ? 'body' : 'frame'}
          style={
            laid
              ? {
                  width: percent((laid.scale * now.clip.width) / then.clip.width),
                  left: percent(laid.x / then.clip.width),
                  top: percent(laid.y / then.clip.height),
                }
              : undefined
          }
        >
          <FrameAt film={now} time={time} label="now" />
        </div>
      </div>
      <p className="mt-1 text-sm text-soft">
        {body ? (
          <>
            {isByBody ? `Laid over by ${what} at contact. ` : 'Laid frame on frame. '}
            <Button
              weight="quiet"
              className="!min-h-6 text-sm"
              onClick={() => setByBody(!isByBody)}
            >
              {isByBody ? 'Frame on frame' : `By ${what}`}
            </Button>
          </>
        ) : (
          'Laid frame on frame: too little of the body is known in both films to lay it by.'
        )}
      </p>
    </>
  );
}
