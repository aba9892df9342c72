/**
 * How Kysely talks to the gym's SQLite file: reads on a connection of their own, writes one after the
 * other. A file that another program or thread holds is waited for without stopping anybody else, and
 * nothing is written into one that is not where it was.
 */
import { statSync } from 'node:fs';
import { setTimeout as rest } from 'node:timers/promises';
import Database from 'better-sqlite3';
import {
  SelectQueryNode,
  SqliteDialect,
  SqliteDriver,
  type CompiledQuery,
  type DatabaseConnection,
  type Driver,
  type QueryResult,
  type TransactionSettings,
} from 'kysely';
import PQueue from 'p-queue';
import { Problem } from '@sinew/core/foundation/problem/problem';

/** Milliseconds for which a held file is waited for; taking over a large gym takes about as long. */
const PATIENCE = 20_000;
/** Milliseconds between one try and the next. */
const PAUSE = 20;

export interface Connections {
  readonly reader: Database.Database;
  readonly writer: Database.Database;
  /** Throws a `Problem` while nothing may be written. */
  readonly mayWrite: () => void;
}

export class OneWriterDialect extends SqliteDialect {
  constructor(private readonly connections: Connections) {
    super({ database: connections.writer });
  }

  override createDriver(): Driver {
    return new OneWriterDriver(this.connections);
  }
}

/** Savepoints are Kysely's own; which connection a query goes to, and when, is not. */
class OneWriterDriver extends SqliteDriver {
  private readonly writes = new PQueue({ concurrency: 1 });
  private readonly mayWrite: () => void;

  constructor(private readonly connections: Connections) {
    super({ database: connections.writer });
    const mustBeInPlace = inPlace(connections.writer.name);
    this.mayWrite = () => {
      connections.mayWrite();
      mustBeInPlace();
    };
  }

  override async acquireConnection(): Promise<DatabaseConnection> {
    return new OneWriterConnection(this.connections, this.writes, this.mayWrite);
  }

  override beginTransaction(
    connection: DatabaseConnection,
    { accessMode }: TransactionSettings = {},
  ): Promise<void> {
    return (connection as OneWriterConnection).begin(accessMode !== 'read only');
  }

  override commitTransaction(connection: DatabaseConnection): Promise<void> {
    return (connection as OneWriterConnection).end('commit');
  }

  override rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    return (connection as OneWriterConnection).end('rollback');
  }

  override async releaseConnection(): Promise<void> {}

  override async destroy(): Promise<void> {
    this.connections.reader.close();
    this.connections.writer.close();
  }
}

class OneWriterConnection implements DatabaseConnection {
  /** Lets the next one write; null outside of a transaction. */
  private release: (() => void) | null = null;

  constructor(
    private readonly connections: Connections,
    private readonly writes: PQueue,
    private readonly mayWrite: () => void,
  ) {}

  async executeQuery<Row>(query: CompiledQuery): Promise<QueryResult<Row>> {
    const { reader, writer } = this.connections;
    if (this.release) return patiently(() => run(writer, query));
    if (isReading(writer, query)) return patiently(() => run(reader, query));
    return this.writes.add(() =>
      patiently(() => {
        this.mayWrite();
        return run<Row>(writer, query);
      }),
    );
  }

  async *streamQuery<Row>(query: CompiledQuery): AsyncIterableIterator<QueryResult<Row>> {
    const { reader, writer } = this.connections;
    const rows = (this.release ? writer : reader).prepare(query.sql).iterate(...query.parameters);
    for (const row of rows) yield { rows: [row as Row] };
  }

  /** A transaction that is to write takes its turn at once, so that it never has to be begun anew. */
  async begin(isToWrite: boolean): Promise<void> {
    await new Promise<void>((resolve) => {
      void this.writes.add(
        () =>
          new Promise<void>((release) => {
            this.release = release;
            resolve();
          }),
      );
    });
    try {
      await patiently(() => {
        if (isToWrite) this.mayWrite();
        this.connections.writer.exec(isToWrite ? 'begin immediate' : 'begin');
      });
    } catch (error) {
      this.letGo();
      throw error;
    }
  }

  async end(how: 'commit' | 'rollback'): Promise<void> {
    const { writer } = this.connections;
    try {
      // A failure may have rolled it back already.
      if (how === 'commit' || writer.inTransaction) await patiently(() => writer.exec(how));
    } finally {
      if (how === 'rollback' || !writer.inTransaction) this.letGo();
    }
  }

  private letGo(): void {
    this.release?.();
    this.release = null;
  }
}

function isReading(database: Database.Database, { query, sql }: CompiledQuery): boolean {
  return SelectQueryNode.is(query) || database.prepare(sql).readonly;
}

function run<Row>(
  database: Database.Database,
  { sql, parameters }: CompiledQuery,
): QueryResult<Row> {
  const statement = database.prepare(sql);
  if (statement.reader) return { rows: statement.all(...parameters) as Row[] };
  const { changes, lastInsertRowid } = statement.run(...parameters);
  return { rows: [], numAffectedRows: BigInt(changes), insertId: BigInt(lastInsertRowid) };
}

const isHeld = (error: unknown) =>
  error instanceof Database.SqliteError && /^SQLITE_(BUSY|LOCKED)/.test(error.code);

/**
 * Try until the file is let go. Nothing of a statement that was not let in has been done.
 *
 * @throws Problem `busy` after a while
 */
export async function patiently<T>(work: () => T, patience = PATIENCE): Promise<T> {
  const until = performance.now() + patience;
  for (;;) {
    try {
      return work();
    } catch (error) {
      if (!isHeld(error)) throw error;
      if (performance.now() >= until) throw held(error);
      await rest(PAUSE);
    }
  }
}

const held = (cause: unknown) =>
  new Problem(
    'busy',
    {
      happened: 'Another program holds the gym’s data.',
      safe: 'Nothing was changed.',
      todo: 'Close it, or wait until it has finished, and try again.',
    },
    { cause },
  );

/** @returns what throws a `Problem` when the file at a path is not the one that was there before */
function inPlace(path: string): () => void {
  const { ino, dev } = statSync(path);
  return () => {
    const now = statSync(path, { throwIfNoEntry: false });
    if (now?.ino === ino && now.dev === dev) return;
    throw new Problem('no-database', {
      happened: 'The gym’s data is not where it was.',
      safe: 'Nothing was written.',
      todo: 'Put its folder back, or start Sinew anew where it is now.',
    });
  };
}
