'use client';

import { useRef, useState } from 'react';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import type { ClipAnalysis } from '@sinew/core/analysis/analyzeClip';
import type { ClipSummary } from '@/data/clip/clips';
import type { SecondView } from '@/data/clip/viewPairs';
import { Button } from '@/ui/button';
import { ProgressBar } from '@/ui/progressBar';
import type { Progress } from '@/video/progress';
import type { Surveying } from '@/video/surveyor';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { useAnalysis } from '../../document/useAnalysis';
import {
  joinByFrames,
  joinBySound,
  keepJoin,
  partFromSecond,
  surveyOfClip,
} from '../../document/secondView';
import { FilmFrame } from '@/ui/filmFrame';
import { useSwap } from '../../picture/SecondPicture';
import { ask, wordsOf } from '@/api/client';
import { CLIP_FACTS } from '@/api/endpoints';

type OtherClip = Pick<SecondView, 'clip' | 'bench'>;

/** The film of the same take from another side: joined, seen beside, measured with. */
export function SecondViewPanel({
  others,
  space,
}: {
  others: readonly ClipSummary[];
  space: ClipAnalysis['space'];
}) {
  const second = useBench((state) => state.second);
  return (
    <>
      <h2 className="mb-2 border-b-2 border-ink pb-1 font-semibold">Second view</h2>
      {second ? <Joined second={second} space={space} /> : <Join others={others} />}
    </>
  );
}

const ms = (seconds: number) => `${(1000 * seconds).toFixed(1)} ms`;

function Joined({ second, space }: { second: SecondView; space: ClipAnalysis['space'] }) {
  const store = useBenchStore();
  const clipId = useBench((state) => state.clip.id);
  const swap = useSwap();
  const { clip, offset } = second;
  const ahead = offset.seconds >= 0 ? 'ahead of' : 'behind';
  return (
    <div className="space-y-3">
      <p>
        <strong>{clip.fileName}</strong>,{' '}
        {VIEW_GUIDE[second.bench.document.view].name.toLowerCase()}. Its clock runs{' '}
        {Math.abs(offset.seconds).toFixed(4)} s {ahead} this one’s, ± {ms(1.96 * offset.sigma)}, by{' '}
        {offset.by === 'sound'
          ? `the sound of ${offset.pairs} ${offset.pairs === 1 ? 'hit' : 'hits'}`
          : 'an instant seen in both'}
        .
      </p>
      <ByItself />
      <p className="text-soft">{spaceSays(space)}</p>
      <div className="flex flex-wrap gap-3">
        <Button hint="V" onClick={swap}>
          Go to that film
        </Button>
        <Button
          onClick={() => {
            void partFromSecond(clipId);
            store.getState().joinedWith(null);
          }}
        >
          Part them
        </Button>
      </div>
    </div>
  );
}

/** What the other film gives where nothing but the clock joins the two. */
function ByItself() {
  const analysis = useAnalysis();
  const readings = Object.values(analysis?.readings ?? {});
  const count = readings.filter((one) => !isAbsent(one) && one.isElsewhere).length;
  if (count === 0) return null;
  return (
    <p>
      Each film is read by itself: {count} {count === 1 ? 'reading is' : 'readings are'} that one’s,
      which shows {count === 1 ? 'it' : 'them'} alone or more surely.
    </p>
  );
}

function spaceSays(space: ClipAnalysis['space']): string {
  if (space === null) return 'Name a strike to measure it from both sides.';
  if ('problem' in space) return space.problem;
  if (space.landmarks === 0) {
    return 'No point is placed in both films at the same time yet; place the same ones in each.';
  }
  const { landmarks, disagreements } = space;
  const measured = `${landmarks} ${landmarks === 1 ? 'point is' : 'points are'} measured in space.`;
  if (disagreements.length === 0) return measured;
  const worst = disagreements.reduce((a, b) => (b.pixels > a.pixels ? b : a));
  return (
    `${measured} In ${disagreements.length} places the films disagree, most by ` +
    `${Math.round(worst.pixels)} pixels on frame ${worst.frame}: are the corners taken in the same order in both?`
  );
}

function Join({ others: all }: { others: readonly ClipSummary[] }) {
  // Of a film that is gone nothing can be laid beside another.
  const others = all.filter(({ isPurged }) => !isPurged);
  const [chosen, setChosen] = useState('');
  if (others.length === 0) {
    return (
      <p className="text-soft">
        This student has no other clip. A second camera that films the same take from another side
        makes lengths and turns measurable in space.
      </p>
    );
  }
  return (
    <div className="space-y-3">
      <label className="flex items-center gap-3">
        <span className="text-soft">The same take is also in</span>
        <select
          aria-label="Clip of the same take"
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
          className="h-10 min-w-0 flex-1 border border-soft bg-field px-2"
        >
          <option value="">choose a clip</option>
          {others.map((clip) => (
            <option key={clip.id} value={clip.id}>
              {clip.fileName}, {VIEW_GUIDE[clip.view].name.toLowerCase()}
            </option>
          ))}
        </select>
      </label>
      {chosen && <JoinWith key={chosen} otherId={chosen} />}
    </div>
  );
}

