'use client';

import {
  useEffect,
  useMemo,
  useRef,
  type CSSProperties,
  useState,
  type PointerEvent,
  type WheelEvent,
} from 'react';
import { meanRate } from '@sinew/core/observe/track/time';
import { useWidth } from '@/ui/useWidth';
import { FilmReader } from '@/video/filmReader';
import type { Picture as FilmPicture } from '@/video/frameSource';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { documentOf, isDrawing, useBench, useBenchStore } from '../document/benchStore';
import { Overlay } from './Overlay';
import { PictureTools } from './PictureTools';
import { SecondInset } from './SecondPicture';
import { TurnDial } from './TurnDial';
import { usePlayback } from './usePlayback';
import { useRealTimes } from '../document/realTimes';

interface Lens {
  readonly zoom: number;
  /** Shift of the picture's middle, in shares of its shown size. */
  readonly x: number;
  readonly y: number;
}

const WHOLE: Lens = { zoom: 1, x: 0, y: 0 };
const MOST = 8;

/** Keep the picture over its frame: no empty border while it is larger than the frame. */
function within({ zoom, x, y }: Lens): Lens {
  const slack = (zoom - 1) / 2;
  const clamp = (value: number) => Math.min(slack, Math.max(-slack, value));
  return { zoom, x: clamp(x), y: clamp(y) };
}

/** The film at the frame in hand, with what has been placed on it. */
export function Picture() {
  const clip = useBench((state) => state.clip);
  const error = useBench((state) => state.error);
  const shownFrame = useBench((state) => state.shownFrame);
  const [lens, setLens] = useState<Lens>(WHOLE);
  const stage = useRef<HTMLDivElement>(null);
  const shownWidth = useWidth(stage);
  const canvas = useFilm();
  usePlayback();

  const zoom = (event: WheelEvent) => {
    const box = stage.current!.getBoundingClientRect();
    const px = (event.clientX - box.left) / box.width - 0.5;
    const py = (event.clientY - box.top) / box.height - 0.5;
    setLens((old) => {
      const next = Math.min(MOST, Math.max(1, old.zoom * Math.exp(-event.deltaY * 0.002)));
      const grown = next / old.zoom;
      return within({ zoom: next, x: px - (px - old.x) * grown, y: py - (py - old.y) * grown });
    });
  };
  const pan = (event: PointerEvent) => {
    if (event.buttons !== 4 && !(event.buttons === 1 && event.altKey)) return;
    const box = stage.current!.getBoundingClientRect();
    const [dx, dy] = [event.movementX / box.width, event.movementY / box.height];
    setLens((old) => within({ ...old, x: old.x + dx, y: old.y + dy }));
  };

  return (
    <section
      aria-label="Picture"
      className="relative flex min-h-0 flex-col overflow-hidden border-ink bg-shade md:border-r"
    >
      <PictureTools isZoomed={lens.zoom > 1} onWhole={() => setLens(WHOLE)} />
      <div
        className="flex min-h-0 items-center justify-center [container-type:size] max-md:aspect-(--shape) max-md:max-h-[72dvh] max-md:w-full md:flex-1"
        style={{ '--shape': `${clip.width} / ${clip.height}` } as CSSProperties}
      >
        <div
          ref={stage}
          onWheel={zoom}
          onPointerMove={pan}
          className="relative overflow-hidden"
          style={{
            aspectRatio: `${clip.width} / ${clip.height}`,
            width: `min(100cqw, calc(100cqh * ${clip.width / clip.height}))`,
          }}
        >
          <div
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
      <SecondInset />
      <TurnDial />
      {error ? (
        <p role="alert" className="absolute bottom-3 left-3 max-w-md bg-paper px-3 py-2">
          {error}
        </p>
      ) : (
        <FrameLabel />
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

function FrameLabel() {
  const isBusy = useBench(isDrawing);
  const shown = useBench((state) => state.shownFrame);
  const view = useBench((state) => documentOf(state).view);
  const times = useRealTimes();
  const rate = useMemo(() => meanRate(times), [times]);
  if (shown === null) {
    return <p className="absolute bottom-3 left-3 bg-paper px-3 py-1.5">Opening the film…</p>;
  }
  // What is drawn may have to be drawn just there.
  if (isBusy) return null;
  return (
    <p className="pointer-events-none absolute bottom-3 left-3 bg-paper px-3 py-1.5 text-soft max-md:bottom-0 max-md:left-0 max-md:px-2 max-md:py-0.5 max-md:text-sm">
      <strong className="text-ink">Frame {shown}</strong> of {times.length - 1}
      <span className="max-md:hidden">
        , {times[shown]!.toFixed(3)} s, {Math.round(rate)} per second,{' '}
        {VIEW_GUIDE[view].name.toLowerCase()}
      </span>
    </p>
  );
}
