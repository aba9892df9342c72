/** The main thread's side of the browser's own store of takes; see its worker. */
import { wrap, type Remote } from 'comlink';
import type { TakeAbout } from './takeAbout';
import type { TakeStoreWorker } from './takeStore.worker';

export type TakeStore = Remote<TakeStoreWorker>;

let store: TakeStore | null = null;

/** The one store of this tab. */
export function takeStore(): TakeStore {
  store ??= wrap<TakeStoreWorker>(
    new Worker(new URL('./takeStore.worker.ts', import.meta.url), { type: 'module' }),
  );
  return store;
}

/** A finalised take under a name that a person can read. */
export function namedTake(file: File, { startedAt, studentName }: TakeAbout): File {
  const when = new Date(startedAt);
  const two = (value: number) => String(value).padStart(2, '0');
  const day = `${when.getFullYear()}-${two(when.getMonth() + 1)}-${two(when.getDate())}`;
  const time = [when.getHours(), when.getMinutes(), when.getSeconds()].map(two).join('.');
  return new File([file], `${studentName} ${day} ${time}.mp4`, { type: 'video/mp4' });
}
