'use client';

import { useEffect, useRef, useState } from 'react';
import { Button } from '@/ui/button';
import type { TakeState } from './useTake';

/** The live picture, with what must be legible from three metres away written over it. */
export function Stage({
  stream,
  isMirrored,
  state,
  seconds,
  problem,
  onTryAgain,
  onSimulated,
}: {
  stream: MediaStream | null;
  isMirrored: boolean;
  state: TakeState;
  seconds: number;
  problem: string | null;
  onTryAgain: () => void;
  onSimulated: () => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  return (
    <div className="relative min-h-0 flex-1">
      <video
        ref={video}
        autoPlay
        muted
        playsInline
        aria-label={isMirrored ? 'Camera, mirrored' : 'Camera'}
        className={`absolute inset-0 size-full object-contain ${isMirrored ? '-scale-x-100' : ''}`}
      />
      {problem ? (
        <div role="alert" className="absolute inset-0 flex flex-col justify-center p-4 md:p-10">
          <p className="max-w-lg font-serif text-2xl leading-snug">{problem}</p>
          <div className="mt-6 flex flex-wrap gap-4">
            <Button weight="main" onClick={onTryAgain}>
              Try again
            </Button>
            <Button onClick={onSimulated}>Use the simulated camera</Button>
          </div>
        </div>
      ) : (
        !stream && <p className="absolute inset-0 p-10 text-lg text-soft">Opening the camera…</p>
      )}
      {state.kind === 'counting' && (
        <p role="status" className={`${BIG} text-[9rem] md:text-[15rem]`}>
          {state.left}
        </p>
      )}
      {state.kind === 'recording' && <Clock since={state.since} seconds={seconds} />}
      {state.kind === 'mending' && (
        <p role="status" className={`${BIG} text-[4rem]`}>
          Closing the take…
        </p>
      )}
      {state.kind === 'failed' && (
        <p role="alert" className="absolute inset-x-0 bottom-0 bg-paper p-4 text-lg font-semibold">
          {state.message}
        </p>
      )}
    </div>
  );
}

const BIG =
  'pointer-events-none absolute inset-0 flex items-center justify-center font-semibold leading-none text-white [text-shadow:0_0_28px_#15130f,0_0_6px_#15130f]';

/** What is left of the take, and a frame around the picture that cannot be overlooked. */
function Clock({ since, seconds }: { since: number; seconds: number }) {
  const [now, setNow] = useState(since);
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 200);
    return () => clearInterval(timer);
  }, []);
  const left = Math.max(0, Math.ceil(seconds - (now - since) / 1000));
  return (
    <>
      <div className="pointer-events-none absolute inset-0 border-[10px] border-now" />
      <p
        role="timer"
        aria-label="Seconds left"
        className="pointer-events-none absolute right-6 bottom-4 text-[7rem] leading-none font-semibold text-white [text-shadow:0_0_28px_#15130f,0_0_6px_#15130f]"
      >
        {left}
      </p>
    </>
  );
}
