'use client';

import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { toast } from 'sonner';
import { checkFootage } from '@sinew/core/observe/footage/check';
import { TECHNIQUES, type View } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE, type FilmedFrom } from '@sinew/core/foundation/technique/views';
import { meanRate } from '@sinew/core/observe/track/time';
import { ask } from '@/api/client';
import { CAN_MAKE_READABLE } from '@/api/endpoints';
import { Button } from '@/ui/button';
import { CheckLines } from '@/ui/checkLines';
import { SelectField, TextField } from '@/ui/field';
import { FilmedFromField, filmedFrom } from '@/ui/filmedFrom';
import { ProgressBar } from '@/ui/progressBar';
import { Scrubbed } from '@/ui/scrubbed';
import { glanceAt, type Glance } from '@/tracking/glance';
import { preferredModel } from '@/tracking/preference';
import { tell } from '@/tracking/requests';
import type { FileCheck } from '@/video/check.worker';
import { checkFile } from '@/video/checkFile';
import type { Progress } from '@/video/progress';
import { takeOf } from '@sinew/core/observe/take/survey';
import { transfer, type Transfer } from '@/video/transfer';
import { sendSurvey, useSurvey, type SurveyState } from '@/video/useSurvey';

type GoodFile = Extract<FileCheck, { ok: true }>;

type Stage =
  | { readonly kind: 'checking' }
  | { readonly kind: 'unusable'; readonly message: string }
  | { readonly kind: 'asking'; readonly film: GoodFile }
  | { readonly kind: 'sending'; readonly progress: Progress };

