/** Runs work with the screen kept awake, where the browser can: a locked phone sends nothing. */
export async function stayAwake<T>(work: () => Promise<T>): Promise<T> {
  const held = await navigator.wakeLock?.request('screen').catch(() => null);
  try {
    return await work();
  } finally {
    await held?.release().catch(() => undefined);
  }
}
