/** How far a longer piece of work has come. */
export interface Progress {
  /** 0 to 1. */
  readonly share: number;
  /** Seconds, or null while there is nothing to tell from. */
  readonly left: number | null;
}

/** Turns shares of work done into progress with the time left, judged by the pace so far. */
export function paced(onProgress: (progress: Progress) => void): (share: number) => void {
  const started = performance.now();
  return (share) => {
    const spent = (performance.now() - started) / 1000;
    onProgress({ share, left: share > 0.02 ? (spent / share) * (1 - share) : null });
  };
}
