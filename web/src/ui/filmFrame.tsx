'use client';

import { useEffect, useRef, useState } from 'react';
import { FilmReader } from '@/video/filmReader';

/** A frame of a clip, exactly the one that is numbered. */
export function FilmFrame({
  clip,
  frame,
  isFilling = false,
  label = `The other film, frame ${frame}`,
  onPicture,
}: {
  /** Pixels of its picture. */
  clip: { readonly id: string; readonly width: number; readonly height: number };
  frame: number;
  /** It fills the box round it, and does not give its own height. */
  isFilling?: boolean;
  label?: string;
  /** Told when a frame has been painted. */
  onPicture?: (canvas: HTMLCanvasElement, frame: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const reader = useRef<FilmReader | null>(null);
  const wanted = useRef(frame);
  const told = useRef(onPicture);
  const [stage, setStage] = useState<'opening' | 'there' | 'failed'>('opening');

  useEffect(() => {
    told.current = onPicture;
  }, [onPicture]);

  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const film = new FilmReader(
      (picture, index) => {
        context.drawImage(picture, 0, 0, clip.width, clip.height);
        setStage('there');
        canvas.current!.dataset.second = String(index);
        told.current?.(canvas.current!, index);
      },
      () => setStage('failed'),
    );
    film.open(`/api/clips/${clip.id}/file`).then(
      () => {
        reader.current = film;
        film.want(wanted.current);
      },
      () => setStage('failed'),
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
    <span className={isFilling ? 'absolute inset-0 size-full' : 'relative block w-full bg-shade'}>
      <canvas
        ref={canvas}
        width={clip.width}
        height={clip.height}
        role="img"
        aria-label={label}
        className="block size-full"
      />
      {stage !== 'there' && (
        <span className="absolute inset-0 grid place-items-center text-soft print:hidden">
          {stage === 'opening' ? 'Opening the film…' : 'The film cannot be opened.'}
        </span>
      )}
    </span>
  );
}
