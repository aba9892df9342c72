import { useState, type PointerEvent, type RefObject, type WheelEvent } from 'react';
import { sided } from '@sinew/core/foundation/body/landmarks';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikeOf, useBench } from '../document/benchStore';
import { usePoints } from './usePoints';

/** How the picture is looked at: how large, and how far its middle is shifted. */
export interface Lens {
  readonly zoom: number;
  /** In shares of its shown size. */
  readonly x: number;
  readonly y: number;
}

const WHOLE: Lens = { zoom: 1, x: 0, y: 0 };
const MOST = 8;
/** How large the picture becomes at once when the hand is followed. */
const FOLLOWED = 2.5;
/** One press of a key. */
const STEP = 1.4;

/** Keep the picture over its frame: no empty border while it is larger than the frame. */
function within({ zoom, x, y }: Lens): Lens {
  const slack = (zoom - 1) / 2;
  const clamp = (value: number) => Math.min(slack, Math.max(-slack, value));
  return { zoom, x: clamp(x), y: clamp(y) };
}

/** Zoom toward a place, in shares of the frame from its middle: that place stays where it is. */
function zoomed(old: Lens, by: number, px: number, py: number): Lens {
  const zoom = Math.min(MOST, Math.max(1, old.zoom * by));
  const grown = zoom / old.zoom;
  return within({ zoom, x: px - (px - old.x) * grown, y: py - (py - old.y) * grown });
}

/** The picture's lens: zoomed at the pointer, moved by hand, or led by the striking hand. */
export function useLens(stage: RefObject<HTMLDivElement | null>) {
  const [own, setOwn] = useState<Lens>(WHOLE);
  const [isFollowing, setFollowing] = useState(false);
  const hand = useStrikingEnd();
  const [last, setLast] = useState(hand);
  // Where the hand is not seen the picture rests where it was seen last.
  if (hand && (hand.x !== last?.x || hand.y !== last.y)) setLast(hand);
  const lens =
    isFollowing && last
      ? within({ zoom: own.zoom, x: (0.5 - last.x) * own.zoom, y: (0.5 - last.y) * own.zoom })
      : own;

  return {
    lens,
    isFollowing,
    canFollow: last !== null,
    onWheel: (event: WheelEvent) => {
      const box = stage.current!.getBoundingClientRect();
      const px = (event.clientX - box.left) / box.width - 0.5;
      const py = (event.clientY - box.top) / box.height - 0.5;
      setOwn(zoomed(lens, Math.exp(-event.deltaY * 0.002), px, py));
    },
    onPointerMove: (event: PointerEvent) => {
      if (event.buttons !== 4 && !(event.buttons === 1 && event.altKey)) return;
      const box = stage.current!.getBoundingClientRect();
      const [dx, dy] = [event.movementX / box.width, event.movementY / box.height];
      setFollowing(false);
      setOwn(within({ ...lens, x: lens.x + dx, y: lens.y + dy }));
    },
    zoomBy: (direction: 1 | -1) => setOwn(zoomed(lens, STEP ** direction, 0, 0)),
    showWhole: () => {
      setFollowing(false);
      setOwn(WHOLE);
    },
    follow: () => {
      setFollowing(!isFollowing);
      setOwn(isFollowing ? lens : { ...lens, zoom: Math.max(lens.zoom, FOLLOWED) });
    },
  };
}

/** Where the striking end is on the frame that is shown, in shares of the picture; null where it is not seen. */
function useStrikingEnd(): { readonly x: number; readonly y: number } | null {
  const clip = useBench((state) => state.clip);
  const strike = useBench(strikeOf);
  const points = usePoints(useBench((state) => state.shownFrame));
  if (!strike) return null;
  const { chain, end } = techniqueById(strike.technique);
  const parts = chain.includes('thigh')
    ? (['Ankle', 'Knee'] as const)
    : end === 'elbow'
      ? (['Elbow', 'Wrist'] as const)
      : (['IndexKnuckle', 'Wrist', 'Elbow'] as const);
  for (const part of parts) {
    const found = points.find(({ landmark }) => landmark === sided(strike.side, part));
    if (found) return { x: found.x / clip.width, y: found.y / clip.height };
  }
  return null;
}
