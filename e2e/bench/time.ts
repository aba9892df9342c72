/**
 * Prints how long something takes: the median of some runs, and what 95 of 100 stay under.
 *
 * @returns the median, ms
 */
export function time(name: string, runs: number, act: () => void): number {
  for (let i = 0; i < Math.min(10, runs); i++) act();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    act();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor(share * (runs - 1))]!;
  console.log(`${name}: median ${at(0.5).toFixed(1)} ms, 95 % under ${at(0.95).toFixed(1)} ms`);
  return at(0.5);
}
