/** Takes rows out of databases so that nothing of them stays in their bytes. Runs on a thread. */
import Database from 'better-sqlite3';

export interface Erasure {
  readonly table: string;
  /** Whose rows: the row's own id, or that of the clip it belongs to. */
  readonly column: 'id' | 'clip_id';
  readonly ids: readonly string[];
}

export interface EraseRequest {
  readonly databases: readonly string[];
  readonly erasures: readonly Erasure[];
}

/** Milliseconds that another program may hold a database. */
const PATIENCE = 20_000;

function eraseIn(path: string, erasures: readonly Erasure[]): void {
  const database = new Database(path, { fileMustExist: true });
  try {
    database.pragma(`busy_timeout = ${PATIENCE}`);
    // What is deleted is overwritten, and what belongs to it goes with it.
    database.pragma('secure_delete = on');
    database.pragma('foreign_keys = on');
    const has = database.prepare('select 1 from pragma_table_info(?) where name = ?');
    database.transaction(() => {
      for (const { table, column, ids } of erasures) {
        if (!has.get(table, column)) continue;
        const erase = database.prepare(`delete from "${table}" where "${column}" = ?`);
        for (const id of ids) erase.run(id);
      }
    })();
    // Pages that were let go before they were overwritten, and the log of what was written last.
    database.exec('vacuum');
    database.pragma('wal_checkpoint(truncate)');
  } finally {
    database.close();
  }
}

/** @returns databases that could not be worked on: damaged ones that were put aside, for example */
export function eraseRows({ databases, erasures }: EraseRequest): string[] {
  return databases.filter((path) => {
    try {
      eraseIn(path, erasures);
      return false;
    } catch {
      return true;
    }
  });
}
