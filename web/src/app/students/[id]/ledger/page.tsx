import { group } from 'd3-array';
import { notFound } from 'next/navigation';
import { faultById } from '@sinew/core/judge/fault/faults';
import { fatigueOf } from '@sinew/core/train/progress/fatigue';
import { clipSummaries } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import type { Db } from '@/data/database/db';
import { untilChanged } from '@/data/database/untilChanged';
import { dosesOf } from '@/data/work/doses';
import { activeCues } from '@/data/finding/findings';
import { studentFaultsOf } from '@/data/finding/studentFaults';
import { notesOf, shownOver, unsaidIn } from '@/data/progress/ledger';
import { libraryOf } from '@/data/gym/library';
import type { MeasuredSet } from '@/data/finding/measuredSets';
import { ask } from '@/data/threads/ask';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { LedgerScreen, type LedgerProps } from '@/screens/ledger/LedgerScreen';
import { alikeOf } from '@/screens/ledger/view';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Ledger' };

/** What may be measured while the page is waited for, ms. */
const PATIENCE = 2000;
const FEWEST_ROUNDS = 3;

/** The newest day with enough rounds. */
async function newestRounds(studentId: string, technique: string, sets: readonly MeasuredSet[]) {
  const days = group(
    sets.filter(({ round }) => round !== null),
    ({ day }) => day,
  );
  const found = [...days]
    .filter(([, same]) => new Set(same.map(({ round }) => round)).size >= FEWEST_ROUNDS)
    .sort(([a], [b]) => b.localeCompare(a))[0];
  if (!found) return null;
  const [day] = found;
  const { strikes } = await ask('strikesNow', studentId, { technique, milliseconds: PATIENCE });
  const ofDay = strikes.filter((one) => one.day === day && one.round !== null);
  const rounds = [...group(ofDay, ({ round }) => round!)].map(([round, ofRound]) => ({
    round,
    strikes: ofRound.map(({ readings }) => readings),
  }));
  return { day, rounds: fatigueOf(rounds) };
}

type Shown = Omit<LedgerProps, 'student' | 'today'>;

/** @param asked the technique in the address, if there is one */
async function shownOf(db: Db, id: string, asked: string | undefined): Promise<Shown> {
  const [{ sets, left }, faults, notes, doses, cues, clips, { catalogue }, errors] =
    await Promise.all([
      ask('setsNow', id, PATIENCE),
      studentFaultsOf(db, id),
      notesOf(db, id),
      dosesOf(db, id),
      activeCues(db, id),
      clipSummaries(db, id),
      libraryOf(db),
      ask('markingErrors'),
    ]);
  const byTechnique = group(sets, (set) => set.technique);
  const techniques = [...byTechnique.keys()].sort(
    (a, b) => byTechnique.get(b)!.length - byTechnique.get(a)!.length,
  );
  const technique =
    techniques.find((one) => one === asked) ??
    techniques.find((one) => one === cues[0]?.technique) ??
    techniques[0] ??
    null;
  const own = technique ? byTechnique.get(technique)! : [];
  const newest = own[own.length - 1];
  const purged = new Set(clips.filter(({ isPurged }) => isPurged).map((clip) => clip.id));
  const nameOf = (fault: string) => faultById(fault, catalogue)?.name ?? fault;
  const open = new Set(
    faults
      .filter((fault) => fault.state !== 'closed' && fault.technique === technique)
      .map((fault) => fault.fault),
  );
  const unsaid = (newest ? await unsaidIn(db, newest) : []).filter(({ fault }) => !open.has(fault));
  return {
    technique,
    techniques,
    alike: technique ? alikeOf(own, technique, catalogue, purged) : [],
    faults: faults.map((fault) => ({
      ...fault,
      name: nameOf(fault.fault),
      isFilmed: !purged.has(fault.clipId),
      shown: shownOver(byTechnique.get(fault.technique) ?? [], fault.fault),
    })),
    unsaid: unsaid.map((one) => ({
      ...one,
      name: nameOf(one.fault),
      isFilmed: !purged.has(one.clipId),
    })),
    notes,
    doses,
    fatigue: technique ? await newestRounds(id, technique, own) : null,
    errors,
    left,
  };
}

export default async function LedgerPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ technique?: string }>;
}) {
  const [{ id }, { technique }] = await Promise.all([params, searchParams]);
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const shown = await untilChanged(db, `ledger ${id} ${technique ?? ''}`, () =>
    shownOf(db, id, technique),
  );
  return (
    <LedgerScreen
      key={shown.technique}
      student={{ id, name: student.name }}
      today={today()}
      {...shown}
    />
  );
}
