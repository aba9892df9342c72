import { readFileSync } from 'node:fs';

/**
 * Lines of code drawn without replacement, the same for the same files and seed. A line is drawn rather
 * than a mutant: what spans several lines, as the body of a function, is too easy to kill.
 *
 * @param {readonly string[]} files
 * @param {number} count
 * @param {number} seed
 */
export function sampledLines(files, count, seed) {
  const all = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .map((text, i) => ({ file, line: i + 1, text: text.trim() }))
      .filter(
        ({ text }) => text !== '' && !/^(import|export type|\/\*|\*|\/\/|readonly )/.test(text),
      ),
  );
  const random = mulberry(seed);
  for (let i = all.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [all[i], all[k]] = [all[k], all[i]];
  }
  const byPlace = (a, b) => a.file.localeCompare(b.file) || a.line - b.line;
  return all.slice(0, count).sort(byPlace);
}

/** Mulberry32, Tommy Ettinger 2017, public domain: uniform in [0, 1). */
function mulberry(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
