/** Runs once when the server starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs')
    await (await import('./data/maintenance/start')).start();
}
