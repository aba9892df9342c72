'use client';

import { LANDMARKS, landmarkName, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Rectangle } from '@sinew/core/reconstruct/calibration/calibration';
import type { DrawingKind } from '@sinew/core/analysis/drawing';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { documentOf, strikeOf, useBench, useBenchStore, type Tool } from '../document/benchStore';
import { Said } from './tools/tools';
import { Key } from '@/ui/button';
import type { ReactNode } from 'react';

/** The tools over the picture: look, place points, and what makes metres of its pixels. */
export function PictureTools() {
  const store = useBenchStore();
  const tool = useBench((state) => state.tool);
  const strike = useBench(strikeOf);
  const view = useBench((state) => documentOf(state).view);
  const isPlaying = useBench((state) => state.isPlaying);
  const points = strike
    ? pointsToPlace({ technique: techniqueById(strike.technique), side: strike.side }, view)
    : [];
  const set = (next: Tool) => store.getState().setTool(next);
  const first: Landmark = points[0] ?? 'nose';
  return (
    <div className="relative flex flex-wrap items-stretch border-b border-ink bg-paper text-sm max-md:hidden">
      <ToolButton
        isOn={isPlaying}
        onClick={() => store.getState().setPlaying(!isPlaying)}
        hint="Space"
      >
        {isPlaying ? 'Stop' : 'Play'}
      </ToolButton>
      <ToolButton
        isOn={tool.kind === 'place'}
        onClick={() =>
          set(tool.kind === 'place' ? { kind: 'look' } : { kind: 'place', landmark: first })
        }
        hint="P"
      >
        Points
      </ToolButton>
      {tool.kind === 'place' && (
        <select
          aria-label="Point to place"
          value={tool.landmark}
          onChange={(event) => {
            set({ kind: 'place', landmark: event.target.value as Landmark });
            event.target.blur();
          }}
          className="border-r border-ink bg-now px-2 font-semibold text-paper"
        >
          {points.length > 0 && (
            <optgroup label="For this strike and view">{points.map(option)}</optgroup>
          )}
          <optgroup label="All points">
            {LANDMARKS.filter((one) => !points.includes(one)).map(option)}
          </optgroup>
        </select>
      )}
      {(tool.kind === 'place' || tool.kind === 'turn') && (
        <ToolButton
          isOn={tool.kind === 'turn'}
          onClick={() => set(tool.kind === 'turn' ? { kind: 'look' } : { kind: 'turn' })}
          hint="Shift P"
        >
          Turn
        </ToolButton>
      )}
      <ToolButton
        isOn={tool.kind === 'draw'}
        onClick={() => set(tool.kind === 'draw' ? { kind: 'look' } : { kind: 'draw', of: 'arrow' })}
        hint="I"
      >
        Draw
      </ToolButton>
      {tool.kind === 'draw' && (
        <select
          aria-label="What to draw"
          value={tool.of}
          onChange={(event) => {
            set({ kind: 'draw', of: event.target.value as DrawingKind });
            event.target.blur();
          }}
          className="border-r border-ink bg-now px-2 font-semibold text-paper"
        >
          <option value="arrow">an arrow</option>
          <option value="line">a line</option>
          <option value="angle">an angle</option>
          <option value="free">freehand</option>
          <option value="words">words</option>
        </select>
      )}
      <ToolButton isOn={tool.kind === 'scale'} onClick={() => set({ kind: 'scale' })} hint="L">
        Length
      </ToolButton>
      <ToolButton isOn={tool.kind === 'target'} onClick={() => set({ kind: 'target' })} hint="T">
        Target
      </ToolButton>
      <ToolButton
        isOn={tool.kind === 'rectangle'}
        onClick={() => set({ kind: 'rectangle', of: 'floor' })}
        hint="R"
      >
        Rectangle
      </ToolButton>
      {tool.kind === 'rectangle' && (
        <select
          aria-label="Kind of rectangle"
          value={tool.of}
          onChange={(event) => {
            set({ kind: 'rectangle', of: event.target.value as Rectangle['kind'] });
            event.target.blur();
          }}
          className="border-r border-ink bg-now px-2 font-semibold text-paper"
        >
          <option value="floor">on the floor</option>
          <option value="upright">upright</option>
          <option value="box">box</option>
        </select>
      )}
      <ToolButton isOn={tool.kind === 'ruler'} onClick={() => set({ kind: 'ruler' })} hint="M">
        Ruler
      </ToolButton>
      <Said tool={tool} />
    </div>
  );
}

function option(landmark: Landmark) {
  return (
    <option key={landmark} value={landmark}>
      {landmarkName(landmark)}
    </option>
  );
}

function ToolButton({
  isOn,
  onClick,
  hint,
  children,
}: {
  isOn: boolean;
  onClick: () => void;
  hint?: string;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onClick}
      className="flex h-9 items-center gap-1.5 border-r border-ink px-3 font-semibold aria-pressed:bg-ink aria-pressed:text-paper"
    >
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}
