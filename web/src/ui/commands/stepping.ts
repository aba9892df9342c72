import type { Command } from './command';

/** One frame or ten, back or on. */
export function stepping(go: (by: number) => void): Command[] {
  const step = (by: number, keys: string, words: string): Command => ({
    id: `step ${by}`,
    keys: [keys],
    words,
    group: 'Through the film',
    run: () => go(by),
  });
  return [
    step(-1, 'ArrowLeft', 'one frame back'),
    step(1, 'ArrowRight', 'one frame on'),
    step(-10, 'Shift+ArrowLeft', 'ten frames back'),
    step(10, 'Shift+ArrowRight', 'ten frames on'),
  ];
}
