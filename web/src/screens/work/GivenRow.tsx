'use client';

import Link from 'next/link';
import { toast } from 'sonner';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { CHECK_DAYS } from '@sinew/core/train/work/prescription';
import { ENOUGH } from '@sinew/core/train/work/todaysDose';
import { shortDay } from '@/manner/manner';
import type { Cue } from '@/data/finding/findings';
import type { Given } from '@/data/work/work';
import { LOST } from '@/ui/askDialog';
import { Button, LinkButton } from '@/ui/button';
import { checkStep } from '@/ui/nextStep';
import { filmOf, Thumb } from '@/ui/thumb';
import { checkOn, endWork } from './actions';
import { STANCE_NAMES } from './stanceNames';

/** One thing to work on: how much of it is done, and when it is looked at again. */
export function GivenRow({
  work,
  cue,
  number,
  studentId,
  today,
  onCount,
}: {
  work: Given;
  /** What it is given for; undefined for other work, or when the cue is closed. */
  cue: Cue | undefined;
  number: number;
  studentId: string;
  today: string;
  onCount: () => void;
}) {
  const { doneToday, check } = work;
  const end = async (status: 'done' | 'stopped') => {
    try {
      await endWork(work.id, status);
      toast(`${work.name}: ${status === 'done' ? 'done' : 'stopped'}.`, {
        action: { label: 'Take it back', onClick: () => void endWork(work.id, 'active') },
      });
    } catch {
      toast(LOST);
    }
  };
  const look = checkStep(work, studentId, today);
  const done = [
    doneToday.strikes > 0 && `${doneToday.strikes} strikes`,
    doneToday.seconds > 0 && `${doneToday.seconds} s`,
  ].filter(Boolean);
  return (
    <li className="flex gap-8 border-t border-rule py-4 first:border-t-2 first:border-ink">
      <div className="min-w-0 flex-1">
        <div className="flex items-baseline justify-between gap-4">
          <p className="font-serif text-2xl leading-tight">{work.name}</p>
          <span className="whitespace-nowrap text-soft">
            {work.technique && techniqueById(work.technique).name}
          </span>
        </div>
        <p className="mt-1 text-base">
          {work.dose && `${work.dose}, `}
          {STANCE_NAMES[work.stances]}, {INTENT_NAMES[work.intent]}.
          {work.todaysDose === ENOUGH ? (
            <strong> Enough for this week.</strong>
          ) : (
            work.todaysDose &&
            !work.dose.startsWith(work.todaysDose) && (
              <>
                {' '}
                Today <strong>{work.todaysDose}</strong>: work grows week by week.
              </>
            )
          )}
        </p>
        {work.cautions.map((one) => (
          <p key={one} className="text-sm">
            {one}
          </p>
        ))}
        <p className="text-soft">
          {work.gate} {done.length > 0 ? `Today: ${done.join(', ')}.` : 'Nothing yet today.'} Worked
          on {work.sessions} {work.sessions === 1 ? 'day' : 'days'}
          {work.atHome.length > 0 && `, ticked at home: ${work.atHome.map(shortDay).join(', ')}`}.
        </p>
        {work.override && <p className="text-sm text-soft">Given although: {work.override}</p>}
        <p className={check.isDue ? 'font-semibold text-now' : 'text-soft'}>
          {look.text.endsWith('?') ? look.text : `${look.text}:`} {look.note}.
        </p>
        <div className="mt-2.5 flex flex-wrap items-center gap-3">
          <Button weight="main" hint={number < 10 ? String(number) : undefined} onClick={onCount}>
            Count
          </Button>
          {work.retest ? (
            <LinkButton href={`/compare?a=${work.retest.then}&b=${work.retest.now}`}>
              Did it change?
            </LinkButton>
          ) : (
            <LinkButton href={look.href}>Film again</LinkButton>
          )}
          {check.isDue && (
            <Button
              onClick={() =>
                void checkOn(work.id, plusDays(today, CHECK_DAYS)).catch(() => toast(LOST))
              }
            >
              In a week
            </Button>
          )}
          <Button weight="quiet" onClick={() => void end('done')}>
            Done with it
          </Button>
          <Button weight="quiet" onClick={() => void end('stopped')}>
            Stop it
          </Button>
        </div>
      </div>
      {cue && <Said cue={cue} />}
    </li>
  );
}

/** What is said to the student while it is worked on, and the strike it was said of. */
function Said({ cue: { clipId, strikeId, text, film } }: { cue: Cue }) {
  return (
    <Link
      href={`/bench/${clipId}?strike=${strikeId}`}
      className="w-72 shrink-0 self-start max-md:hidden"
    >
      {film && <Thumb film={filmOf(clipId)} time={film.contactAt} className="w-full" />}
      <span className="mt-2 block font-serif text-xl leading-snug">{text}</span>
    </Link>
  );
}
