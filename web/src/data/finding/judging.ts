/** Judges saved strikes on the server, so that what is kept is what was measured. */
import { withCosts } from '@sinew/core/judge/cost/estimate';
import type { Finding, Rules } from '@sinew/core/judge/fault/judge';
import { judgeSet, type SetVerdict } from '@sinew/core/judge/fault/set';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { loadBench } from '../bench/bench';
import {
  analyzeOnBench,
  rulesFor,
  trackedOf,
  type BenchAnalysis,
  type FilmFacts,
} from '../bench/benchAnalysis';
import type { StrikeDocument } from '../bench/benchDocument';
import { clipById } from '../clip/clips';
import type { Db } from '../database/database';
import { libraryOf } from '../gym/library';
import { seriesOf } from '../clip/series';
import { studentById } from '../student/students';
import { sightingsOf } from '../clip/trackings';
import { secondFilmOf } from '../clip/viewPairs';

export interface JudgedStrike {
  readonly strike: StrikeDocument;
  readonly analysis: BenchAnalysis;
}

export interface Judging {
  readonly studentId: string;
  readonly technique: string;
  readonly rules: Rules;
  /** The strike asked for, and every one of its kind in the clip, in their order. */
  readonly asked: JudgedStrike;
  readonly set: readonly JudgedStrike[];
}

/** All that the strikes of a clip are measured and judged from; null when it is gone. */
export async function filmAndRules(db: Db, clipId: string) {
  const [clip, bench, library] = await Promise.all([
    clipById(db, clipId),
    loadBench(db, clipId),
    libraryOf(db),
  ]);
  const student = clip && (await studentById(db, clip.studentId));
  if (!clip || !student || !bench) return null;
  const [second, sightings, series] = await Promise.all([
    secondFilmOf(db, clipId),
    sightingsOf(db, clipId),
    seriesOf(db, clipId),
  ]);
  const { document } = bench;
  const film: FilmFacts = { ...clip, tracked: trackedOf(sightings, clip, document), series };
  return { document, film, student, library, second };
}

/**
 * @param whole every strike of the same kind in the clip is judged too
 * @returns null when there is no such strike
 */
export async function judging(db: Db, strikeId: string, whole: boolean): Promise<Judging | null> {
  const row = await db
    .selectFrom('strike')
    .select('clip_id')
    .where('id', '=', strikeId)
    .executeTakeFirst();
  const all = row && (await filmAndRules(db, row.clip_id));
  const strike = all?.document.strikes.find((one) => one.id === strikeId);
  if (!all || !strike) return null;
  const { document, film, student, library, second } = all;
  const body = { mass: student.massKg, height: student.heightM };
  const technique = techniqueById(strike.technique);
  const judged = (one: StrikeDocument): JudgedStrike => {
    const analysis = analyzeOnBench(document, one, film, student, library, second);
    const findings = withCosts({ technique, ...analysis }, body, analysis.rules);
    return { strike: one, analysis: { ...analysis, findings } };
  };
  const kind = document.strikes.filter(
    (one) => one.technique === strike.technique && one.side === strike.side,
  );
  const set = (whole ? kind : [strike]).map(judged);
  return {
    studentId: student.id,
    technique: strike.technique,
    rules: rulesFor(strike, document, student, library),
    asked: set.find((one) => one.strike.id === strikeId)!,
    set,
  };
}

/** A set as the bench shows it. */
export interface SetReport {
  readonly strikes: readonly { readonly id: string; readonly frame: number | null }[];
  readonly findings: SetVerdict['findings'];
  readonly isProvisional: boolean;
  /** Strikes whose marks contradict each other, and which are not judged. */
  readonly leftOut: number;
}

export function setOf({ technique, rules, set }: Judging): SetVerdict {
  // Marks that contradict each other are judged nowhere.
  const good = set.filter(({ analysis }) => analysis.problems.length === 0);
  return judgeSet(
    techniqueById(technique),
    good.map(({ analysis }) => analysis),
    rules,
  );
}

export async function setReport(db: Db, strikeId: string): Promise<SetReport | null> {
  const found = await judging(db, strikeId, true);
  if (!found) return null;
  const { findings, isProvisional } = setOf(found);
  const strikes = found.set
    .filter(({ analysis }) => analysis.problems.length === 0)
    .map(({ strike, analysis }) => ({
      id: strike.id,
      frame: analysis.events.contact?.frame ?? null,
    }));
  return { strikes, findings, isProvisional, leftOut: found.set.length - strikes.length };
}

/** What a strike, or the set it is of, shows of a leak; the set's word names how many show it. */
export async function findingOf(
  db: Db,
  strikeId: string,
  fault: string,
  of: 'strike' | 'set',
): Promise<{ finding: Finding; judged: Judging } | null> {
  const judged = await judging(db, strikeId, of === 'set');
  if (!judged) return null;
  if (of === 'strike') {
    const finding = judged.asked.analysis.findings.find((one) => one.fault === fault);
    return finding ? { finding, judged } : null;
  }
  const finding = setOf(judged).findings.find((one) => one.fault === fault);
  if (!finding) return null;
  const how = finding.isByMedian ? 'by the median' : 'as in this one';
  const evidence = `In ${finding.shows} of ${finding.of}, ${how}. ${finding.evidence}`;
  return { finding: { ...finding, evidence }, judged };
}
