'use client';

import { useState, type ReactNode } from 'react';
import { TECHNIQUES, VIEWS, type View } from '@sinew/core/foundation/technique/techniques';
import { meanRate } from '@sinew/core/observe/track/time';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { INTENT_NAMES, INTENTS } from '@sinew/core/foundation/drill/intent';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import type { CameraSetup } from '@/data/gym/cameraSetups';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { SchoolFields } from './SchoolFields';
import { CalibrationSetUp } from './CalibrationSetUp';
import { removeStrike, renameStrike } from '../../document/edits';

/** Which strike it is, how the clip was filmed, and what has been set in the picture. */
export function SetUp({
  strike,
  setups,
}: {
  strike: StrikeDocument | null;
  setups: readonly CameraSetup[];
}) {
  const store = useBenchStore();
  const view = useBench((state) => documentOf(state).view);
  const captureRate = useBench((state) => documentOf(state).captureRate);
  const intent = useBench((state) => documentOf(state).intent ?? '');
  const round = useBench((state) => documentOf(state).round ?? '');
  const { edit } = store.getState();
  const now = () => documentOf(store.getState());
  return (
    <div className="space-y-4">
      <div className="grid grid-cols-2 gap-4">
        {strike && <StrikeFields strike={strike} />}
        <SelectField
          label="Filmed"
          value={view}
          hint={VIEW_GUIDE[view].shows}
          onChange={(event) => edit({ ...now(), view: event.target.value as View })}
        >
          {VIEWS.map((one) => (
            <option key={one} value={one}>
              {VIEW_GUIDE[one].name}
            </option>
          ))}
        </SelectField>
        <CaptureRate key={captureRate} />
        <SelectField
          label="Meant"
          value={intent}
          hint="Only strikes meant alike are compared."
          onChange={(event) => {
            const { intent: _, ...rest } = now();
            const chosen = INTENTS.find((one) => one === event.target.value);
            edit(chosen ? { ...rest, intent: chosen } : rest);
          }}
        >
          <option value="">not said</option>
          {INTENTS.map((one) => (
            <option key={one} value={one}>
              {INTENT_NAMES[one]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Round"
          value={round}
          hint="Rounds of one day tell what tires."
          onChange={(event) => {
            const { round: _, ...rest } = now();
            const chosen = Number(event.target.value);
            edit(chosen > 0 ? { ...rest, round: chosen } : rest);
          }}
        >
          <option value="">none</option>
          {Array.from({ length: 12 }, (_, i) => (
            <option key={i} value={i + 1}>
              {i + 1}
            </option>
          ))}
        </SelectField>
      </div>
      <CalibrationSetUp setups={setups} />
      {strike && <SchoolFields key={strike.id} strike={strike} />}
      {strike && (
        <Button
          weight="quiet"
          className="text-sm"
          onClick={() => edit(removeStrike(now(), strike.id))}
        >
          Remove this strike and its marks
        </Button>
      )}
    </div>
  );
}

function StrikeFields({ strike }: { strike: StrikeDocument }): ReactNode {
  const store = useBenchStore();
  const { edit } = store.getState();
  const now = () => documentOf(store.getState());
  return (
    <>
      <SelectField
        label="Strike"
        value={strike.technique}
        onChange={(event) =>
          edit(renameStrike(now(), strike.id, { technique: event.target.value, side: strike.side }))
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
    </>
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
