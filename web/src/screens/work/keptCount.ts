/** A count in hand, kept by the browser, so that a reload loses nothing. */

export interface Count {
  /** Of the log it will become, so that it is logged once however often it is sent. */
  readonly id: string;
  readonly strikes: number;
  /** When the first was counted, ms. */
  readonly since: number;
}

const key = (workId: string) => `sinew-count-${workId}`;
const listeners = new Set<() => void>();

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const tell = () => listeners.forEach((listener) => listener());

/** As JSON; null when nothing is being counted. */
export function keptCount(workId: string): string | null {
  return localStorage.getItem(key(workId));
}

export function keepCount(workId: string, count: Count): void {
  localStorage.setItem(key(workId), JSON.stringify(count));
  tell();
}

export function clearCount(workId: string): void {
  localStorage.removeItem(key(workId));
  tell();
}
