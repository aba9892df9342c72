import { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { bodyOf, done, refuseForeign, there } from '@/app/api/answers';
import { today } from '@/data/database/today';
import { ask } from '@/data/threads/ask';
import { tickedAtHome } from '@/data/work/drillLog';
import { boxName } from '@/screens/card/lessonPage';
import { withDaysSince } from '../daysSince';
import { ofLesson } from '../shown';

export const dynamic = 'force-dynamic';

const tick = z.object({ box: z.string().max(120), isDone: z.boolean() });

/** A day of work that the student ticks; only boxes that stand on their page, and none of a day to come. */
export const POST = ofLesson(async (request, { db, student }) => {
  const foreign = refuseForeign(request);
  if (foreign) return foreign;
  try {
    const { box, isDone } = await bodyOf(request, tick, {
      happened: 'This box is none of the page.',
      safe: 'Nothing was kept.',
    });
    const card = there(await ask('cardOf', student.id), { happened: 'The card is gone.' });
    const day = today();
    for (const { work, days } of withDaysSince(card, day).cues) {
      for (const own of work) {
        const ticked = days.find((one) => one <= day && boxName(own.id, one) === box);
        if (ticked === undefined) continue;
        await tickedAtHome(db, student.id, own, ticked, isDone);
        return done();
      }
    }
    return Response.json({}, { status: 404 });
  } catch (error) {
    // Not by way of the log of what is refused: what stands in this address lets in.
    return Response.json({}, { status: error instanceof Problem ? 400 : 500 });
  }
});
