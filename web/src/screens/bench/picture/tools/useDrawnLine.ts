import { useState, type PointerEvent } from 'react';
import type { Line, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';

/** A line drawn by less than this many pixels was a slip of the hand. */
const SHORTEST = 12;

/**
 * A line dragged across the picture.
 *
 * @param onDrawn is told the line when it is let go; a slip of the hand is none
 * @returns the line while it is dragged, and the handlers for a catcher
 */
export function useDrawnLine(
  at: (event: PointerEvent) => PixelPoint,
  onDrawn: (line: Line) => void,
) {
  const [line, setLine] = useState<Line | null>(null);
  return {
    line,
    handlers: {
      onPointerDown: (event: PointerEvent) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setLine({ from: at(event), to: at(event) });
      },
      onPointerMove: (event: PointerEvent) => {
        if (line) setLine({ from: line.from, to: at(event) });
      },
      onPointerUp: () => {
        setLine(null);
        if (!line) return;
        const isSlip = Math.hypot(line.to.x - line.from.x, line.to.y - line.from.y) < SHORTEST;
        if (!isSlip) onDrawn(line);
      },
    },
  };
}
