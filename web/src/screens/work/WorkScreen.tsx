'use client';

import Link from 'next/link';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Drill } from '@sinew/core/foundation/drill/drills';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { NextThing } from '@sinew/core/train/work/nextThing';
import { fromDrill } from '@sinew/core/train/work/prescription';
import type { Cue } from '@/data/finding/findings';
import type { Injury } from '@/data/finding/studentFaults';
import type { Given, Proposal, Work } from '@/data/work/work';
import { Button, LinkButton } from '@/ui/button';
import { HurtDialog } from '@/screens/student/HurtDialog';
import { HurtNotes } from '@/screens/student/HurtNotes';
import { StudentBar } from '@/ui/studentBar';
import { give } from './actions';
import { CloseFault } from './CloseFault';
import { Counter } from './Counter';
import { GateSteps } from './GateSteps';
import { GiveDialog } from './GiveDialog';
import { GivenRow } from './GivenRow';
import { Logs } from './Logs';
import { Proposed } from './Proposed';
import { VolumeBars } from './VolumeBars';
import { useCommands } from '@/ui/commands/registry';

interface Student {
  readonly id: string;
  readonly name: string;
}

/** What a student has to do, how much of it is done, and how hard they may go. */
export function WorkScreen({
  student,
  work,
  cues,
  next,
  drills,
  today,
}: {
  student: Student;
  work: Work;
  /** What is said to the student, in work. */
  cues: readonly Cue[];
  next: NextThing;
  drills: readonly Drill[];
  today: string;
}) {
  const [counting, setCounting] = useState<string | null>(null);
  const [giving, setGiving] = useState<Proposal | 'free' | null>(null);
  const [closing, setClosing] = useState<Injury | null>(null);
  const [isHurt, setHurt] = useState(false);
  const { given, proposals, gates, injuries, hurts, volume, logs } = work;
  const inHand = given.find(({ id }) => id === counting);
  const isFree = !inHand && giving === null && closing === null && !isHurt;

  /** Straight from the fault where nothing speaks against it. */
  const take = async (proposal: Proposal) => {
    try {
      const { technique, fault } = proposal.worksOn;
      const outcome = await give({
        ...proposal.prescription,
        studentId: student.id,
        worksOn: { technique, fault },
        override: '',
      });
      if (outcome.kind === 'asks-why') setGiving(proposal);
      else if (outcome.kind !== 'given') toast(outcome.reason);
    } catch {
      toast('Not given: the server does not answer. Try again.');
    }
  };

  const counted = given.slice(0, 9);
  useCommands(() =>
    [
      {
        id: 'give',
        keys: ['Enter'],
        words: 'give the work for the first leak',
        run: () => proposals[0] && void take(proposals[0]),
      },
      { id: 'give other', keys: ['g'], words: 'give other work', run: () => setGiving('free') },
      ...counted.map(({ id, name }, at) => ({
        id: `count ${id}`,
        keys: [String(at + 1)],
        words: `count a set: ${name}`,
        run: () => setCounting(id),
      })),
    ].map((one) => ({ ...one, group: 'Work', isOn: isFree })),
  );

  return (
    <>
      <StudentBar student={student} here="Work" />
      <main className="mx-auto grid max-w-[1280px] gap-x-12 gap-y-8 px-4 sm:px-8 pt-7 pb-16 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          <h1 className="font-serif text-[2.6rem] leading-none">{headline(next, given)}</h1>
          <HurtNotes hurts={hurts} />
          {injuries.map((injury) => (
            <div key={injury.technique + injury.fault} className="mt-5 border-l-4 border-now pl-3">
              <p className="font-semibold">
                {techniqueById(injury.technique).name}: {injury.name}. Slow only until you have
                cleared it.
              </p>
              <p>{injury.caution}</p>
              <p className="mt-1 flex gap-5 text-sm">
                <Link
                  href={`/bench/${injury.clipId}?strike=${injury.strikeId}`}
                  className="underline underline-offset-4"
                >
                  See the strike
                </Link>
                <Button
                  weight="quiet"
                  className="!min-h-6 text-sm"
                  onClick={() => setClosing(injury)}
                >
                  Clear it
                </Button>
              </p>
            </div>
          ))}
          {proposals.map((proposal, i) => (
            <Proposed
              key={proposal.worksOn.technique + proposal.worksOn.fault}
              proposal={proposal}
              hint={i === 0 ? 'Enter' : undefined}
              onTake={() => void take(proposal)}
              onChange={() => setGiving(proposal)}
            />
          ))}
          <ol className="mt-6 border-b border-rule">
            {given.map((one, i) => (
              <GivenRow
                key={one.id}
                work={one}
                cue={cues.find((cue) => cue.technique === one.technique && cue.fault === one.fault)}
                number={i + 1}
                studentId={student.id}
                today={today}
                onCount={() => setCounting(one.id)}
              />
            ))}
          </ol>
          <div className="mt-5 flex flex-wrap gap-3">
            <Button hint="G" onClick={() => setGiving('free')}>
              Give other work
            </Button>
            <LinkButton href={`/timer?student=${student.id}`}>Timer</LinkButton>
            <Button onClick={() => setHurt(true)}>Something hurts</Button>
          </div>
          <Logs logs={logs} />
        </div>
        <div className="space-y-8">
          {gates.length > 0 && (
            <section aria-label="Speed gate">
              <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">How hard</h2>
              {gates.map(({ technique, gate }) => (
                <GateSteps
                  key={technique}
                  studentId={student.id}
                  technique={technique}
                  gate={gate}
                />
              ))}
            </section>
          )}
          <VolumeBars volume={volume} />
        </div>
      </main>
      {inHand && (
        <Counter
          key={inHand.id}
          studentId={student.id}
          work={inHand}
          today={today}
          onDone={() => setCounting(null)}
        />
      )}
      {giving !== null && (
        <GiveDialog
          studentId={student.id}
          worksOn={giving === 'free' ? null : giving.worksOn}
          title={giving === 'free' ? 'Other work' : `Work for: ${giving.name}`}
          start={giving === 'free' ? fromDrill(drills[0]!, today) : giving.prescription}
          drills={drills}
          why={
            giving === 'free' || giving.first.length === 0
              ? []
              : [`First: ${giving.first.join(', ')}.`]
          }
          onDone={() => setGiving(null)}
        />
      )}
      {isHurt && <HurtDialog students={[student]} today={today} onDone={() => setHurt(false)} />}
      {closing && (
        <CloseFault
          fault={{ ...closing, studentId: student.id }}
          title={`Clear “${closing.name}”?`}
          text="You say that it does not hurt any more. The gate opens again from slow."
          action="Clear it"
          onDone={() => setClosing(null)}
        />
      )}
    </>
  );
}

/** What the Floor names as next, where it is about the work; else what there is to work on. */
function headline(next: NextThing, given: readonly Given[]): string {
  if (next.kind === 'compare') return 'Filmed again: did it change?';
  if (next.kind === 'film-again') return 'Time to film again.';
  if (next.kind === 'slow-only') return 'Slow only, until it is cleared.';
  if (next.kind === 'give-work') return 'A cue without work.';
  if (given.length === 0) return 'No work given.';
  return given.length === 1 ? 'One thing to work on.' : `${given.length} things to work on.`;
}
