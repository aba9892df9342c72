'use client';

import { useEffect, useRef, useState } from 'react';
import { thumbOf } from '@/video/thumbs';

/** A strike in a picture the size of a thumb; drawn when it comes into sight, an empty frame until then. */
export function Thumb({
  film,
  time,
  className = 'w-28',
}: {
  /** A clip's address, or a file that is none yet. */
  film: string | Blob;
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
    void thumbOf(film, time, stop.signal).then((picture) => {
      const box = canvas.current;
      if (!box) return;
      box.dataset.thumb = picture ? 'drawn' : 'none';
      if (!picture) return;
      [box.width, box.height] = [picture.width, picture.height];
      box.getContext('bitmaprenderer')?.transferFromImageBitmap(picture);
    });
    return () => stop.abort();
  }, [isSeen, film, time]);
  return (
    <canvas
      ref={canvas}
      width={16}
      height={9}
      aria-hidden
      data-thumb="waiting"
      className={`aspect-video shrink-0 bg-tint object-cover ${className}`}
    />
  );
}

/** Where a clip's film is read from. */
export const filmOf = (clipId: string) => `/api/clips/${clipId}/file`;
