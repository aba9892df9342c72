'use client';

import { useState } from 'react';
import { TECHNIQUES, VIEWS, type View } from '@sinew/core/technique/catalogue';
import { meanRate } from '@sinew/core/track/time';
import type { StrikeDocument } from '@/data/benchDocument';
import { VIEW_GUIDE } from '@sinew/core/technique/views';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { documentOf, useBench, useBenchStore } from './benchStore';
import { removeStrike, renameStrike, setScale, setTarget } from './commands';

/** How the clip was filmed, what has been set in the picture, and which strike it is. */
export function SetUp({ strike }: { strike: StrikeDocument }) {
  const store = useBenchStore();
  const document = useBench(documentOf);
  const { edit, setTool } = store.getState();
  const now = () => documentOf(store.getState());
  return (
    <div className="space-y-4">
      <div className="grid grid-cols-2 gap-4">
        <SelectField
          label="Strike"
          value={strike.technique}
          onChange={(event) =>
            edit(
              renameStrike(now(), strike.id, { technique: event.target.value, side: strike.side }),
            )
          }
        >
          {TECHNIQUES.map((technique) => (
            <option key={technique.id} value={technique.id}>
              {technique.name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Side"
          value={strike.side}
          onChange={(event) => {
            const side = event.target.value === 'left' ? 'left' : 'right';
            edit(renameStrike(now(), strike.id, { technique: strike.technique, side }));
          }}
        >
          <option value="left">left</option>
          <option value="right">right</option>
        </SelectField>
        <SelectField
          label="Filmed"
          value={document.view}
          hint={VIEW_GUIDE[document.view].shows}
          onChange={(event) => edit({ ...now(), view: event.target.value as View })}
        >
          {VIEWS.map((view) => (
            <option key={view} value={view}>
              {VIEW_GUIDE[view].name}
            </option>
          ))}
        </SelectField>
        <CaptureRate key={document.captureRate} />
      </div>
      <SetLine
        name="Known length"
        value={document.scale && `${document.scale.metres * 100} cm`}
        onDraw={() => setTool({ kind: 'scale' })}
        onClear={() => edit(setScale(now(), null))}
      />
      <SetLine
        name="Line to the target"
        value={document.target && 'drawn'}
        onDraw={() => setTool({ kind: 'target' })}
        onClear={() => edit(setTarget(now(), null))}
      />
      <Button
        weight="quiet"
        className="text-sm"
        onClick={() => edit(removeStrike(now(), strike.id))}
      >
        Remove this strike and its marks
      </Button>
    </div>
  );
}

function SetLine({
  name,
  value,
  onDraw,
  onClear,
}: {
  name: string;
  value: string | null;
  onDraw: () => void;
  onClear: () => void;
}) {
  return (
    <div className="flex items-center gap-4 border-t border-rule pt-3">
      <span className="w-40 font-semibold">{name}</span>
      <span className="w-20 text-soft">{value ?? 'not set'}</span>
      <Button onClick={onDraw}>{value ? 'Draw anew' : 'Draw it'}</Button>
      {value && (
        <Button weight="quiet" onClick={onClear}>
          Clear
        </Button>
      )}
    </div>
  );
}

function CaptureRate() {
  const store = useBenchStore();
  const captureRate = useBench((state) => documentOf(state).captureRate);
  const playback = useBench((state) => meanRate(state.clip.frameTimes));
  const [text, setText] = useState(String(captureRate ?? Math.round(playback * 100) / 100));
  const typed = Number(text.replace(',', '.'));
  const isGood = Number.isFinite(typed) && typed >= playback * 0.99 && typed <= 10_000;
  const keep = () => {
    const { edit } = store.getState();
    const rate = Math.abs(typed - playback) < playback * 0.01 ? null : typed;
    if (isGood) edit({ ...documentOf(store.getState()), captureRate: rate });
  };
  return (
    <TextField
      label="Shot at, frames a second"
      inputMode="decimal"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
      error={isGood ? undefined : `A number from ${Math.ceil(playback)} up.`}
      hint={`The file plays ${Math.round(playback * 10) / 10} a second; slow motion was shot faster.`}
    />
  );
}
