import { ownPagesOnly } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { calendarOf } from '@/data/work/plan';
import { today } from '@/data/database/today';

/** The plan from today on as a calendar file. */
export const GET = ownPagesOnly(async () => {
  const calendar = await calendarOf(await database(), today());
  return new Response(calendar, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'attachment; filename="sinew-plan.ics"',
    },
  });
});
