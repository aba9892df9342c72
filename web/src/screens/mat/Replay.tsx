import { useEffect, useEffectEvent, useRef } from 'react';
import type { RecentFilm } from '@/video/recentFilm';
import { SHOWN_AFTER, type HitOfSet } from './useSet';

/** Seconds before a hit at which its replay begins. */
const SHOWN_BEFORE = 0.8;
/** So many times slower than it was. */
export const SLOWER = 4;

export const nameOf = ({ number }: HitOfSet): string => (number ? `Hit ${number}` : 'Just now');

/** One hit again, slowly, from guard until it has landed; then it stands at the hit. */
export function Replay({
  film,
  hit,
  onBegin,
}: {
  film: RecentFilm;
  hit: HitOfSet;
  /** There is a picture. */
  onBegin: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const begun = useEffectEvent(onBegin);
  useEffect(() => {
    const screen = canvas.current!;
    const closing = new AbortController();
    play(film, hit, screen, begun, closing.signal).catch(() => undefined);
    return () => closing.abort();
  }, [film, hit]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${nameOf(hit)}, ${SLOWER} times slower`}
      className="absolute inset-0 size-full object-contain"
    />
  );
}

async function play(
  film: RecentFilm,
  { at, heard }: HitOfSet,
  screen: HTMLCanvasElement,
  onBegin: () => void,
  signal: AbortSignal,
): Promise<void> {
  const from = at - SHOWN_BEFORE;
  const context = screen.getContext('2d')!;
  const begin = performance.now();
  let hasBegun = false;
  for await (const frame of film.frames(from, at + SHOWN_AFTER)) {
    const time = frame.timestamp / 1e6;
    await until(begin + 1000 * SLOWER * (time - from), signal);
    if (signal.aborted) return frame.close();
    if (screen.width !== frame.displayWidth || screen.height !== frame.displayHeight) {
      screen.width = frame.displayWidth;
      screen.height = frame.displayHeight;
    }
    context.drawImage(frame, 0, 0);
    frame.close();
    if (!hasBegun) {
      hasBegun = true;
      onBegin();
      performance.measure('hit shown again', { start: heard, end: performance.now() });
    }
  }
  for await (const frame of film.frames(at, at + SHOWN_AFTER)) {
    context.drawImage(frame, 0, 0);
    return frame.close();
  }
}

const until = (instant: number, signal: AbortSignal) =>
  new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, instant - performance.now());
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });
