import { refused } from '@sinew/core/foundation/problem/problem';
import { CONSENT_HERE } from '@/api/endpoints';
import { bodyOf, done, ownPagesOnly, there } from '@/app/api/answers';
import { noteDeed } from '@/data/access/deeds';
import { database } from '@/data/database/database';
import { today } from '@/data/database/today';
import { recordConsent, studentById } from '@/data/student/students';

/** A consent to be filmed, given at the mat to whoever holds the phone. */
export const POST = ownPagesOnly(async (request, _, asker) => {
  const { key, studentId, givenBy, name } = await bodyOf(request, CONSENT_HERE.sends, {
    happened: 'Who gives it? Write the name.',
    safe: 'Nothing was kept.',
  });
  const db = await database();
  const student = there(await studentById(db, studentId), {
    happened: 'This student is not in the gym’s list any more.',
  });
  if (student.isMinor && givenBy !== 'guardian') {
    throw refused(`${student.name} is under 18: a guardian gives the consent.`);
  }
  if (!student.consent) {
    await recordConsent(db, studentId, { givenBy, name, givenOn: today() }, key);
    await noteDeed(db, asker.name, 'recorded-consent', { studentId });
  }
  return done();
}, 'assistant');
