/** Seconds as a clock shows them, "1:05"; what has begun counts when it is over. */
export const inMinutes = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
