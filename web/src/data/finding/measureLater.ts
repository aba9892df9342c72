/**
 * The stage that keeps what strikes measure, in the background: after whatever changes what they are
 * measured or judged by. One student after the other, a little at a time, while the coach rests.
 */
import PQueue from 'p-queue';
import { database } from '../database/database';
import { logTrouble } from '../log/log';
import { ask } from '../threads/ask';
import { keepMeasured } from './measured';
import { keepSets } from './measuredSets';

/** Saving goes on while the coach works; measuring waits until it rests, ms. */
const REST = 6000;
/** At one go, ms: then it is kept, and a page that waits has its turn. */
const LENGTH = 1500;

interface Stage {
  readonly waiting: Map<string, NodeJS.Timeout>;
  readonly queue: PQueue;
}

const shared = globalThis as { sinewMeasuring?: Stage };
const stage = (shared.sinewMeasuring ??= {
  waiting: new Map<string, NodeJS.Timeout>(),
  queue: new PQueue({ concurrency: 1 }),
});

export function measureLater(studentId: string): void {
  clearTimeout(stage.waiting.get(studentId));
  const timer = setTimeout(() => {
    stage.waiting.delete(studentId);
    void stage.queue.add(() => measure(studentId));
  }, REST);
  timer.unref();
  stage.waiting.set(studentId, timer);
}

/** The same of the student of a clip. */
export async function measureClipLater(clipId: string): Promise<void> {
  const db = await database();
  const clip = await db
    .selectFrom('clip')
    .select('student_id')
    .where('id', '=', clipId)
    .executeTakeFirst();
  if (clip) measureLater(clip.student_id);
}

/** The same of everybody: a limit or a school of the gym has changed. */
export async function measureAllLater(): Promise<void> {
  const db = await database();
  const students = await db
    .selectFrom('student')
    .select('id')
    .where('deleted_at', 'is', null)
    .execute();
  for (const { id } of students) measureLater(id);
}

async function measure(studentId: string): Promise<void> {
  try {
    const found = await ask('toKeep', studentId, LENGTH);
    await keepMeasured(await database(), found);
    if (found.left === 0) await keepSets(await database(), await ask('setsToKeep', studentId));
    if (found.left > 0) void stage.queue.add(() => measure(studentId));
  } catch (error) {
    console.error('A strike could not be measured.', error);
    logTrouble('measure', error);
  }
}
