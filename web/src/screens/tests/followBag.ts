import { proxy, wrap } from 'comlink';
import type { Measured } from '@sinew/core/foundation/reading/reading';
import type { Place } from '@sinew/core/train/bag/patch';
import { swingOf } from '@sinew/core/train/bag/bag';
import type { BagSwingWorker } from '@/video/bagSwing.worker';

export interface Following {
  /** Null when it was called off. */
  readonly done: Promise<Measured | null>;
  cancel(): void;
}

/** Follow a place on a bag and measure its swing about the hook. */
export function followBag(
  clipId: string,
  times: readonly number[],
  hook: Place,
  mark: Place & { readonly frame: number },
  onProgress: (share: number) => void,
): Following {
  const worker = new Worker(new URL('../../video/bagSwing.worker.ts', import.meta.url), {
    type: 'module',
  });
  const remote = wrap<BagSwingWorker>(worker);
  let callOff = () => {};
  const calledOff = new Promise<null>((resolve) => {
    callOff = () => resolve(null);
  });
  const url = new URL(`/api/clips/${clipId}/file`, location.href).href;
  const followed = remote
    .follow(url, times, mark, proxy(onProgress))
    .then((points) => swingOf(hook, points));
  const done = Promise.race([followed, calledOff]).finally(() => worker.terminate());
  return { done, cancel: () => callOff() };
}
