import {
  BackupError,
  backupFolder,
  backups,
  putDatabaseAside,
  restore,
} from '@/data/maintenance/backups';
import { closeDatabase, recheckDatabase } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { maintainNow } from '@/data/maintenance/here';
import { refuseForeign } from '@/app/api/answers';
import { recoveryPage } from '@/screens/recovery/recoveryPage';
import { RECOVERY_POLICY } from '@/securityHeaders';

export const dynamic = 'force-dynamic';

async function page(message: string | null, status?: number): Promise<Response> {
  const folder = dataFolder();
  const [problem, kept] = await Promise.all([recheckDatabase(), backups(backupFolder(folder))]);
  return new Response(recoveryPage({ problem, backups: kept, folder, message }), {
    status: status ?? (problem ? 503 : 200),
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': RECOVERY_POLICY,
      'cache-control': 'no-store',
    },
  });
}

/** What is wrong with the database, what is safe, and the ways on. */
export const GET = (): Promise<Response> => page(null);

/** Go back to a backup, or begin anew; the database that is here is put aside, never removed. */
export async function POST(request: Request): Promise<Response> {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const form = await request.formData();
  const wanted = form.get('backup');
  const found = await recheckDatabase();
  if (found?.kind === 'in use') return page('It is in use: nothing was changed.', 409);
  if (!found) {
    return page('The database can be opened: go back to a backup on the Gym’s page.', 409);
  }
  const folder = dataFolder();
  try {
    if (typeof wanted === 'string') {
      await restore(folder, backupFolder(folder), wanted, closeDatabase, false);
    } else {
      await closeDatabase();
      await putDatabaseAside(folder);
    }
  } catch (error) {
    if (error instanceof BackupError) return page(error.message, 422);
    throw error;
  }
  const problem = await recheckDatabase();
  if (problem) return page('This backup cannot be opened either. Try an older one.', 422);
  await maintainNow();
  return new Response(null, { status: 303, headers: { location: '/' } });
}
