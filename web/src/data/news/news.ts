/** What is new, told to every page that is open, wherever it is. */
import type { News } from '../../api/news';

type Listener = (news: News) => void;

const shared = globalThis as { sinewNews?: Set<Listener> };
const listeners = (shared.sinewNews ??= new Set());

export function announce(news: News): void {
  for (const listener of listeners) listener(news);
}

/** @returns how to stop listening */
export function onNews(listener: Listener): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}
