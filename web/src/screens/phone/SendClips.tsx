'use client';

import { useEffect, useRef, useState } from 'react';
import PQueue from 'p-queue';
import { INTENT_NAMES, INTENTS } from '@sinew/core/foundation/drill/intent';
import { TECHNIQUES, VIEWS, type View } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { wordsOf } from '@/api/client';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { useRemembered } from '@/ui/useRemembered';
import { checkFile } from '@/video/checkFile';
import type { Progress } from '@/video/progress';
import { sendFilm } from '@/video/sendFilm';
import { stayAwake } from './stayAwake';

type Stage =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'sending'; readonly progress: Progress }
  | { readonly kind: 'there'; readonly isKnown: boolean }
  | { readonly kind: 'failed'; readonly why: string };

interface Item {
  readonly id: number;
  readonly file: File;
  readonly about: Record<string, string> & { readonly student: string };
  readonly stage: Stage;
}

/** What the clips show, said once for all that are chosen together; then they go, one after the other. */
export function SendClips({ studentId }: { studentId: string }) {
  const [technique, setTechnique] = useRemembered('sinew.phone.technique');
  const [view, setView] = useRemembered('sinew.phone.view');
  const [intent, setIntent] = useRemembered('sinew.phone.intent');
  const [isSlow, setSlow] = useState(false);
  const [rate, setRate] = useState('240');
  const { items, add, again } = useSending(studentId);
  const from = VIEWS.find((one) => one === view) ?? 'side';
  const shotAt = Number(rate.replace(',', '.'));
  const isRateGood = !isSlow || (Number.isFinite(shotAt) && shotAt > 0 && shotAt <= 10_000);
  const chosen = (files: FileList | null) =>
    add([...(files ?? [])], {
      view: from,
      ...(technique && { technique, track: 'standard' }),
      ...(intent && { intent }),
      ...(isSlow && { rate: String(shotAt) }),
    });
  return (
    <div className="mt-5 space-y-5">
      <SelectField
        label="They show"
        className="!h-12"
        value={technique}
        onChange={(event) => setTechnique(event.target.value)}
      >
        <option value="">several strikes, or not said</option>
        {TECHNIQUES.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <div className="grid grid-cols-2 gap-4">
        <SelectField
          label="Filmed"
          className="!h-12"
          value={from}
          onChange={(event) => setView(event.target.value as View)}
        >
          {VIEWS.map((one) => (
            <option key={one} value={one}>
              {VIEW_GUIDE[one].name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Effort"
          className="!h-12"
          value={intent}
          onChange={(event) => setIntent(event.target.value)}
        >
          <option value="">not set</option>
          {INTENTS.map((one) => (
            <option key={one} value={one}>
              {INTENT_NAMES[one]}
            </option>
          ))}
        </SelectField>
      </div>
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

function SentClip({ item: { file, stage }, onAgain }: { item: Item; onAgain: () => void }) {
  return (
    <li className="border-b border-rule py-3">
      <p className="font-semibold">{file.name}</p>
      {stage.kind === 'waiting' && <p className="text-soft">waits for its turn</p>}
      {stage.kind === 'sending' && <Sending progress={stage.progress} />}
      {stage.kind === 'there' && (
        <p>{stage.isKnown ? 'Was on the bench already.' : 'On the bench, whole and checked.'}</p>
      )}
      {stage.kind === 'failed' && (
        <div role="alert" className="space-y-2">
          <p className="border-l-4 border-now pl-3">{stage.why}</p>
          <Button className="min-h-12" onClick={onAgain}>
            Send it again
          </Button>
        </div>
      )}
    </li>
  );
}

function Sending({ progress: { share, left } }: { progress: Progress }) {
  const percent = Math.round(100 * share);
  return (
    <div className="flex items-center gap-3">
      <progress max={100} value={percent} aria-label="Sent" className="h-3 flex-1 accent-ink" />
      <span className="w-40 text-right text-sm text-soft">
        {percent === 100
          ? 'being checked'
          : `${percent} %${left === null ? '' : `, ${inWords(left)} left`}`}
      </span>
    </div>
  );
}

const inWords = (seconds: number) =>
  seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;

/** Clips that go one after the other, and the screen that stays awake for them. */
function useSending(studentId: string) {
  const [items, setItems] = useState<readonly Item[]>([]);
  const counter = useRef(0);
  const [queue] = useState(() => new PQueue({ concurrency: 1 }));
  const closing = useRef<AbortController | null>(null);
  useEffect(() => {
    const controller = new AbortController();
    closing.current = controller;
    return () => controller.abort();
  }, []);
  const set = (id: number, stage: Stage) =>
    setItems((all) => all.map((one) => (one.id === id ? { ...one, stage } : one)));

  const send = ({ id, file, about }: Item) => {
    set(id, { kind: 'waiting' });
    void queue.add(() =>
      stayAwake(async () => {
        try {
          set(id, { kind: 'sending', progress: { share: 0, left: null } });
          const said = about.rate === undefined ? await rateIn(file) : null;
          const { isKnown } = await sendFilm(
            file,
            said === null ? about : { ...about, rate: String(said) },
            (progress) => set(id, { kind: 'sending', progress }),
            closing.current!.signal,
          );
          set(id, { kind: 'there', isKnown });
        } catch (error) {
          set(id, { kind: 'failed', why: wordsOf(error) });
        }
      }),
    );
  };
  const add = (files: readonly File[], about: Readonly<Record<string, string>>) => {
    const added = files.map((file): Item => ({
      id: counter.current++,
      file,
      about: { ...about, student: studentId },
      stage: { kind: 'waiting' },
    }));
    setItems((all) => [...added, ...all]);
    added.forEach(send);
  };
  const again = (id: number) => {
    const item = items.find((one) => one.id === id);
    if (item) send(item);
  };
  return { items, add, again };
}

/** Frames a second at which the file says that it was shot; null when it says nothing. */
async function rateIn(file: File): Promise<number | null> {
  const film = await checkFile(file).catch(() => null);
  return film?.ok ? film.shotAt : null;
}
