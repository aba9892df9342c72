'use client';

import { LANDMARKS, landmarkName, type Landmark } from '@sinew/core/body/landmarks';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { pointsToPlace } from '@sinew/core/technique/points';
import { documentOf, strikeOf, useBench, useBenchStore, type Tool } from './benchStore';
import { Key } from '@/ui/button';
import type { ReactNode } from 'react';

/** The tools over the picture: look, place points, known length, line to the target. */
export function PictureTools({ isZoomed, onWhole }: { isZoomed: boolean; onWhole: () => void }) {
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
    <div className="flex flex-wrap items-stretch border-b border-ink bg-paper text-sm">
      <ToolButton
        isOn={isPlaying}
        onClick={() => store.getState().setPlaying(!isPlaying)}
        hint="Space"
      >
        {isPlaying ? 'Stop' : 'Play ⅛'}
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
          className="border-r border-ink bg-now px-2 font-semibold text-white"
        >
          {points.length > 0 && (
            <optgroup label="For this strike and view">{points.map(option)}</optgroup>
          )}
          <optgroup label="All points">
            {LANDMARKS.filter((one) => !points.includes(one)).map(option)}
          </optgroup>
        </select>
      )}
      <ToolButton isOn={tool.kind === 'scale'} onClick={() => set({ kind: 'scale' })} hint="L">
        Length
      </ToolButton>
      <ToolButton isOn={tool.kind === 'target'} onClick={() => set({ kind: 'target' })} hint="T">
        Target
      </ToolButton>
      {isZoomed && (
        <ToolButton isOn={false} onClick={onWhole}>
          Whole picture
        </ToolButton>
      )}
      {tool.kind !== 'look' && <p className="self-center px-3 text-soft">{SAY[tool.kind]}</p>}
    </div>
  );
}

const SAY = {
  place: 'Click it. Shift-click: next frame.',
  scale: 'Drag along a known length in the plane of the strike.',
  target: 'Drag from the student to the target.',
};

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
