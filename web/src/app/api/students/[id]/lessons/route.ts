import { refused } from '@sinew/core/foundation/problem/problem';
import { MAKE_LESSON_LINK } from '@/api/endpoints';
import { bodyOf, done, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { accessDb } from '@/data/access/accessDb';
import { noteDeed } from '@/data/access/deeds';
import { endLessons, endOfLink, newLesson } from '@/data/access/lessons';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { doorNow } from '@/data/door/door';
import { sharingOf } from '@/data/student/sharing';
import { studentById } from '@/data/student/students';
import { ask } from '@/data/threads/ask';

interface Context {
  params: Promise<{ id: string }>;
}

const STUDENT_GONE = { happened: 'This student is not in the list any more.' };
const bytes = (text: string | null) => (text === null ? null : Buffer.from(text, 'base64'));

/** A link for the student's own phone, with what was made for it. */
export const POST = ownPagesOnly(async (request, { params }: Context, asker) => {
  const { id } = await params;
  const { clipId, picture, film, said } = await bodyOf(request, MAKE_LESSON_LINK.sends, {
    happened: 'This lesson cannot be read.',
    safe: 'No link was made.',
    todo: 'Make the review anew.',
  });
  const db = await database();
  const student = there(await studentById(db, id), STUDENT_GONE);
  if (!(await sharingOf(db, student))) {
    throw refused('Nobody has consented that films leave this machine, or not any more.');
  }
  const door = await doorNow();
  if (!door) {
    throw refused(
      'The gym is not open to its network: a phone would not find the page.',
      'Open it under Gym, or send the page as a file.',
    );
  }
  const card = there(await ask('cardOf', id), STUDENT_GONE);
  const checks = card.cues.flatMap(({ work }) => work.map(({ nextCheck }) => nextCheck)).sort();
  const endsOn = endOfLink(checks.at(-1) ?? null);
  const token = await newLesson(
    await accessDb(),
    dataFolder(),
    { studentId: id, clipId, madeBy: asker.name, endsOn },
    { picture: bytes(picture), film: bytes(film), said },
  );
  await noteDeed(db, asker.name, 'made-link', { studentId: id });
  return fresh({ url: `${door.addresses[0]}/lesson/${token}`, endsOn });
});

/** None of the student's links works any more. */
export const DELETE = ownPagesOnly(async (_, { params }: Context, asker) => {
  const { id } = await params;
  await endLessons(await accessDb(), dataFolder(), id);
  await noteDeed(await database(), asker.name, 'ended-links', { studentId: id });
  return done();
});
