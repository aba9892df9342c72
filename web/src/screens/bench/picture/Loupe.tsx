'use client';

import { useEffect, useRef, useState, type RefObject } from 'react';
import { useBench } from '../document/benchStore';

/** CSS pixels across, and how many times larger than the shown picture. */
const SIZE = 144;
const LARGER = 3;

/** What lies under the pointer, larger, in a corner away from it: a finger hides what it points at. */
export function Loupe({
  stage,
  film,
}: {
  stage: RefObject<HTMLDivElement | null>;
  film: RefObject<HTMLCanvasElement | null>;
}) {
  const isPlacing = useBench(({ tool }) => tool.kind === 'place' || tool.kind === 'turn');
  return isPlacing ? <Glass stage={stage} film={film} /> : null;
}

function Glass({ stage, film }: Parameters<typeof Loupe>[0]) {
  const shownFrame = useBench((state) => state.shownFrame);
  const glass = useRef<HTMLCanvasElement>(null);
  const [pointer, setPointer] = useState<{ readonly x: number; readonly y: number } | null>(null);

  useEffect(() => {
    const box = stage.current!;
    const follow = ({ clientX: x, clientY: y }: PointerEvent) => setPointer({ x, y });
    const leave = () => setPointer(null);
    box.addEventListener('pointermove', follow);
    box.addEventListener('pointerdown', follow);
    box.addEventListener('pointerleave', leave);
    return () => {
      box.removeEventListener('pointermove', follow);
      box.removeEventListener('pointerdown', follow);
      box.removeEventListener('pointerleave', leave);
    };
  }, [stage]);

  useEffect(() => {
    const [from, to] = [film.current, glass.current?.getContext('2d')];
    if (!from || !to || !pointer) return;
    const shown = from.getBoundingClientRect();
    const perPixel = from.width / shown.width;
    const across = (SIZE / LARGER) * perPixel;
    const [x, y] = [(pointer.x - shown.left) * perPixel, (pointer.y - shown.top) * perPixel];
    to.fillStyle = '#15130f';
    to.fillRect(0, 0, SIZE, SIZE);
    to.drawImage(from, x - across / 2, y - across / 2, across, across, 0, 0, SIZE, SIZE);
  }, [film, pointer, shownFrame]);

  if (!pointer) return null;
  const box = stage.current?.getBoundingClientRect();
  const isLeft = box !== undefined && pointer.x - box.left < box.width / 2;
  return (
    <div
      aria-hidden
      className={`pointer-events-none absolute bottom-11 z-10 border border-ink ${isLeft ? 'right-3' : 'left-3'}`}
    >
      <canvas ref={glass} width={SIZE} height={SIZE} className="block" />
      <svg viewBox="-1 -1 2 2" className="absolute inset-0 size-full">
        <path
          d="M-1 0H-.12M.12 0H1M0 -1V-.12M0 .12V1"
          stroke="#fdfaf3"
          strokeWidth={0.018}
          style={{ mixBlendMode: 'difference' }}
        />
      </svg>
    </div>
  );
}
