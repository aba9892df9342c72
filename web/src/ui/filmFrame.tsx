'use client';

import { useEffect, useRef } from 'react';
import { FilmReader } from '@/video/filmReader';

/** A frame of a clip, exactly the one that is numbered. */
export function FilmFrame({
  clip,
  frame,
  className,
  label = `The other film, frame ${frame}`,
  onPicture,
}: {
  /** Pixels of its picture. */
  clip: { readonly id: string; readonly width: number; readonly height: number };
  frame: number;
  className?: string;
  label?: string;
  /** Told when a frame has been painted. */
  onPicture?: (canvas: HTMLCanvasElement, frame: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const reader = useRef<FilmReader | null>(null);
  const wanted = useRef(frame);
  const told = useRef(onPicture);

  useEffect(() => {
    told.current = onPicture;
  }, [onPicture]);

  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const film = new FilmReader(
      (picture, index) => {
        context.drawImage(picture, 0, 0, clip.width, clip.height);
        canvas.current!.dataset.second = String(index);
        told.current?.(canvas.current!, index);
      },
      () => undefined,
    );
    film.open(`/api/clips/${clip.id}/file`).then(
      () => {
        reader.current = film;
        film.want(wanted.current);
      },
      () => undefined,
    );
    return () => {
      reader.current = null;
      film.close();
    };
  }, [clip.id, clip.width, clip.height]);

  useEffect(() => {
    wanted.current = frame;
    reader.current?.want(frame);
  }, [frame]);

  return (
    <canvas
      ref={canvas}
      width={clip.width}
      height={clip.height}
      role="img"
      aria-label={label}
      className={className}
    />
  );
}
