'use client';

import type { ReactNode } from 'react';
import { HEIGHTS, NO_SOUND, RATES, SIMULATED } from '@/video/cameras';
import type { CameraState } from './useCamera';

/** Which camera and microphone, how large, how fast; in one line over the picture. */
export function CameraChoice({ camera, isLocked }: { camera: CameraState; isLocked: boolean }) {
  const { wish, setWish, cameras, microphones } = camera;
  const isSimulated = wish.camera === SIMULATED;
  return (
    <fieldset
      disabled={isLocked}
      className="flex flex-wrap items-stretch border-b border-ink bg-paper text-sm disabled:opacity-60"
    >
      <Choice label="Camera" value={wish.camera} onChange={(id) => setWish({ camera: id })}>
        <option value="">The usual camera</option>
        {cameras.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        <option value={SIMULATED}>Simulated camera</option>
      </Choice>
      <Choice
        label="Microphone"
        value={wish.microphone}
        isDisabled={isSimulated}
        onChange={(id) => setWish({ microphone: id })}
      >
        <option value="">The usual microphone</option>
        {microphones.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        <option value={NO_SOUND}>No sound</option>
      </Choice>
      <Choice
        label="Picture"
        value={String(wish.height)}
        isDisabled={isSimulated}
        onChange={(height) => setWish({ height: Number(height) })}
      >
        {HEIGHTS.map((height) => (
          <option key={height} value={height}>
            {height} high
          </option>
        ))}
      </Choice>
      <Choice
        label="Frames a second"
        value={String(wish.rate)}
        isDisabled={isSimulated}
        onChange={(rate) => setWish({ rate: Number(rate) })}
      >
        {RATES.map((rate) => (
          <option key={rate} value={rate}>
            {rate} a second
          </option>
        ))}
      </Choice>
    </fieldset>
  );
}

function Choice({
  label,
  value,
  isDisabled = false,
  onChange,
  children,
}: {
  label: string;
  value: string;
  isDisabled?: boolean;
  onChange: (value: string) => void;
  children: ReactNode;
}) {
  return (
    <select
      aria-label={label}
      value={value}
      disabled={isDisabled}
      onChange={(event) => {
        onChange(event.target.value);
        event.target.blur();
      }}
      className="h-9 max-w-52 border-r border-ink bg-transparent px-2.5 font-semibold disabled:text-soft"
    >
      {children}
    </select>
  );
}
