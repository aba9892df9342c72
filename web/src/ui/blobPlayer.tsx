'use client';

import { useEffect, useRef } from 'react';

/** A film that has just been made, to look at. */
export function BlobPlayer({ film, label }: { film: Blob; label: string }) {
  const player = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const made = URL.createObjectURL(film);
    player.current!.src = made;
    return () => URL.revokeObjectURL(made);
  }, [film]);
  return (
    <video
      ref={player}
      controls
      playsInline
      aria-label={label}
      className="max-h-[60dvh] w-full bg-shade"
    />
  );
}
