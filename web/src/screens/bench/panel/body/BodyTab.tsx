'use client';

import { useState } from 'react';
import { useStore } from 'zustand';
import { Button } from '@/ui/button';
import { SelectField } from '@/ui/field';
import { ProgressBar } from '@/ui/progressBar';
import type { Job } from '@/api/job';
import { MODELS, type Model } from '@/api/models';
import { preferredModel, preferModel } from '@/tracking/preference';
import { queue, switchOff } from '@/tracking/queue';
import { changeJob, drop } from '@/tracking/requests';
import { stepName } from '@/tracking/words';
import { useBench, useBenchStore } from '../../document/benchStore';
import type { BenchProps } from '../../benchProps';
import { DoubtList } from './Doubts';
import { ImportSeries } from './ImportSeries';
import { said } from './said';
import { SwapForm } from './SwapForm';
import { WornBands } from './WornBands';
import { useTracked } from '../../document/useTracked';

/** What the body tracker has seen, what is doubtful in it, and how it is set to work. */
export function BodyTab({ worn }: Pick<BenchProps, 'worn'>) {
  const job = useBench((state) => state.job);
  const { base } = useTracked();
  const settings = (
    <section aria-label="Body tracking" className="space-y-3">
      {job === null && base === null && (
        <p className="text-soft">
          Sinew can find the body in this film by itself, here in the browser. It looks only around
          the strikes: a strike of a second at 240 a second takes about half a minute on a slow
          machine.
        </p>
      )}
      {job && <JobState job={job} />}
      <Start job={job} />
    </section>
  );
  const isOver = job?.state === 'done';
  return (
    <div className="space-y-6">
      {!isOver && settings}
      <WornBands worn={worn} />
      {base && (
        <section aria-label="Doubtful points">
          <h2 className="mb-2 font-serif text-xl">Doubtful points</h2>
          <DoubtList />
        </section>
      )}
      {base && <SwapForm />}
      {isOver && settings}
      <ImportSeries />
    </div>
  );
}

function JobState({ job }: { job: Job }) {
  const current = useStore(queue, (state) => state.current);
  const isOff = useStore(queue, (state) => state.isOff);
  const seen = useBench((state) => state.detections.length);
  const isHere = current?.job.clipId === job.clipId;
  switch (job.state) {
    case 'wanted':
      if (isOff) {
        return (
          <div className="space-y-2">
            <p>Body tracking is switched off in this browser.</p>
            <Button onClick={() => switchOff(false)}>Switch it on</Button>
          </div>
        );
      }
      return (
        <div className="space-y-2">
          <p role="status">
            {isHere && current.step
              ? `${stepName(current.step)}. Everything else works meanwhile.`
              : 'Waiting for its turn.'}
          </p>
          {isHere && current.step && (
            <ProgressBar label="Body tracking" progress={current.step.progress} />
          )}
          <div className="flex gap-2.5">
            <Button onClick={() => void changeJob(job.clipId, { kind: 'pause' }).catch(said)}>
              Pause
            </Button>
            <Button onClick={() => void drop(job.clipId).catch(said)}>Stop looking</Button>
          </div>
        </div>
      );
    case 'paused':
      return (
        <div className="space-y-2">
          <p role="status">Paused. {seen} frames are done and kept.</p>
          <div className="flex gap-2.5">
            <Button
              weight="main"
              onClick={() => void changeJob(job.clipId, { kind: 'resume' }).catch(said)}
            >
              Go on
            </Button>
            <Button onClick={() => void drop(job.clipId).catch(said)}>Stop looking</Button>
          </div>
        </div>
      );
    case 'failed':
      return (
        <p role="alert" className="border-l-4 border-now pl-3">
          {job.message}
        </p>
      );
    case 'done':
      return (
        <div className="space-y-1">
          <p role="status">
            The body was found in {seen} frames. What one film cannot show stays open, the start of
            the hips above all: mark it by eye.
          </p>
          {job.message && <p>{job.message}</p>}
        </div>
      );
  }
}

const MODEL_WORDS: Record<Model, string> = {
  quick: 'Quick: a first look',
  standard: 'Standard',
  fine: 'Fine: three times as long, surer at contact',
};

function Start({ job }: { job: Job | null }) {
  const store = useBenchStore();
  const clipId = useBench((state) => state.clip.id);
  const [model, setModel] = useState<Model>(() => job?.model ?? preferredModel());
  const isRunning = job?.state === 'wanted' || job?.state === 'paused';
  if (isRunning) return null;
  const start = () => {
    preferModel(model);
    void changeJob(clipId, { kind: 'start', model, person: job?.person ?? null }).catch(said);
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="w-64">
        <SelectField
          label="How it looks"
          value={model}
          onChange={(event) => setModel(event.target.value as Model)}
        >
          {MODELS.map((one) => (
            <option key={one} value={one}>
              {MODEL_WORDS[one]}
            </option>
          ))}
        </SelectField>
      </div>
      <Button weight={job ? 'plain' : 'main'} onClick={start}>
        {job ? 'Find the body anew' : 'Find the body'}
      </Button>
      <Button hint="B" onClick={() => store.getState().setTool({ kind: 'person' })}>
        Box round the student
      </Button>
    </div>
  );
}
