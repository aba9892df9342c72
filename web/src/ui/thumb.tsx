'use client';

import { useEffect, useRef, useState } from 'react';
import { thumbOf } from '@/video/thumbs';

/** A strike in a picture the size of a thumb; drawn when it comes into sight, an empty frame until then. */
export function Thumb({
  clipId,
  time,
  className = 'w-28',
}: {
  clipId: string;
  /** Seconds on the film's own clock; the middle of the film where nothing is marked. */
  time: number | null;
  className?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    const watcher = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
    });
    watcher.observe(canvas.current!);
    return () => watcher.disconnect();
  }, []);
  useEffect(() => {
    if (!isSeen) return;
    const stop = new AbortController();
    void thumbOf(`/api/clips/${clipId}/file`, time, stop.signal).then((picture) => {
      const box = canvas.current;
      if (!picture || !box) return;
      [box.width, box.height] = [picture.width, picture.height];
      box.getContext('bitmaprenderer')?.transferFromImageBitmap(picture);
    });
    return () => stop.abort();
  }, [isSeen, clipId, time]);
  return (
    <canvas
      ref={canvas}
      width={16}
      height={9}
      aria-hidden
      className={`aspect-video shrink-0 bg-tint object-cover ${className}`}
    />
  );
}
