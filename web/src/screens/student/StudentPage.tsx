import Link from 'next/link';
import type { ReactNode } from 'react';
import { ageOn } from '@sinew/core/foundation/calendar/age';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { ClipSummary } from '@/data/clip/clips';
import type { Cue } from '@/data/finding/findings';
import type { Student } from '@/data/student/students';
import { pastDay } from '@/data/database/today';
import type { NextStep } from '@/ui/nextStep';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { trainingTime } from '@/screens/floor/rows';
import { LinkButton } from '@/ui/button';
import { KeyLink } from '@/ui/keyLink';
import { StudentBar } from '@/ui/studentBar';
import { LookAgainOnNews } from '@/ui/newsLine';
import { AddClips } from './AddClips';
import { BirthDate } from './BirthDate';
import { Archive } from './Archive';
import { ClipList } from './ClipList';
import { Consent } from './Consent';
import type { OpenHurt } from '@/data/student/hurtNotes';
import { inManner } from '@/manner/manner';
import type { Talk } from '@/data/clip/talks';
import { inMinutes } from '@/ui/inMinutes';
import { HurtNotes } from './HurtNotes';
import { StudentSchool } from './StudentSchool';

/** One student: what is known, the cue in work, the clips, and the way to add one. */
export function StudentPage({
  student,
  next,
  clips,
  cues,
  talks,
  hurts,
  trend,
  today,
  hasStore,
}: {
  student: Student;
  next: NextStep;
  clips: readonly ClipSummary[];
  cues: readonly Cue[];
  talks: readonly Talk[];
  hurts: readonly OpenHurt[];
  /** Where the readings go; it may come later than the rest. */
  trend: ReactNode;
  today: Day;
  /** Films lie in the organisation’s store, and not on this machine. */
  hasStore: boolean;
}) {
  const facts = [
    student.stance,
    student.grade,
    student.classGroup,
    trainingTime(student.startedOn, today),
    student.heightM && inManner(`${Math.round(student.heightM * 100)} cm`),
    student.massKg && inManner(`${student.massKg} kg`),
    student.bornOn && `${ageOn(student.bornOn, today)} years`,
    student.bornOn !== null && student.isJunior ? 'under 16' : student.isMinor && 'under 18',
  ].filter(Boolean);
  return (
    <>
      <StudentBar student={student} here="Films" />
      <main className="mx-auto max-w-[1280px] space-y-9 px-4 sm:px-8 pt-7 pb-16">
        <div>
          <div className="flex flex-wrap items-end justify-between gap-4">
            <h1 dir="auto" className="max-w-full font-serif text-[2.6rem] leading-none">
              {student.name}
            </h1>
            <div className="flex flex-wrap items-center gap-4">
              <KeyLink href={`/students/${student.id}/work`} hotkey="W" words="work">
                Work
              </KeyLink>
              <KeyLink href={`/students/${student.id}/ledger`} hotkey="L" words="ledger">
                Ledger
              </KeyLink>
              <LinkButton href={`/students/${student.id}/bands`}>Bands</LinkButton>
              <LinkButton href={`/students/${student.id}/edit`}>Edit</LinkButton>
              <Archive student={student} />
            </div>
          </div>
          <p className="mt-2 text-base text-soft">{facts.join(', ')}</p>
          {student.injuries && (
            <p className="mt-2 max-w-2xl border-l-4 border-now pl-3 text-base">
              {student.injuries}
            </p>
          )}
          <HurtNotes hurts={hurts} />
          {student.isArchived && (
            <p className="mt-2 font-semibold">Archived: not on the Floor, nothing is deleted.</p>
          )}
        </div>

        <div className="grid gap-x-12 gap-y-9 lg:grid-cols-[minmax(0,1fr)_21rem]">
          <div className="space-y-9">
            <Next step={next} />
            {cues.length > 0 && (
              <section aria-label="Cues">
                {cues.map((cue) => (
                  <div
                    key={cue.id}
                    className="border-t border-rule py-3 first:border-t-2 first:border-ink"
                  >
                    <div className="text-sm text-soft">{techniqueById(cue.technique).name}</div>
                    <p className="font-serif text-2xl leading-snug">{cue.text}</p>
                    <p className="mt-1">
                      {inManner(cue.evidence)}{' '}
                      <Link
                        href={`/bench/${cue.clipId}?strike=${cue.strikeId}`}
                        className="underline underline-offset-4"
                      >
                        See the strike
                      </Link>{' '}
                      <TalkedOver
                        talk={talks.find(({ technique }) => technique === cue.technique)}
                        studentId={student.id}
                      />
                    </p>
                  </div>
                ))}
              </section>
            )}
            <section>
              <h2 className="mb-1 border-b-2 border-ink pb-1 text-base font-semibold">
                Clips{clips.length > 0 && `, ${clips.length}`}
              </h2>
              <ClipList clips={clips} />
              {clips.length === 0 && student.consent && (
                <p className="mt-4 text-soft">
                  No clip yet. Film here, or with a phone in slow motion and drop the file: from the
                  side or from above, belt line and knees in sight.
                </p>
              )}
            </section>
          </div>
          <div
            className={`space-y-7 ${student.consent && student.bornOn ? '' : 'max-lg:order-first'}`}
          >
            {student.bornOn === null && <BirthDate student={student} />}
            {student.consent ? (
              <section aria-label="Add clips">
                <KeyLink
                  href={`/capture?student=${student.id}`}
                  hotkey="F"
                  words="film"
                  weight="main"
                >
                  Film
                </KeyLink>
                <div className="mt-4">
                  <LookAgainOnNews studentId={student.id} />
                  <AddClips studentId={student.id} />
                </div>
              </section>
            ) : (
              <section>
                <h2 className="mb-3 border-b-2 border-ink pb-1 text-base font-semibold">Consent</h2>
                <Consent student={student} today={today} hasStore={hasStore} />
                <p className="mt-3 text-soft">Clips can be added once consent is recorded.</p>
              </section>
            )}
            {trend}
            {student.consent && (
              <details>
                <summary className="border-b border-rule pb-1 font-semibold">
                  Consent: given{' '}
                  {student.consent.expiresOn
                    ? `until ${pastDay(student.consent.expiresOn)}`
                    : pastDay(student.consent.givenOn)}
                </summary>
                <div className="mt-2">
                  <Consent student={student} today={today} hasStore={hasStore} />
                </div>
              </details>
            )}
            <StudentSchool studentId={student.id} school={student.school} />
          </div>
        </div>
      </main>
    </>
  );
}

/** The one next thing, as the Floor has it. */
function Next({ step }: { step: NextStep }) {
  return (
    <section aria-label="Next" className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <KeyLink href={step.href} hotkey="Enter" words={step.text.toLowerCase()} weight="main">
        {step.text}
      </KeyLink>
      <span className="text-base text-soft">{step.note}</span>
    </section>
  );
}

/** Where the coach’s own words over the strike are heard. */
function TalkedOver({ talk, studentId }: { talk: Talk | undefined; studentId: string }) {
  if (!talk) return null;
  return (
    <Link href={`/students/${studentId}/card`} className="underline underline-offset-4">
      Hear what was said, {inMinutes(talk.seconds)}
    </Link>
  );
}