type Work =
  | { readonly kind: 'none' }
  | { readonly kind: 'listening'; readonly progress: Progress | null }
  | { readonly kind: 'problem'; readonly message: string }
  | { readonly kind: 'by eye'; readonly other: OtherClip };

const factsOf = (clipId: string): Promise<OtherClip> => ask(CLIP_FACTS, [clipId]);

function JoinWith({ otherId }: { otherId: string }) {
  const store = useBenchStore();
  const survey = useBench((state) => state.survey);
  const [work, setWork] = useState<Work>({ kind: 'none' });
  const running = useRef<Surveying | null>(null);

  const bySound = async () => {
    const { clip } = store.getState();
    if (survey.kind !== 'done') return;
    setWork({ kind: 'listening', progress: null });
    try {
      const other = await factsOf(otherId);
      const heard = await surveyOfClip(
        otherId,
        other.clip.frameTimes.length,
        (progress) => setWork({ kind: 'listening', progress }),
        (begun) => (running.current = begun),
      );
      if (!heard) return setWork({ kind: 'none' });
      const offset = joinBySound(
        { film: clip, document: documentOf(store.getState()), survey: survey.survey },
        { film: other.clip, document: other.bench.document, survey: heard },
      );
      if ('problem' in offset) return setWork({ kind: 'problem', message: offset.problem });
      store.getState().joinedWith(await keepJoin(clip.id, otherId, offset));
    } catch (error) {
      setWork({ kind: 'problem', message: wordsOf(error) });
    }
  };
  const byEye = async () => {
    try {
      setWork({ kind: 'by eye', other: await factsOf(otherId) });
    } catch (error) {
      setWork({ kind: 'problem', message: wordsOf(error) });
    }
  };

  if (work.kind === 'listening') {
    return work.progress ? (
      <ProgressBar
        label="Listening to the other film"
        progress={work.progress}
        onCancel={() => running.current?.cancel()}
      />
    ) : (
      <p className="text-soft">Listening to both films…</p>
    );
  }
  if (work.kind === 'by eye') {
    return (
      <JoinByEye
        other={work.other}
        onProblem={(message) => setWork({ kind: 'problem', message })}
      />
    );
  }
  return (
    <div className="space-y-3">
      {work.kind === 'problem' && (
        <p role="alert" className="border-l-4 border-now pl-3">
          {work.message}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        <Button weight="main" disabled={survey.kind !== 'done'} onClick={() => void bySound()}>
          Join by sound
        </Button>
        <Button onClick={() => void byEye()}>Join by an instant</Button>
      </div>
      {survey.kind === 'running' && (
        <p className="text-sm text-soft">By sound as soon as this film has been gone through.</p>
      )}
    </div>
  );
}

/** Two pictures side by side: step each to the same instant, a clap or a contact. */
function JoinByEye({
  other,
  onProblem,
}: {
  other: OtherClip;
  onProblem: (message: string) => void;
}) {
  const store = useBenchStore();
  const [frame, setFrame] = useState(0);
  const last = other.clip.frameTimes.length - 1;
  const move = (by: number) => setFrame((now) => Math.min(last, Math.max(0, now + by)));
  const join = async () => {
    const state = store.getState();
    const offset = joinByFrames(
      { film: state.clip, document: documentOf(state), frame: state.frame },
      { film: other.clip, document: other.bench.document, frame },
    );
    try {
      state.joinedWith(await keepJoin(state.clip.id, other.clip.id, offset));
    } catch (error) {
      onProblem(wordsOf(error));
    }
  };
  return (
    <div className="space-y-2">
      <p className="text-soft">
        Step both films to one instant that can be seen in each: a clap, or the first frame of a
        contact.
      </p>
      <FilmFrame clip={other.clip} frame={frame} />
      <div className="flex flex-wrap items-center gap-2">
        {[-100, -10, -1, 1, 10, 100].map((by) => (
          <Button key={by} className="px-2!" onClick={() => move(by)}>
            {by > 0 ? `+${by}` : by}
          </Button>
        ))}
        <span className="text-soft">frame {frame}</span>
      </div>
      <Button weight="main" onClick={() => void join()}>
        Both show the same instant
      </Button>
    </div>
  );
}
