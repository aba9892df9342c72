/** Everything that a student's ledger shows in one technique. Runs on a thread. */
import { group } from 'd3-array';
import type { Day } from '@sinew/core/foundation/calendar/day';
import { faultById } from '@sinew/core/judge/fault/faults';
import { fatigueOf, type Fading } from '@sinew/core/train/progress/fatigue';
import { clipSummaries } from '../clip/clips';
import type { Db } from '../database/db';
import { activeCues } from '../finding/findings';
import { strikesNow } from '../finding/measured';
import { setsNow, type MeasuredSet } from '../finding/measuredSets';
import { studentFaultsOf, type StudentFault } from '../finding/studentFaults';
import { judgingOf } from './comparison';
import { dosesOf, type Dose } from '../work/doses';
import { notesOf, shownOver, unsaidIn, type Note, type Shown, type Unsaid } from './ledger';
import { markingErrors, type MarkingError } from './repeatMarkings';
import { alikeOf, type Alike } from './trends';

export interface LedgerFault extends StudentFault {
  readonly name: string;
  /** Whether its film is still there to be seen. */
  readonly isFilmed: boolean;
  /** In how many strikes of each set it shows. */
  readonly shown: readonly Shown[];
}

export interface UnsaidFault extends Unsaid {
  readonly name: string;
  readonly isFilmed: boolean;
}

export interface LedgerPage {
  readonly technique: string | null;
  readonly techniques: readonly string[];
  readonly alike: readonly Alike[];
  readonly faults: readonly LedgerFault[];
  readonly unsaid: readonly UnsaidFault[];
  readonly notes: readonly Note[];
  readonly doses: readonly Dose[];
  readonly fatigue: { readonly day: Day; readonly rounds: readonly Fading[] } | null;
  readonly errors: readonly MarkingError[];
  /** Strikes that are still to be measured. */
  readonly left: number;
}

/** What may be measured while the page is waited for, ms. */
const PATIENCE = 2000;
const FEWEST_ROUNDS = 3;

/** The newest day with enough rounds. */
async function newestRounds(
  db: Db,
  studentId: string,
  technique: string,
  sets: readonly MeasuredSet[],
) {
  const days = group(
    sets.filter(({ round }) => round !== null),
    ({ day }) => day,
  );
  const found = [...days]
    .filter(([, same]) => new Set(same.map(({ round }) => round)).size >= FEWEST_ROUNDS)
    .sort(([a], [b]) => b.localeCompare(a))[0];
  if (!found) return null;
  const [day] = found;
  const { strikes } = await strikesNow(db, studentId, { technique, milliseconds: PATIENCE });
  const ofDay = strikes.filter((one) => one.day === day && one.round !== null);
  const rounds = [...group(ofDay, ({ round }) => round!)].map(([round, ofRound]) => ({
    round,
    strikes: ofRound.map(({ readings }) => readings),
  }));
  return { day, rounds: fatigueOf(rounds) };
}

/** @param asked the technique in the address; the one most filmed, or worked on, where there is none */
export async function ledgerOf(db: Db, id: string, asked: string | undefined): Promise<LedgerPage> {
  const [{ sets, left }, faults, notes, doses, cues, clips, judging, errors] = await Promise.all([
    setsNow(db, id, PATIENCE),
    studentFaultsOf(db, id),
    notesOf(db, id),
    dosesOf(db, id),
    activeCues(db, id),
    clipSummaries(db, id),
    judgingOf(db, id),
    markingErrors(db),
  ]);
  const { catalogue } = judging;
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
  const contacts = new Map(
    clips.flatMap(({ strikes }) => strikes.map((one) => [one.id, one.contactAt] as const)),
  );
  const filmOf = (clipId: string, strikeId: string) =>
    purged.has(clipId) ? null : { contactAt: contacts.get(strikeId) ?? null };
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
    alike: technique ? alikeOf(own, technique, judging, filmOf) : [],
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
    fatigue: technique ? await newestRounds(db, id, technique, own) : null,
    errors,
    left,
  };
}
