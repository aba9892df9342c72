'use client';

import { Key } from '@/ui/button';
import type { TakeState } from './useTake';

const LENGTHS = [10, 20, 30, 60, 180, 600] as const;

const SAY: Record<TakeState['kind'], string> = {
  ready: 'Film',
  failed: 'Film',
  counting: 'Call it off',
  recording: 'Stop',
  mending: 'Closing…',
  review: '',
};

/** One large button for the take, and three choices about it. */
export function Controls({
  state,
  isAble,
  seconds,
  onSeconds,
  isClapOn,
  onClap,
  isMirrored,
  onMirror,
  onPress,
}: {
  state: TakeState;
  isAble: boolean;
  seconds: number;
  onSeconds: (seconds: number) => void;
  isClapOn: boolean;
  onClap: () => void;
  isMirrored: boolean;
  onMirror: () => void;
  onPress: () => void;
}) {
  const isRunning = state.kind === 'recording';
  return (
    <div className="flex flex-1 items-stretch">
      <button
        type="button"
        data-record
        disabled={!isAble || state.kind === 'mending'}
        onClick={onPress}
        className={`flex h-28 w-72 shrink-0 items-center justify-center gap-4 text-4xl font-semibold text-paper max-lg:w-44 max-lg:text-3xl disabled:opacity-45 ${isRunning ? 'bg-now' : 'bg-ink'}`}
      >
        {SAY[state.kind]} <Key>Space</Key>
      </button>
      <div className="flex flex-1 flex-wrap content-center items-center gap-x-6 gap-y-1.5 px-6 max-lg:gap-x-3 max-lg:px-3">
        <label className="flex items-center gap-2">
          <span className="font-semibold">Take</span>
          <select
            aria-label="Longest take"
            value={seconds}
            disabled={isRunning}
            onChange={(event) => {
              onSeconds(Number(event.target.value));
              event.target.blur();
            }}
            className="h-11 border border-soft bg-field px-2"
          >
            {LENGTHS.map((one) => (
              <option key={one} value={one}>
                {one < 120 ? `${one} s` : `${one / 60} min`}
              </option>
            ))}
          </select>
        </label>
        <Toggle isOn={isClapOn} onClick={onClap} hint="C">
          A clap starts it
        </Toggle>
        <Toggle isOn={isMirrored} onClick={onMirror} hint="M">
          Mirror
        </Toggle>
      </div>
    </div>
  );
}

function Toggle({
  isOn,
  onClick,
  hint,
  children,
}: {
  isOn: boolean;
  onClick: () => void;
  hint: string;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onClick}
      className="flex h-11 items-center gap-2 border border-ink px-3.5 font-semibold aria-pressed:bg-ink aria-pressed:text-paper"
    >
      {children} <Key>{hint}</Key>
    </button>
  );
}
