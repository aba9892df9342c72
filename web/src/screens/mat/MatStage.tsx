import { useEffect, useRef, useState } from 'react';
import type { RecentFilm } from '@/video/recentFilm';
import { nameOf, Replay, SLOWER } from './Replay';
import type { HitOfSet } from './useSet';

/** The live picture; once something was hit, that again with the live picture small in its corner. */
export function MatStage({
  stream,
  problem,
  film,
  hit,
  onAgain,
  onTryAgain,
  onSimulated,
}: {
  stream: MediaStream | null;
  problem: string | null;
  film: RecentFilm | null;
  hit: HitOfSet | null;
  /** The last moment is to be seen again, though nothing was heard. */
  onAgain: () => void;
  onTryAgain: () => void;
  onSimulated: () => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  // The live picture stays large until there is another one to be seen.
  const [begun, setBegun] = useState<RecentFilm | null>(null);
  const isReplaying = film !== null && hit !== null && begun === film;
  return (
    <section
      aria-label="Picture"
      className={`relative min-h-0 flex-1 overflow-hidden bg-shade ${film ? 'outline-8 -outline-offset-8 outline-now' : ''}`}
    >
      {film && hit && <Replay film={film} hit={hit} onBegin={() => setBegun(film)} />}
      <video
        ref={video}
        autoPlay
        muted
        playsInline
        aria-label="Camera"
        className={
          isReplaying
            ? 'absolute right-3 bottom-3 w-[30%] border-2 border-paper bg-shade'
            : 'absolute inset-0 size-full object-contain'
        }
      />
      {isReplaying && (
        <p className="absolute top-3 left-3 bg-paper px-2 py-1 text-sm font-semibold">
          {nameOf(hit)}, {SLOWER} × slower
        </p>
      )}
      {film && (
        <button
          type="button"
          className="absolute top-3 right-3 min-h-12 bg-paper px-4 font-semibold"
          onClick={onAgain}
        >
          Just now, again
        </button>
      )}
      {problem && (
        <div
          role="alert"
          className="absolute inset-0 flex flex-col justify-center gap-4 bg-paper p-4"
        >
          <p className="font-serif text-xl leading-snug">{problem}</p>
          <button
            type="button"
            className="min-h-12 border border-ink bg-ink font-semibold text-paper"
            onClick={onTryAgain}
          >
            Try again
          </button>
          <button
            type="button"
            className="min-h-12 border border-ink font-semibold"
            onClick={onSimulated}
          >
            Use the simulated camera
          </button>
        </div>
      )}
      {!problem && !stream && <p className="absolute inset-0 p-6 text-soft">Opening the camera…</p>}
    </section>
  );
}
