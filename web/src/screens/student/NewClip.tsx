'use client';

import { releaseProxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { VIEWS, type View } from '@sinew/core/technique/catalogue';
import { VIEW_GUIDE } from '@sinew/core/technique/views';
import { meanRate } from '@sinew/core/track/time';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import type { CheckWorker, FileCheck } from '@/video/check.worker';
import { transfer, type Progress, type Transfer } from './transfer';

type Stage =
  | { readonly kind: 'checking' }
  | { readonly kind: 'unusable'; readonly message: string }
  | { readonly kind: 'asking'; readonly film: Extract<FileCheck, { ok: true }> }
  | { readonly kind: 'sending'; readonly progress: Progress };

async function check(file: File): Promise<FileCheck> {
  const worker = new Worker(new URL('../../video/check.worker.ts', import.meta.url), {
    type: 'module',
  });
  const remote = wrap<CheckWorker>(worker);
  try {
    return await remote.check(file);
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

/** One chosen file on its way to becoming a clip. */
export function NewClip({
  file,
  studentId,
  onAdded,
  onAway,
}: {
  file: File;
  studentId: string;
  onAdded: (clipId: string) => void;
  onAway: () => void;
}) {
  const [stage, setStage] = useState<Stage>({ kind: 'checking' });
  const running = useRef<Transfer | null>(null);

  useEffect(() => {
    let isCurrent = true;
    void check(file).then((result) => {
      if (!isCurrent) return;
      setStage(
        result.ok
          ? { kind: 'asking', film: result }
          : { kind: 'unusable', message: result.message },
      );
    });
    return () => {
      isCurrent = false;
    };
  }, [file]);

  const send = async (view: View, rate: number | null) => {
    setStage({ kind: 'sending', progress: { share: 0, left: null } });
    running.current = transfer(file, { student: studentId, view, rate }, (progress) =>
      setStage({ kind: 'sending', progress }),
    );
    const result = await running.current.done;
    if (result.kind === 'added') {
      if (result.isKnown) toast('This clip was here already; it is the same file.');
      onAdded(result.id);
    } else if (result.kind === 'refused') {
      setStage({ kind: 'unusable', message: result.message });
    } else {
      toast(`${file.name} was not added.`);
      onAway();
    }
  };

  return (
    <section aria-label={file.name} className="border-b border-rule py-5">
      <h3 className="mb-2 font-semibold">{file.name}</h3>
      {stage.kind === 'checking' && <p className="text-soft">Looking inside the file…</p>}
      {stage.kind === 'unusable' && (
        <div role="alert" className="flex items-start gap-4">
          <p className="max-w-xl border-l-4 border-now pl-3">{stage.message}</p>
          <Button onClick={onAway}>Put it away</Button>
        </div>
      )}
      {stage.kind === 'asking' && <Questions film={stage.film} onSend={send} onAway={onAway} />}
      {stage.kind === 'sending' && (
        <Sending progress={stage.progress} onCancel={() => running.current?.cancel()} />
      )}
    </section>
  );
}

function Questions({
  film,
  onSend,
  onAway,
}: {
  film: Extract<FileCheck, { ok: true }>;
  onSend: (view: View, rate: number | null) => void;
  onAway: () => void;
}) {
  const [view, setView] = useState<View>('side');
  const [isSlow, setSlow] = useState(false);
  const [rate, setRate] = useState('240');
  const playback = meanRate(film.frameTimes);
  const shot = Number(rate.replace(',', '.'));
  const isRateGood = !isSlow || (Number.isFinite(shot) && shot >= playback && shot <= 10_000);
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (isRateGood) onSend(view, isSlow ? shot : null);
      }}
    >
      <p className="text-soft">
        {film.width} × {film.height}, {film.frameTimes.length} frames, plays at{' '}
        {Math.round(playback * 10) / 10} a second.
      </p>
      <div className="flex flex-wrap items-start gap-5">
        <div className="w-80">
          <SelectField
            label="Filmed"
            value={view}
            onChange={(event) => setView(event.target.value as View)}
            hint={VIEW_GUIDE[view].shows}
          >
            {VIEWS.map((one) => (
              <option key={one} value={one}>
                {VIEW_GUIDE[one].name}
              </option>
            ))}
          </SelectField>
        </div>
        <div className="w-80">
          <SelectField
            label="The film runs"
            value={isSlow ? 'slow' : 'true'}
            onChange={(event) => setSlow(event.target.value === 'slow')}
            hint="A slow-motion file plays slower than it was shot; only you or the camera know."
          >
            <option value="true">at true speed</option>
            <option value="slow">in slow motion</option>
          </SelectField>
        </div>
        {isSlow && (
          <div className="w-44">
            <TextField
              label="Shot at, frames a second"
              inputMode="decimal"
              value={rate}
              onChange={(event) => setRate(event.target.value)}
              error={
                isRateGood
                  ? undefined
                  : `A number from ${Math.ceil(playback)} up: it was shot at least as fast as it plays.`
              }
            />
          </div>
        )}
      </div>
      <div className="flex gap-4">
        <Button type="submit" weight="main" disabled={!isRateGood}>
          Add the clip
        </Button>
        <Button onClick={onAway}>Put it away</Button>
      </div>
    </form>
  );
}

function Sending({ progress, onCancel }: { progress: Progress; onCancel: () => void }) {
  const percent = Math.round(progress.share * 100);
  return (
    <div className="flex items-center gap-4">
      <progress
        max={100}
        value={percent}
        aria-label="Transfer"
        className="h-2 w-72 appearance-none border border-ink [&::-webkit-progress-bar]:bg-paper [&::-webkit-progress-value]:bg-ink"
      />
      <span>
        {percent} %
        {progress.left !== null && progress.share < 1 && `, ${Math.ceil(progress.left)} s left`}
      </span>
      <Button onClick={onCancel}>Cancel</Button>
    </div>
  );
}
