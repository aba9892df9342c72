'use client';

import { useState } from 'react';
import type { PixelPoint, Rectangle } from '@sinew/core/reconstruct/calibration/calibration';
import { fieldUnit, inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { TextField } from '@/ui/field';

const MOST = 50;

const typed = (text: string) => fieldUnit('m').kept(Number(text.replace(',', '.')));
const isLength = (text: string) => text.trim() !== '' && typed(text) > 0 && typed(text) <= MOST;

/** Asks for the true sides of the rectangle whose corners were clicked. */
export function RectangleDialog({
  kind,
  corners,
  known,
  onDone,
}: {
  kind: Rectangle['kind'];
  corners: readonly PixelPoint[];
  /** What was set before: its sides are offered again. */
  known: Rectangle | null;
  onDone: (rectangle: Rectangle | null) => void;
}) {
  const side = fieldUnit('m');
  const offered = (value: number | undefined) => (value === undefined ? '' : side.shown(value));
  const [width, setWidth] = useState(offered(known?.width));
  const [depth, setDepth] = useState(offered(known?.depth));
  const [height, setHeight] = useState(kind === 'box' ? offered(known?.height) : side.shown(1));
  const isGood = [width, depth, height].every(isLength);
  const field = (label: string, value: string, set: (text: string) => void, isFirst = false) => (
    <TextField
      label={`${label}, ${side.unit}`}
      inputMode="decimal"
      autoFocus={isFirst}
      value={value}
      onChange={(event) => set(event.target.value)}
      error={
        value === '' || isLength(value)
          ? undefined
          : inManner(`A length, more than 0, to ${MOST} m.`)
      }
    />
  );
  return (
    <Dialog isOpen onClose={() => onDone(null)} title="How long are its sides?">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!isGood) return;
          const sides = { width: typed(width), depth: typed(depth), height: typed(height) };
          onDone({ kind, corners, ...sides });
        }}
      >
        <div className="space-y-3">
          {field('From corner 1 to corner 2', width, setWidth, true)}
          {field('From corner 2 to corner 3', depth, setDepth)}
          {kind === 'box' && field('From the floor to the upper corners', height, setHeight)}
        </div>
        <div className="mt-5 flex gap-4">
          <Button type="submit" weight="main" disabled={!isGood}>
            Set the rectangle
          </Button>
          <Button onClick={() => onDone(null)}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