/** One chosen file on its way to becoming a clip. */
export function NewClip({
  file,
  studentId,
  others,
  shared,
  onShare,
  onAdded,
  onAway,
}: {
  file: File;
  studentId: string;
  /** So many other files are asked about beside it. */
  others: number;
  /** What has been said of all of them; null until it is. */
  shared: Answers | null;
  onShare: (answers: Answers) => void;
  onAdded: (clipId: string) => void;
  onAway: () => void;
}) {
  const [stage, setStage] = useState<Stage>({ kind: 'checking' });
  const running = useRef<Transfer | null>(null);
  const [film, setFilm] = useState<GoodFile | null>(null);
  const survey = useSurvey(film && file, film?.frameTimes.length ?? 0);
  const glance = useGlance(file, film);
  const found = survey.state.kind === 'done' ? survey.state.survey : null;

  useEffect(() => {
    let isCurrent = true;
    void checkFile(file)
      .then(whereReadable)
      .then((result) => {
        if (!isCurrent) return;
        if (result.ok && result.isDecodable) setFilm(result);
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

  const send = async ({ rate, technique, ...filmed }: Answers) => {
    setStage({ kind: 'sending', progress: { share: 0, left: null } });
    // A film of a known technique is gone through by itself; of an unknown one the coach decides.
    const purpose = technique === null ? undefined : { technique, question: null };
    const track = technique === null ? undefined : preferredModel();
    running.current = transfer(
      file,
      { student: studentId, ...filmed, rate, purpose, track },
      (progress) => setStage({ kind: 'sending', progress }),
    );
    const result = await running.current.done;
    if (result.kind === 'added') {
      if (found) await sendSurvey(result.id, found);
      tell(result.id);
      if (result.isKnown) toast('This clip was here already; it is the same file.');
      onAdded(result.id);
    } else if (result.kind === 'refused') {
      setStage({ kind: 'unusable', message: result.message });
    } else {
      toast(`${file.name} was not added.`);
      onAway();
    }
  };

  // Said once for all: what a file says of itself goes before it, and what cannot be of it is asked.
  const own = stage.kind === 'asking' && shared ? answersFor(stage.film, shared) : null;
  const sendOwn = useEffectEvent(() => {
    if (own) queueMicrotask(() => void send(own));
  });
  const isAnswered = own !== null;
  useEffect(() => {
    if (isAnswered) sendOwn();
  }, [isAnswered]);

  return (
    <section aria-label={file.name} className="border-b border-rule py-5">
      <h3 className="mb-3 min-w-0 font-semibold wrap-anywhere">
        <bdi>{file.name}</bdi>
      </h3>
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        {film && <Scrubbed film={file} size={film} count={film.frameTimes.length} />}
        <div className="min-w-0 flex-1 basis-96">
          {stage.kind === 'checking' && <p className="text-soft">Looking inside the file…</p>}
          {stage.kind === 'unusable' && (
            <div role="alert" className="flex items-start gap-4">
              <p className="max-w-xl border-l-4 border-now pl-3">{stage.message}</p>
              <Button onClick={onAway}>Leave it out</Button>
            </div>
          )}
          {stage.kind === 'asking' && (
            <Questions
              film={stage.film}
              survey={survey.state}
              glance={glance}
              others={others}
              onSend={send}
              onShare={onShare}
              onAway={onAway}
              onCancelSurvey={survey.cancel}
            />
          )}
          {stage.kind === 'sending' && (
            <ProgressBar
              label="Transfer"
              progress={stage.progress}
              onCancel={() => running.current?.cancel()}
            />
          )}
        </div>
      </div>
    </section>
  );
}

/** Where the film seems to have been taken; undefined while nobody has looked. */
function useGlance(file: File, film: GoodFile | null): Glance | null | undefined {
  const [glance, setGlance] = useState<Glance | null>();
  useEffect(() => {
    if (!film) return;
    const stop = new AbortController();
    void glanceAt(file, film, film.frameTimes.length, stop.signal).then(
      (seen) => !stop.signal.aborted && setGlance(seen),
    );
    return () => stop.abort();
  }, [file, film]);
  return glance;
}

/** A film that this browser does not play is only asked about where the gym's machine makes it readable. */
async function whereReadable(film: FileCheck): Promise<FileCheck> {
  if (!film.ok || film.isDecodable) return film;
  const isAble = await ask(CAN_MAKE_READABLE, []).then(
    (answer) => answer.isAble,
    () => false,
  );
  return isAble
    ? film
    : {
        ok: false,
        message: `This browser cannot decode ${film.codec}, and there is no ffmpeg on the gym’s machine that would make it readable. Nothing was added; install ffmpeg there, or export the film as MP4 with H.264 and add that file.`,
      };
}

/** @returns null where it cannot be of this film: it plays faster than it is said to have been shot */
function answersFor(film: GoodFile, { rate, ...rest }: Answers): Answers | null {
  const own = film.shotAt ?? rate;
  return own !== null && own < meanRate(film.frameTimes) ? null : { ...rest, rate: own };
}

export interface Answers extends FilmedFrom {
  /** Frames a second at which it was shot; null when it plays at true speed. */
  readonly rate: number | null;
  readonly technique: string | null;
}

function Questions({
  film,
  survey,
  glance,
  others,
  onSend,
  onShare,
  onAway,
  onCancelSurvey,
}: {
  film: GoodFile;
  survey: SurveyState;
  glance: Glance | null | undefined;
  others: number;
  onCancelSurvey: () => void;
  onSend: (answers: Answers) => void;
  /** The same of all files that are asked about. */
  onShare: (answers: Answers) => void;
  onAway: () => void;
}) {
  const [said, setFilmed] = useState<FilmedFrom | null>(null);
  // Until somebody says it, the body in the film does.
  const filmed = said ?? { view: glance?.guess ?? 'side' };
  const [technique, setTechnique] = useState('');
  const [isSlow, setSlow] = useState(film.shotAt !== null);
  const [rate, setRate] = useState(String(film.shotAt ?? 240));
  const playback = meanRate(film.frameTimes);
  const shot = Number(rate.replace(',', '.'));
  const answers: Answers = { ...filmed, rate: isSlow ? shot : null, technique: technique || null };
  const isRateGood = !isSlow || (Number.isFinite(shot) && shot >= playback && shot <= 10_000);
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isRateGood) return;
        onSend(answers);
      }}
    >
      <p className="text-soft">
        {film.width} × {film.height}, {film.frameTimes.length} frames, plays at{' '}
        {Math.round(playback * 10) / 10} a second.
      </p>
      <div className="flex flex-wrap items-start gap-5">
        <div className="w-80">
          <FilmedFromField
            value={filmed}
            onChange={(text) => setFilmed(filmedFrom(text))}
            hint={viewHint(filmed.view, said !== null, glance)}
          />
        </div>
        <div className="w-80">
          <SelectField
            label="It shows"
            value={technique}
            onChange={(event) => setTechnique(event.target.value)}
            hint={
              technique
                ? 'Strikes and body are found by themselves, and are yours to confirm.'
                : 'Say which, and Sinew finds strikes and body by itself.'
            }
          >
            <option value="">several strikes, or not said</option>
            {TECHNIQUES.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
        </div>
        <div className="w-80">
          <SelectField
            label="The film runs"
            value={isSlow ? 'slow' : 'true'}
            onChange={(event) => setSlow(event.target.value === 'slow')}
            hint={
              film.shotAt === null
                ? 'A slow-motion file plays slower than it was shot; this one does not say.'
                : `The file says that it was shot at ${film.shotAt} a second.`
            }
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
      {film.isDecodable ? (
        <FilmCheck
          film={film}
          rate={isSlow && isRateGood ? shot : null}
          survey={survey}
          onCancel={onCancelSurvey}
        />
      ) : (
        <p>
          This browser does not play {film.codec}: once it is added, the gym’s machine makes it
          readable frame by frame, and keeps the original.
        </p>
      )}
      <div className="flex flex-wrap gap-4">
        <Button type="submit" weight="main" disabled={!isRateGood}>
          Add the clip
        </Button>
        {others > 0 && (
          <Button disabled={!isRateGood} onClick={() => onShare(answers)}>
            Add all {others + 1} like this
          </Button>
        )}
        <Button weight="quiet" onClick={onAway}>
          Leave it out
        </Button>
      </div>
    </form>
  );
}

function viewHint(view: View, isSaid: boolean, glance: Glance | null | undefined): string {
  const { shows } = VIEW_GUIDE[view];
  const name = (one: View) => VIEW_GUIDE[one].name.toLowerCase();
  if (glance === undefined) return `${shows} Looking where the camera stood…`;
  if (glance?.doubts(view)) {
    const { guess } = glance;
    const seen = guess ? `looks filmed ${name(guess)}` : `does not look filmed ${name(view)}`;
    return `This ${seen}. ${shows}`;
  }
  return !isSaid && glance?.guess ? `By the body in it, ${name(view)}. ${shows}` : shows;
}

/** What the film is worth, as soon as it has been gone through; adding it does not wait for that. */
function FilmCheck({
  film,
  rate,
  survey,
  onCancel,
}: {
  film: GoodFile;
  rate: number | null;
  survey: SurveyState;
  onCancel: () => void;
}) {
  if (survey.kind === 'running') {
    return <ProgressBar label="Film check" progress={survey.progress} onCancel={onCancel} />;
  }
  if (survey.kind === 'failed') return <p className="text-now">{survey.message}</p>;
  if (survey.kind === 'cancelled') return null;
  const { footage } = takeOf(survey.survey, film.frameTimes, rate);
  return (
    <section aria-label="Film check" className="max-w-3xl border-t border-rule text-sm">
      <CheckLines lines={checkFootage(footage, null)} />
    </section>
  );
}
