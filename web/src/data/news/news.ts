/** What is new, told to every page that is open, wherever it is. */
import type { News } from '../../api/news';

type Listener = (news: News) => void;

interface Line {
  readonly hear: Listener;
  readonly hangUp: () => void;
}

const shared = globalThis as { sinewNews?: Set<Line> };
const lines = (shared.sinewNews ??= new Set());

export function announce(news: News): void {
  for (const { hear } of lines) hear(news);
}

/**
 * @param hangUp called when the server ends: it waits for every line that is open
 * @returns how to stop listening
 */
export function onNews(hear: Listener, hangUp: () => void = () => undefined): () => void {
  const line = { hear, hangUp };
  lines.add(line);
  return () => void lines.delete(line);
}

/** Nobody is told anything any more. */
export function hangUpAll(): void {
  for (const { hangUp } of [...lines]) hangUp();
}
