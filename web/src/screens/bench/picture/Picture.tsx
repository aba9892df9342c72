'use client';

import { useEffect, useRef, type CSSProperties } from 'react';
import { useWidth } from '@/ui/useWidth';
import { FilmReader } from '@/video/filmReader';
import type { Picture as FilmPicture } from '@/video/frameSource';
import { useBench, useBenchStore } from '../document/benchStore';
import { FilmBar } from './FilmBar';
import { Loupe } from './Loupe';
import { Overlay } from './Overlay';
import { PictureTools } from './PictureTools';
import { SecondInset } from './SecondPicture';
import { TurnDial } from './TurnDial';
import { useLens } from './useLens';
import { usePlayback } from './usePlayback';

/** The film at the frame in hand, with what has been placed on it. */
export function Picture() {
  const clip = useBench((state) => state.clip);
  const error = useBench((state) => state.error);
  const shownFrame = useBench((state) => state.shownFrame);
  const stage = useRef<HTMLDivElement>(null);
  const view = useLens(stage);
  const { lens } = view;
  const shownWidth = useWidth(stage);
  const canvas = useFilm();
  usePlayback();

  return (
    <section
      aria-label="Picture"
      className="relative flex min-h-0 flex-col overflow-hidden border-ink bg-shade md:border-r"
    >
      <PictureTools />
      <div
        className="flex min-h-0 items-center justify-center [container-type:size] max-md:aspect-(--shape) max-md:max-h-[72dvh] max-md:w-full md:flex-1"
        style={{ '--shape': `${clip.width} / ${clip.height}` } as CSSProperties}
      >
        <div
          ref={stage}
          onWheel={view.onWheel}
          onPointerMove={view.onPointerMove}
          className="relative overflow-hidden"
          style={{
            aspectRatio: `${clip.width} / ${clip.height}`,
            width: `min(100cqw, calc(100cqh * ${clip.width / clip.height}))`,
          }}
        >
          <div
            data-moved
            className="absolute inset-0"
            style={{
              transform: `translate(${lens.x * 100}%, ${lens.y * 100}%) scale(${lens.zoom})`,
            }}
          >
            <canvas
              ref={canvas}
              width={clip.width}
              height={clip.height}
              role="img"
              aria-label={`Frame ${shownFrame ?? '…'} of the film`}
              data-frame={shownFrame ?? ''}
              className="absolute inset-0 size-full"
            />
            <Overlay unit={clip.width / Math.max(1, shownWidth) / lens.zoom} />
          </div>
        </div>
      </div>
      <Loupe stage={stage} film={canvas} />
      <SecondInset />
      <TurnDial />
      <FrameNumber />
      <FilmBar view={view} stage={stage} />
      {error && (
        <p role="alert" className="absolute bottom-11 left-3 max-w-md bg-paper px-3 py-2">
          {error}
        </p>
      )}
    </section>
  );
}

/** Opens the clip's decoder and paints each frame that is wanted. */
function useFilm() {
  const store = useBenchStore();
  const clip = useBench((state) => state.clip);
  const canvas = useRef<HTMLCanvasElement>(null);

  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const paint = (picture: FilmPicture, index: number) => {
      context.drawImage(picture, 0, 0, clip.width, clip.height);
      store.getState().shown(index);
    };
    const reader = new FilmReader(paint, (message) => store.getState().fail(message));
    let unsubscribe = () => {};
    reader.open(`/api/clips/${clip.id}/file`).then(
      () => {
        reader.want(store.getState().frame);
        unsubscribe = store.subscribe((state, before) => {
          if (state.frame !== before.frame) reader.want(state.frame);
        });
      },
      (error: unknown) =>
        store.getState().fail(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      unsubscribe();
      reader.close();
    };
  }, [store, clip]);

  return canvas;
}

/** On a phone, where there is no bar: the frame's number in the corner. */
function FrameNumber() {
  const shown = useBench((state) => state.shownFrame);
  const last = useBench((state) => state.clip.frameTimes.length - 1);
  return (
    <p className="pointer-events-none absolute bottom-0 left-0 bg-paper px-2 py-0.5 text-sm text-soft md:hidden">
      {shown === null ? (
        'Opening the film…'
      ) : (
        <>
          <strong className="text-ink">Frame {shown}</strong> of {last}
        </>
      )}
    </p>
  );
}
