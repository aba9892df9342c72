'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { checkFootage } from '@sinew/core/observe/footage/check';
import { questionById } from '@sinew/core/foundation/technique/questions';
import { Button } from '@/ui/button';
import { CheckLines } from '@/ui/checkLines';
import { ProgressBar } from '@/ui/progressBar';
import type { FileCheck } from '@/video/check.worker';
import { checkFile } from '@/video/checkFile';
import type { Progress } from '@/video/progress';
import { strikesIn, takeOf } from '@sinew/core/observe/take/survey';
import { takeStore } from '@/video/takeStore';
import { transfer, type Transfer } from '@/video/transfer';
import { sendSurvey, useSurvey } from '@/video/useSurvey';
import type { FinishedTake } from './useTake';
import { useCommands } from '@/ui/commands/registry';

type Keeping =
  | { readonly kind: 'no' }
  | { readonly kind: 'sending'; readonly progress: Progress }
  | { readonly kind: 'refused'; readonly message: string };

/** The take just made: seen again, checked, and kept or filmed again. */
export function Review({
  take,
  onKept,
  onAgain,
}: {
  take: FinishedTake;
  onKept: (clipId: string) => void;
  onAgain: () => void;
}) {
  const [film, setFilm] = useState<FileCheck | null>(null);
  const [keeping, setKeeping] = useState<Keeping>({ kind: 'no' });
  const sending = useRef<Transfer | null>(null);
  const url = useObjectUrl(take.file);
  const good = film?.ok ? film : null;
  const survey = useSurvey(good && take.file, good?.frameTimes.length ?? 0);
  const found = survey.state.kind === 'done' ? survey.state.survey : null;
  const seen = useMemo(
    () => (found && good ? takeOf(found, good.frameTimes, null) : null),
    [found, good],
  );
  const { view, azimuth, technique, question, studentId, intent, round } = take.about;

  useEffect(() => {
    let isCurrent = true;
    void checkFile(take.file).then((result) => isCurrent && setFilm(result));
    return () => {
      isCurrent = false;
    };
  }, [take.file]);

  const keep = async () => {
    if (keeping.kind === 'sending' || film?.ok === false) return;
    const about = {
      student: studentId,
      view,
      ...(azimuth !== undefined && { azimuth }),
      rate: null,
      ...(technique && { purpose: { technique, question } }),
      ...(intent && { intent }),
      ...(round && { round }),
    };
    const advance = (progress: Progress) => setKeeping({ kind: 'sending', progress });
    advance({ share: 0, left: null });
    sending.current = transfer(take.file, about, advance);
    const result = await sending.current.done;
    if (result.kind === 'added') {
      if (found) await sendSurvey(result.id, found);
      await takeStore().remove(take.id);
      onKept(result.id);
    } else if (result.kind === 'refused') {
      const message = `${result.message} The take is still in this browser.`;
      setKeeping({ kind: 'refused', message });
    } else setKeeping({ kind: 'no' });
  };
  useCommands(() =>
    [
      { id: 'keep', keys: ['Enter'], words: 'keep it', run: () => void keep() },
      {
        id: 'again',
        keys: ['r'],
        words: 'film it again',
        run: () => keeping.kind !== 'sending' && onAgain(),
      },
    ].map((one) => ({ ...one, group: 'The take' })),
  );

  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,63fr)_minmax(320px,37fr)] grid-rows-[minmax(0,1fr)_auto]">
      <section aria-label="The take" className="min-h-0 border-r border-ink bg-shade">
        {url && (
          <video
            src={url}
            autoPlay
            loop
            muted
            controls
            playsInline
            className="size-full object-contain"
          />
        )}
      </section>
      <section aria-label="Film check" className="min-h-0 overflow-auto px-5 py-4">
        <h2 className="mb-2 font-serif text-2xl leading-tight">
          {seen ? strikesFound(strikesIn(seen, null)) : 'Is it good enough?'}
        </h2>
        {take.problem && (
          <p role="alert" className="mb-3 border-l-4 border-now pl-3 font-semibold">
            {take.problem}
          </p>
        )}
        {film && !film.ok && (
          <p role="alert" className="border-l-4 border-now pl-3">
            {film.message}
          </p>
        )}
        {survey.state.kind === 'running' && good && (
          <div className="space-y-2">
            <p className="text-soft">Going through the film. You need not wait for it.</p>
            <ProgressBar
              label="Film check"
              progress={survey.state.progress}
              onCancel={survey.cancel}
            />
          </div>
        )}
        {survey.state.kind === 'failed' && <p role="alert">{survey.state.message}</p>}
        {seen && (
          <CheckLines
            lines={checkFootage(seen.footage, question ? questionById(question) : null)}
          />
        )}
      </section>
      <div className="col-span-2 flex items-stretch border-t border-ink">
        {keeping.kind === 'sending' ? (
          <div className="flex h-28 items-center px-6">
            <ProgressBar
              label="Keeping"
              progress={keeping.progress}
              onCancel={() => sending.current?.cancel()}
            />
          </div>
        ) : (
          <>
            <Button
              weight="main"
              hint="Enter"
              disabled={film?.ok === false}
              onClick={() => void keep()}
              className="h-28 w-72 justify-center text-4xl"
            >
              Keep it
            </Button>
            <Button
              hint="R"
              onClick={onAgain}
              className="h-28 w-72 justify-center border-y-0 text-4xl"
            >
              Film again
            </Button>
            <p className="max-w-xl self-center px-6 text-soft" role="status">
              {keeping.kind === 'refused' ? (
                <strong role="alert" className="text-now">
                  {keeping.message}
                </strong>
              ) : (
                'Filming again throws this take away. Kept, it goes to the bench.'
              )}
            </p>
          </>
        )}
      </div>
    </main>
  );
}

function strikesFound(found: readonly { readonly contact: unknown }[]): string {
  if (found.length === 0) return 'No strike stands out in this take.';
  const heard = found.filter((one) => one.contact !== null).length;
  const strikes = found.length === 1 ? 'One strike' : `${found.length} strikes`;
  if (heard === found.length) return `${strikes}, each one heard.`;
  return heard === 0 ? `${strikes} seen.` : `${strikes}, ${heard} of them heard.`;
}

function useObjectUrl(file: File): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(file);
    // The address exists only while this page shows the file.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [file]);
  return url;
}
