'use client';

import { useEffect, useRef, useState } from 'react';
import { FilmReader } from '@/video/filmReader';
import { Thumb } from './thumb';

/** Decoded pictures kept, bytes: there may be a dozen of these on a page. */
const KEPT_BYTES = 48 * 1024 * 1024;

/** A file that is no clip yet: its picture, and a slider that goes through it frame by frame. */
export function Scrubbed({
  film,
  size,
  count,
}: {
  film: File;
  /** Pixels of its picture. */
  size: { readonly width: number; readonly height: number };
  /** Frames it has. */
  count: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const reader = useRef<Promise<FilmReader> | null>(null);
  const [frame, setFrame] = useState<number | null>(null);
  const [isDrawn, setDrawn] = useState(false);
  useEffect(() => () => void reader.current?.then((open) => open.close()), []);
  const middle = Math.floor(count / 2);
  const go = (wanted: number) => {
    setFrame(wanted);
    // Opened by the first touch: most files are added without one.
    reader.current ??= opened(film, (picture) => {
      canvas.current?.getContext('2d')?.drawImage(picture, 0, 0, size.width, size.height);
      setDrawn(true);
    });
    void reader.current.then((open) => open.want(wanted));
  };
  return (
    <div className="w-72 shrink-0">
      <div className="relative bg-shade" style={{ aspectRatio: `${size.width} / ${size.height}` }}>
        {!isDrawn && <Thumb film={film} time={null} className="absolute inset-0 size-full" />}
        <canvas
          ref={canvas}
          width={size.width}
          height={size.height}
          hidden={!isDrawn}
          data-frame={frame ?? undefined}
          role="img"
          aria-label={`The film, frame ${frame ?? middle}`}
          className="absolute inset-0 size-full"
        />
      </div>
      <input
        type="range"
        aria-label="Go through the film"
        min={0}
        max={count - 1}
        value={frame ?? middle}
        onChange={(event) => go(Number(event.target.value))}
        className="mt-1.5 h-6 w-full accent-ink"
      />
    </div>
  );
}

async function opened(
  film: File,
  onPicture: (picture: CanvasImageSource) => void,
): Promise<FilmReader> {
  const reader = new FilmReader(onPicture, () => undefined);
  // What cannot be opened keeps its small picture.
  await reader.open(film, KEPT_BYTES).catch(() => undefined);
  return reader;
}
