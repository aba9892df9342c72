import { useEffect, useRef, useState } from 'react';
import PQueue from 'p-queue';
import { wordsOf } from '@/api/client';
import { checkFile } from '@/video/checkFile';
import type { Progress } from '@/video/progress';
import { sendFilm } from '@/video/sendFilm';
import { stayAwake } from './stayAwake';

export type SendStage =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'sending'; readonly progress: Progress }
  | { readonly kind: 'there'; readonly isKnown: boolean }
  | { readonly kind: 'failed'; readonly why: string };

export interface SentItem {
  readonly id: number;
  readonly file: File;
  readonly onThere?: () => Promise<void>;
  readonly about: Record<string, string> & { readonly student: string };
  readonly stage: SendStage;
}

/** Clips that go one after the other, and the screen that stays awake for them. */
export function useSending(studentId: string) {
  const [items, setItems] = useState<readonly SentItem[]>([]);
  const counter = useRef(0);
  const [queue] = useState(() => new PQueue({ concurrency: 1 }));
  const closing = useRef<AbortController | null>(null);
  useEffect(() => {
    const controller = new AbortController();
    closing.current = controller;
    return () => controller.abort();
  }, []);
  const set = (id: number, stage: SendStage) =>
    setItems((all) => all.map((one) => (one.id === id ? { ...one, stage } : one)));

  const send = ({ id, file, about, onThere }: SentItem) => {
    set(id, { kind: 'waiting' });
    void queue.add(() =>
      stayAwake(async () => {
        try {
          set(id, { kind: 'sending', progress: { share: 0, left: null } });
          const said = about.rate === undefined ? await rateIn(file) : null;
          const { isKnown } = await sendFilm(
            file,
            said === null ? about : { ...about, rate: String(said) },
            (progress) => set(id, { kind: 'sending', progress }),
            closing.current!.signal,
          );
          await onThere?.();
          set(id, { kind: 'there', isKnown });
        } catch (error) {
          set(id, { kind: 'failed', why: wordsOf(error) });
        }
      }),
    );
  };
  /** @param onThere runs once a clip is on the bench, before that is said */
  const add = (
    files: readonly File[],
    about: Readonly<Record<string, string>>,
    onThere?: () => Promise<void>,
  ) => {
    const added = files.map((file): SentItem => ({
      id: counter.current++,
      file,
      onThere,
      about: { ...about, student: studentId },
      stage: { kind: 'waiting' },
    }));
    setItems((all) => [...added, ...all]);
    added.forEach(send);
  };
  const again = (id: number) => {
    const item = items.find((one) => one.id === id);
    if (item) send(item);
  };
  return { items, add, again };
}

/** Frames a second at which the file says that it was shot; null when it says nothing. */
async function rateIn(file: File): Promise<number | null> {
  const film = await checkFile(file).catch(() => null);
  return film?.ok ? film.shotAt : null;
}
