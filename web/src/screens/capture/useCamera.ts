import { useCallback, useEffect, useState } from 'react';
import type { Rate } from '@sinew/core/observe/footage/rate';
import {
  CameraProblem,
  devices,
  openCamera,
  SIMULATED,
  type Device,
  type LiveCamera,
  type Wish,
} from '@/video/cameras';
import { watchRate } from '@/video/trueRate';

export interface CameraState {
  readonly wish: Wish;
  readonly setWish: (change: Partial<Wish>) => void;
  readonly live: LiveCamera | null;
  /** Why there is no picture; null while all is well or on its way. */
  readonly problem: string | null;
  readonly cameras: readonly Device[];
  readonly microphones: readonly Device[];
  /** As counted; null until enough frames have come, or when this browser cannot count them. */
  readonly rate: Rate | null;
  readonly tryAgain: () => void;
}

const KEPT_IN = 'sinew.camera';

const USUAL: Wish = { camera: '', microphone: '', height: 720, rate: 60 };

/** What was last chosen on this machine. */
function kept(): Wish {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEPT_IN) ?? '{}') as Partial<Wish>) };
  } catch {
    return USUAL;
  }
}

/** The camera that is open, and the wish it was opened for. */
export function useCamera(): CameraState {
  const [wish, setWish] = useState<Wish | null>(null);
  const [live, setLive] = useState<LiveCamera | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [found, setFound] = useState<{ cameras: Device[]; microphones: Device[] }>({
    cameras: [],
    microphones: [],
  });
  const [rate, setRate] = useState<Rate | null>(null);
  const [attempt, setAttempt] = useState(0);

  // What is kept is known to the browser only, not to the server that draws the page first.
  // eslint-disable-next-line react-hooks/set-state-in-effect
  useEffect(() => setWish(kept()), []);

  useEffect(() => {
    if (!wish) return;
    let isCurrent = true;
    let opened: LiveCamera | null = null;
    let stopCounting: (() => void) | null = null;
    const lost = () => isCurrent && setProblem('The camera is gone. Plug it in and try again.');
    openCamera(wish).then(
      async (camera) => {
        if (!isCurrent) return camera.close();
        opened = camera;
        setLive(camera);
        const [track] = camera.stream.getVideoTracks();
        if (track) {
          track.addEventListener('ended', lost);
          stopCounting = watchRate(track, (counted) => isCurrent && setRate(counted));
        }
        const all = await devices();
        if (isCurrent) setFound(all);
      },
      (error: unknown) => {
        if (!isCurrent) return;
        setProblem(error instanceof CameraProblem ? error.message : String(error));
      },
    );
    return () => {
      isCurrent = false;
      stopCounting?.();
      opened?.close();
      setLive(null);
      setRate(null);
      setProblem(null);
    };
  }, [wish, attempt]);

  const change = useCallback(
    (part: Partial<Wish>) =>
      setWish((old) => {
        const next = { ...(old ?? USUAL), ...part };
        // The simulated camera is for a try, not for the next time.
        if (next.camera !== SIMULATED) localStorage.setItem(KEPT_IN, JSON.stringify(next));
        return next;
      }),
    [],
  );
  return {
    wish: wish ?? USUAL,
    setWish: change,
    live,
    problem,
    ...found,
    rate,
    tryAgain: useCallback(() => setAttempt((now) => now + 1), []),
  };
}
