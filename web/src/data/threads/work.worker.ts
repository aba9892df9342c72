/** A thread that answers questions to the gym's database and does chores, one after the other. */
import { parentPort } from 'node:worker_threads';
import { Problem, problemOut, type problemSchema } from '@sinew/core/foundation/problem/problem';
import type { z } from 'zod';
import { openToRead } from '../database/openSecond';
import type { Db } from '../database/db';
import { cardOf } from '../finding/card';
import { strikeToCompare } from '../finding/comparing';
import { effectOf } from '../finding/foundFaults';
import { findingOf, setReport } from '../finding/judging';
import { toKeep } from '../finding/measured';
import { setsNow, setsToKeep } from '../finding/measuredSets';
import { copyDatabase, problemOf } from '../maintenance/copyDatabase';
import { eraseRows } from '../maintenance/eraseRows';
import { alteredFilms } from '../maintenance/alteredFilms';
import { ledgerOf } from '../progress/ledgerPage';
import { ledgerText } from '../progress/ledgerFile';
import { markingErrors } from '../progress/repeatMarkings';
import { writeTables } from '../transfer/exportTables';
import { stageGym, takeFilm, takeOverStaged } from '../transfer/importParts';

/** Asked with a connection that only reads. */
const QUESTIONS = {
  cardOf,
  effectOf,
  findingOf,
  ledgerOf,
  ledgerText,
  markingErrors,
  setReport,
  setsNow,
  setsToKeep,
  strikeToCompare,
  toKeep,
  writeTables,
};

const CHORES = {
  alteredFilms,
  copyDatabase,
  eraseRows,
  problemOf,
  stageGym,
  takeFilm,
  takeOverStaged,
};

export type Questions = typeof QUESTIONS;
export type Chores = typeof CHORES;

export type Task =
  | {
      readonly kind: 'question';
      readonly name: keyof Questions;
      readonly folder: string;
      readonly given: readonly unknown[];
    }
  | { readonly kind: 'chore'; readonly name: keyof Chores; readonly given: readonly unknown[] };

export type Answer =
  { readonly value: unknown } | { readonly problem: z.infer<typeof problemSchema> };

let open: { readonly folder: string; readonly db: Db } | null = null;

function databaseIn(folder: string): Db {
  if (open?.folder !== folder) {
    void open?.db.destroy();
    open = { folder, db: openToRead(folder) };
  }
  return open.db;
}

async function done(task: Task): Promise<Answer> {
  type Work = (...given: readonly unknown[]) => unknown;
  try {
    if (task.kind === 'chore') {
      return { value: await (CHORES[task.name] as Work)(...task.given) };
    }
    const ask = QUESTIONS[task.name] as Work;
    return { value: await ask(databaseIn(task.folder), ...task.given) };
  } catch (error) {
    if (error instanceof Problem) return { problem: problemOut(error) };
    throw error;
  }
}

parentPort!.on('message', (task: Task) => {
  // Anything but a problem ends this thread, with its trace.
  void done(task).then((answer) => parentPort!.postMessage(answer));
});
