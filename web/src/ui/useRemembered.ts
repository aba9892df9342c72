import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A text that this browser remembers; empty on the server and until it has been set. */
export function useRemembered(key: string): readonly [string, (value: string) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => localStorage.getItem(key) ?? '',
    () => '',
  );
  const remember = (text: string) => {
    localStorage.setItem(key, text);
    for (const listener of listeners) listener();
  };
  return [value, remember];
}
