/** Runs once when the server starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const [
    { databaseProblem },
    { maintainNow },
    { keepPrivate },
    { dataFolder },
    { logTrouble },
    { measureAllLater },
  ] = await Promise.all([
    import('./data/database/database'),
    import('./data/maintenance/here'),
    import('./data/database/keepPrivate'),
    import('./data/database/dataFolder'),
    import('./data/log/log'),
    import('./data/finding/measureLater'),
  ]);
  await keepPrivate(dataFolder());
  const problem = await databaseProblem();
  if (problem?.kind === 'in use') {
    console.error(`\nThis gym is open already, in ${problem.reason}. Nothing was changed.\n`);
    process.exit(1);
  }
  const keep = () =>
    maintainNow().catch((error: unknown) => {
      console.error('Maintenance failed; it is tried again in an hour.', error);
      logTrouble('maintenance', error);
    });
  void keep();
  // What was measured by an earlier Sinew, or while nobody had it open.
  if (!problem) void measureAllLater();
  setInterval(() => void keep(), 3_600_000).unref();
}
