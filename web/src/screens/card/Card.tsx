import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import type { Talk } from '@/data/clip/talks';
import type { CardCue, CardOf, ThenAndNow } from '@/data/finding/card';
import type { Gym } from '@/data/gym/gym';
import type { LessonLink } from '@/data/access/lessons';
import type { Sharing } from '@/data/student/sharing';
import type { Student } from '@/data/student/students';
import type { Given } from '@/data/work/work';
import { ENOUGH } from '@sinew/core/train/work/todaysDose';
import { inManner, shortDay, wholeDay } from '@/manner/manner';
import { STANCE_NAMES } from '@/screens/work/stanceNames';
import { StudentBar } from '@/ui/studentBar';
import { CHANGE_WORDS } from './changeWords';
import { SendHome } from './SendHome';
import { EvidencePicture } from './EvidencePicture';
import { Spoken } from './Spoken';
import { PrintButton } from '@/ui/printButton';

/** What the student takes home, on one page: picture, number, cue, work, next check, caution. */
export function Card({
  gym,
  student,
  card,
  talks,
  sharing,
  calendar,
  today,
  isOpen,
  links,
}: {
  gym: Gym;
  student: Student;
  card: CardOf;
  /** What was said over the student’s strikes, the newest first. */
  talks: readonly Talk[];
  /** Consent that it leaves this machine; null without. */
  sharing: Sharing | null;
  /** The next dates as iCalendar; null for none. */
  calendar: string | null;
  today: string;
  /** The gym is open to its network. */
  isOpen: boolean;
  /** Links to this lesson that work. */
  links: readonly LessonLink[];
}) {
  const [first, ...others] = card.cues;
  const talk = talks.find(({ technique }) => technique === first?.cue.technique) ?? null;
  return (
    <>
      <StudentBar student={student} here="Card" right={<PrintButton />} />
      <main className="mx-auto max-w-2xl px-6 py-8 print:max-w-none print:p-0">
        <div className="flex items-baseline justify-between border-b-2 border-ink pb-2">
          <h1 className="text-xl font-semibold">{student.name}</h1>
          <span className="text-soft">
            {gym.name}, {wholeDay(today)}
          </span>
        </div>
        {!first && (
          <p className="mt-8 text-base">
            No cue yet. Accept a leak on the bench, and its cue stands here.
          </p>
        )}
        {first && <CueOnCard of={first} isFirst />}
        {talk && <Spoken talk={talk} />}
        {others.map((one) => (
          <CueOnCard key={one.cue.id} of={one} isFirst={false} />
        ))}
        {card.other.length > 0 && (
          <section className="border-b border-rule py-4">
            <h2 className="font-semibold">Also</h2>
            {card.other.map((work) => (
              <WorkLine key={work.id} work={work} />
            ))}
          </section>
        )}
        {card.heed.map((one) => (
          <p key={one} className="mt-4 border-l-4 border-now pl-3 font-semibold">
            {one}
          </p>
        ))}
        <p className="mt-4 text-sm text-soft">
          Wrap your hands, wear gloves on the bag, warm up, start light, add power last. Pain,
          numbness or dizziness: stop, and see a clinician. ± says within what range the true value
          lies in 95 of 100 cases.
        </p>
        {first && (
          <SendHome
            gym={gym.name}
            student={student}
            card={card}
            talk={talk}
            sharing={sharing}
            calendar={calendar}
            isOpen={isOpen}
            links={links}
            today={today}
          />
        )}
      </main>
    </>
  );
}

function CueOnCard({ of, isFirst }: { of: CardCue; isFirst: boolean }) {
  const { cue, picture, number, work, days, caution, isInjury } = of;
  return (
    <section className="break-inside-avoid border-b border-rule py-5">
      <h2 className="text-base text-soft">{techniqueById(cue.technique).name}</h2>
      <p className="mt-1 font-serif text-[2.5rem] leading-[1.08]">{cue.text}</p>
      {isFirst && picture && <EvidencePicture picture={picture} />}
      <p className="mt-3 text-base">{inManner(cue.evidence)}</p>
      {number && <Number of={number} />}
      {work.map((one) => (
        <WorkLine key={one.id} work={one} days={days} />
      ))}
      {work.length === 0 && cue.drill && (
        <p className="mt-3 text-base">{cue.drill}. Slow until it is right.</p>
      )}
      {(isInjury || caution) && (
        <p className="mt-3 border-l-4 border-now pl-3 text-base">
          {isInjury && <strong>No power until your coach says so. </strong>}
          {caution}
        </p>
      )}
    </section>
  );
}

function Number({ of: { name, then, now, verdict, why } }: { of: ThenAndNow }) {
  return (
    <dl className="mt-3 grid grid-cols-[1fr_auto_auto] items-baseline gap-x-8 text-base">
      <dt>{name}</dt>
      <dd>
        <span className="text-soft">then</span> <strong>{inManner(then)}</strong>
      </dd>
      <dd>
        <span className="text-soft">now</span>{' '}
        <strong>{now === null ? 'not filmed again' : inManner(now)}</strong>
        {verdict && `, ${CHANGE_WORDS[verdict]}`}
        {why && <span className="text-soft"> (not comparable: {why})</span>}
      </dd>
    </dl>
  );
}

function WorkLine({ work, days = [] }: { work: Given; days?: readonly string[] }) {
  return (
    <div className="mt-4">
      <p className="text-base">
        <strong>{work.name}</strong>: {work.dose && `${work.dose}, `}
        {STANCE_NAMES[work.stances]}, {INTENT_NAMES[work.intent]}.{' '}
        {work.todaysDose &&
          work.todaysDose !== ENOUGH &&
          !work.dose.startsWith(work.todaysDose) &&
          `At first ${work.todaysDose}.`}
      </p>
      {days.length > 0 && (
        <ul aria-label="Boxes to tick" className="mt-2 flex flex-wrap gap-x-4 gap-y-2">
          {days.map((day) => (
            <li key={day} className="flex items-center gap-1.5 text-sm">
              <span aria-hidden className="inline-block size-5 border border-ink" />
              {shortDay(day)}
            </li>
          ))}
        </ul>
      )}
      {work.cautions.map((one) => (
        <p key={one} className="mt-1.5">
          {one}
        </p>
      ))}
      <p className="mt-1.5 text-soft">
        {work.gate} To be filmed again: {shortDay(work.nextCheck)}.
      </p>
    </div>
  );
}
