'use client';

import { useState } from 'react';
import { INTENT_NAMES, INTENTS } from '@sinew/core/foundation/drill/intent';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { LinkButton } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { FilmedFromField } from '@/ui/filmedFrom';
import { SentClip } from './SentClip';
import { useSending } from './useSending';
import { saidOf, useShown } from './useShown';

/** What the clips show, said once for all that are chosen together; then they go, one after the other. */
export function SendClips({ studentId }: { studentId: string }) {
  const [shown, setShown] = useShown();
  const [isSlow, setSlow] = useState(false);
  const [rate, setRate] = useState('240');
  const { items, add, again } = useSending(studentId);
  const shotAt = Number(rate.replace(',', '.'));
  const isRateGood = !isSlow || (Number.isFinite(shotAt) && shotAt > 0 && shotAt <= 10_000);
  const chosen = (files: FileList | null) =>
    add([...(files ?? [])], {
      ...saidOf(shown),
      ...(isSlow && { rate: String(shotAt) }),
    });
  return (
    <div className="mt-5 space-y-5">
      <SelectField
        label="They show"
        className="!h-12"
        value={shown.technique ?? ''}
        onChange={(event) => setShown('technique', event.target.value)}
      >
        <option value="">several strikes, or not said</option>
        {TECHNIQUES.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <FilmedFromField
        className="!h-12"
        value={shown.filmed}
        onChange={(text) => setShown('filmed', text)}
      />
      <SelectField
        label="Effort"
        className="!h-12"
        value={shown.intent ?? ''}
        onChange={(event) => setShown('intent', event.target.value)}
      >
        <option value="">not set</option>
        {INTENTS.map((one) => (
          <option key={one} value={one}>
            {INTENT_NAMES[one]}
          </option>
        ))}
      </SelectField>
      <label className="flex min-h-12 items-center gap-3">
        <input
          type="checkbox"
          className="size-6 accent-ink"
          checked={isSlow}
          onChange={(event) => setSlow(event.target.checked)}
        />
        They play in slow motion, and the file does not say so
      </label>
      {isSlow && (
        <TextField
          label="Shot at, frames a second"
          inputMode="decimal"
          className="!h-12"
          value={rate}
          error={isRateGood ? undefined : 'A number, for example 240.'}
          onChange={(event) => setRate(event.target.value)}
        />
      )}
      <div className="grid gap-3">
        <Chooser label="Choose clips from this phone" isMain isOff={!isRateGood} onFiles={chosen} />
        <Chooser label="Film one now" isCamera isOff={!isRateGood} onFiles={chosen} />
        <LinkButton href={`/phone/${studentId}/set`} className="min-h-14 justify-center">
          Film a set, with every hit again
        </LinkButton>
      </div>
      {items.length > 0 && (
        <ul aria-label="Clips on their way" className="border-t border-ink">
          {items.map((item) => (
            <SentClip key={item.id} item={item} onAgain={() => again(item.id)} />
          ))}
        </ul>
      )}
    </div>
  );
}

function Chooser({
  label,
  isMain = false,
  isCamera = false,
  isOff,
  onFiles,
}: {
  label: string;
  isMain?: boolean;
  /** The phone's own camera, as it is set there. */
  isCamera?: boolean;
  isOff: boolean;
  onFiles: (files: FileList | null) => void;
}) {
  return (
    <label
      className={`flex min-h-14 cursor-pointer items-center justify-center border border-ink px-4 font-semibold focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink ${isMain ? 'bg-ink text-paper' : ''} ${isOff ? 'opacity-45' : ''}`}
    >
      {label}
      <input
        type="file"
        accept={isCamera ? 'video/*' : 'video/*,.mkv'}
        multiple={!isCamera}
        capture={isCamera ? 'environment' : undefined}
        disabled={isOff}
        className="sr-only"
        onChange={(event) => {
          onFiles(event.target.files);
          event.target.value = '';
        }}
      />
    </label>
  );
}
