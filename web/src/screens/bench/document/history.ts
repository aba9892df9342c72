/** Undo and redo over immutable values. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What the last change was part of; changes of one drag share it and undo together. */
  readonly gesture: string | null;
}

const DEPTH = 500;

export function begin<T>(present: T): History<T> {
  return { past: [], present, future: [], gesture: null };
}

/** @param gesture a name shared by changes that are one to the coach; null for a change of its own */
export function change<T>(history: History<T>, next: T, gesture: string | null = null): History<T> {
  if (next === history.present) return history;
  const isContinued = gesture !== null && gesture === history.gesture;
  const past = isContinued ? history.past : [...history.past.slice(-DEPTH + 1), history.present];
  return { past, present: next, future: [], gesture };
}

export function undo<T>(history: History<T>): History<T> {
  const previous = history.past[history.past.length - 1];
  if (previous === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: previous,
    future: [history.present, ...history.future],
    gesture: null,
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...future] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future, gesture: null };
}
