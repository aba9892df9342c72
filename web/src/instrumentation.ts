/** Runs once when the server starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const [{ keepHouse }, { clipFiles }, { database, dataFolder }] = await Promise.all([
    import('./data/housekeeping'),
    import('./data/clipFilesHere'),
    import('./data/database'),
  ]);
  const keep = async () => {
    try {
      await keepHouse(
        { db: await database(), files: clipFiles(), folder: dataFolder() },
        new Date(),
      );
    } catch (error) {
      console.error('Housekeeping failed; it is tried again in an hour.', error);
    }
  };
  void keep();
  setInterval(() => void keep(), 3_600_000).unref();
}
