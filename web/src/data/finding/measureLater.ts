/** Measures a student's strikes a while after the bench has been saved, so that the Floor has them. */
import { database } from '../database/database';
import { measureStudent } from './measured';

/** Saving goes on while the coach works; measuring waits until it rests, ms. */
const REST = 6000;
/** At one go, ms: the server has other things to do. */
const LENGTH = 400;

const shared = globalThis as { sinewMeasuring?: Map<string, NodeJS.Timeout> };
const waiting = (shared.sinewMeasuring ??= new Map<string, NodeJS.Timeout>());

export function measureLater(studentId: string): void {
  clearTimeout(waiting.get(studentId));
  const timer = setTimeout(() => {
    waiting.delete(studentId);
    database()
      .then((db) => measureStudent(db, studentId, LENGTH))
      .then((left) => left > 0 && measureLater(studentId))
      .catch((error: unknown) => console.error('A strike could not be measured.', error));
  }, REST);
  timer.unref();
  waiting.set(studentId, timer);
}
