import Link from 'next/link';
import { faultById } from '@sinew/core/fault/catalogue';
import { techniqueById } from '@sinew/core/technique/catalogue';
import type { Cue } from '@/data/findings';
import type { Gym } from '@/data/gym';
import type { Student } from '@/data/students';
import { TopBar } from '@/ui/topBar';
import { PrintButton } from './PrintButton';

/** What the student takes home: one cue a strike, the number behind it, the work. One page. */
export function Card({
  gym,
  student,
  cues,
  today,
}: {
  gym: Gym;
  student: Student;
  cues: readonly Cue[];
  today: Date;
}) {
  return (
    <>
      <TopBar right={<PrintButton />}>
        <Link href="/" className="text-soft hover:underline">
          Floor
        </Link>
        <Link href={`/students/${student.id}`} className="font-semibold hover:underline">
          {student.name}
        </Link>
        <span aria-current="page">Card</span>
      </TopBar>
      <main className="mx-auto max-w-2xl px-6 py-10 print:max-w-none print:p-0">
        <div className="flex items-baseline justify-between border-b-2 border-ink pb-2">
          <h1 className="text-xl font-semibold">{student.name}</h1>
          <span className="text-soft">
            {gym.name}, {today.toISOString().slice(0, 10)}
          </span>
        </div>
        {cues.length === 0 && (
          <p className="mt-8 text-base">
            No cue yet. Accept a leak on the bench, and its cue stands here.
          </p>
        )}
        {cues.map((cue) => (
          <section key={cue.id} className="border-b border-rule py-8">
            <h2 className="text-base text-soft">{techniqueById(cue.technique).name}</h2>
            <p className="mt-1 font-serif text-[2.75rem] leading-[1.08]">{cue.text}</p>
            <dl className="mt-6 grid grid-cols-[6rem_1fr] gap-y-3 text-base">
              <dt className="text-soft">Seen</dt>
              <dd>{cue.evidence}</dd>
              <dt className="text-soft">Work</dt>
              <dd>{cue.drill}. Slow until it is right.</dd>
            </dl>
            {faultById(cue.fault)?.caution && (
              <p className="mt-5 border-l-4 border-now pl-3 text-base">
                {faultById(cue.fault)!.caution}
              </p>
            )}
          </section>
        ))}
        <p className="mt-6 text-sm text-soft">
          Wrap your hands, wear gloves on the bag, warm up, start light, add power last. Pain,
          numbness or dizziness: stop, and see a clinician. ± says within what range the true value
          lies in 95 of 100 cases.
        </p>
      </main>
    </>
  );
}
