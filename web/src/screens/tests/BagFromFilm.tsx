'use client';

import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import type { Place } from '@sinew/core/train/bag/patch';
import { say } from '@/manner/manner';
import type { Clip, ClipSummary } from '@/data/clip/clips';
import { FilmFrame } from '@/ui/filmFrame';
import { Button } from '@/ui/button';
import { SelectField } from '@/ui/field';
import { ProgressBar } from '@/ui/progressBar';
import { followBag, type Following } from './followBag';
import { ask } from '@/api/client';
import { CLIP_FACTS } from '@/api/endpoints';

interface Opened {
  readonly clip: Clip;
  readonly times: readonly number[];
}

type Step = 'hook' | 'bag' | 'ready';

const ASKS: Readonly<Record<Step, string>> = {
  hook: 'Click the hook the bag hangs from.',
  bag: 'Go to a frame before the blow and click something that stands out low on the bag.',
  ready: 'Follow it, or click again to choose another place.',
};

/** The largest swing of a bag, followed through a film from one click on it. */
export function BagFromFilm({
  clips,
  onSwing,
}: {
  clips: readonly ClipSummary[];
  onSwing: (swing: { readonly value: number; readonly plusMinus: number }) => void;
}) {
  const [id, setId] = useState(clips[0]?.id ?? '');
  const [opened, setOpened] = useState<Opened | null>(null);
  const [frame, setFrame] = useState(0);
  const [hook, setHook] = useState<Place | null>(null);
  const [mark, setMark] = useState<(Place & { frame: number }) | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const following = useRef<Following | null>(null);

  useEffect(() => {
    if (!id) return;
    let isCurrent = true;
    ask(CLIP_FACTS, [id])
      .then(({ clip, bench }) => {
        if (!isCurrent) return;
        const times = realFrameTimes(clip.frameTimes, bench.document.captureRate);
        setOpened({ clip, times });
      })
      .catch(() => isCurrent && setSaid('The film cannot be opened.'));
    return () => {
      isCurrent = false;
      following.current?.cancel();
    };
  }, [id]);

  if (clips.length === 0)
    return <p className="py-2 text-soft">There is no film of this student yet.</p>;
  const step: Step = !hook ? 'hook' : !mark ? 'bag' : 'ready';
  const click = (event: PointerEvent<HTMLDivElement>) => {
    if (!opened) return;
    const box = event.currentTarget.getBoundingClientRect();
    const at = {
      x: ((event.clientX - box.left) / box.width) * opened.clip.width,
      y: ((event.clientY - box.top) / box.height) * opened.clip.height,
    };
    if (step === 'hook') setHook(at);
    else setMark({ ...at, frame });
  };
  const follow = async () => {
    if (!opened || !hook || !mark) return;
    setProgress(0);
    setSaid(null);
    const run = followBag(opened.clip.id, opened.times, hook, mark, setProgress);
    following.current = run;
    try {
      const swing = await run.done;
      if (swing === null) return setSaid('Called off.');
      if (isAbsent(swing)) return setSaid(swing.absent);
      const degrees = 180 / Math.PI;
      onSwing({ value: swing.value * degrees, plusMinus: 1.96 * swing.sigma * degrees });
      setSaid(`It swings ${say(swing)}; filled in above.`);
    } catch (error) {
      setSaid(error instanceof Error ? error.message : String(error));
    } finally {
      setProgress(null);
    }
  };
  const last = opened ? opened.times.length - 1 : 0;
  return (
    <div className="border border-rule p-3">
      <SelectField
        label="Film"
        value={id}
        onChange={(event) => {
          setOpened(null);
          setHook(null);
          setMark(null);
          setFrame(0);
          setId(event.target.value);
        }}
      >
        {clips.map((clip) => (
          <option key={clip.id} value={clip.id}>
            {clip.fileName}
          </option>
        ))}
      </SelectField>
      {opened && (
        <>
          <div
            className="relative mt-3 cursor-crosshair bg-shade"
            style={{ aspectRatio: `${opened.clip.width} / ${opened.clip.height}` }}
            onPointerDown={click}
            data-place
          >
            <FilmFrame
              clip={opened.clip}
              frame={frame}
              label={`Film of the bag, frame ${frame}`}
              isFilling
            />
            <svg
              viewBox={`0 0 ${opened.clip.width} ${opened.clip.height}`}
              className="pointer-events-none absolute inset-0 size-full"
              aria-hidden
            >
              {[hook, mark].map(
                (place, i) =>
                  place && (
                    <circle
                      key={i}
                      cx={place.x}
                      cy={place.y}
                      r={opened.clip.width / 90}
                      strokeWidth={opened.clip.width / 320}
                      className="fill-none stroke-now"
                    />
                  ),
              )}
            </svg>
          </div>
          <input
            type="range"
            aria-label="Frame"
            min={0}
            max={last}
            value={frame}
            onChange={(event) => setFrame(Number(event.target.value))}
            className="mt-2 w-full accent-now"
          />
          <div className="mt-1 flex flex-wrap items-center gap-4">
            <span>{ASKS[step]}</span>
            <Button disabled={step !== 'ready' || progress !== null} onClick={() => void follow()}>
              Follow the bag
            </Button>
            <Button
              weight="quiet"
              onClick={() => {
                setHook(null);
                setMark(null);
              }}
            >
              Start over
            </Button>
          </div>
          {progress !== null && (
            <ProgressBar
              label="Following the bag"
              progress={{ share: progress, left: null }}
              onCancel={() => following.current?.cancel()}
            />
          )}
        </>
      )}
      {said && <p role="status">{said}</p>}
    </div>
  );
}
