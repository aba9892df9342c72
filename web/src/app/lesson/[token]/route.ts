import { randomBytes } from 'node:crypto';
import { stat } from 'node:fs/promises';
import { accessDb } from '@/data/access/accessDb';
import { isFilmThere, mediaPath, saidIn, wasOpened } from '@/data/access/lessons';
import { dataFolder } from '@/data/database/dataFolder';
import { today } from '@/data/database/today';
import { theGym } from '@/data/gym/gym';
import { ask } from '@/data/threads/ask';
import { daysAtHome } from '@/data/work/drillLog';
import { calendarOfWork } from '@/data/work/plan';
import { boxName, lessonPage } from '@/screens/card/lessonPage';
import { lessonPolicy } from '@/securityHeaders';
import { withDaysSince } from './daysSince';
import { ofLesson } from './shown';

export const dynamic = 'force-dynamic';

/** A student's lesson as it stands today, for their own phone. */
export const GET = ofLesson(async (_, { db, link, student }, token) => {
  const day = today();
  const data = dataFolder();
  const [gym, found, atHome, isThere, said] = await Promise.all([
    theGym(db),
    ask('cardOf', student.id),
    daysAtHome(db, student.id),
    isFilmThere(db, link),
    saidIn(data, link),
  ]);
  const card = withDaysSince(found ?? { cues: [], other: [], heed: [] }, day);
  const has = async (what: 'picture' | 'film') =>
    isThere && (await stat(mediaPath(data, link, what)).then(Boolean, () => false));
  const [hasPicture, hasFilm] = [await has('picture'), await has('film')];
  const dated = [...card.cues.flatMap(({ work }) => work), ...card.other].filter(
    ({ nextCheck }) => nextCheck >= day,
  );
  await wasOpened(await accessDb(), link.id);
  const nonce = randomBytes(16).toString('base64');
  const page = lessonPage({
    gym: gym.name,
    student: student.name,
    madeOn: day,
    card,
    picture: hasPicture ? `/lesson/${token}/picture` : null,
    review: hasFilm ? { film: { address: `/lesson/${token}/film` }, pieces: said } : null,
    calendar: dated.length > 0 ? calendarOfWork(gym.name, dated) : null,
    from: {
      ticksTo: `/lesson/${token}/ticks`,
      ticked: new Set([...atHome].flatMap(([id, days]) => days.map((one) => boxName(id, one)))),
      today: day,
      endsOn: link.endsOn,
      nonce,
    },
  });
  return new Response(page, {
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': lessonPolicy(nonce),
      'cache-control': 'no-store',
      // What stands in the address lets in: it is told to nobody.
      'referrer-policy': 'no-referrer',
      'x-robots-tag': 'noindex',
    },
  });
});
