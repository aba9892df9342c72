/** Judges saved strikes on the server, so that what is kept is what was measured. */
import { analyzeClip, type ClipAnalysis } from '@sinew/core/analysis/analyzeClip';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import type { Finding, Rules } from '@sinew/core/judge/fault/finding';
import type { Catalogue } from '@sinew/core/judge/fault/schema';
import { judgeSet, type SetVerdict } from '@sinew/core/judge/fault/set';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { clipInputOf } from '../clip/clipInput';
import type { Db } from '../database/db';

export interface JudgedStrike {
  readonly strike: StrikeDocument;
  readonly analysis: ClipAnalysis;
}

export interface Judging {
  readonly studentId: string;
  readonly technique: string;
  readonly rules: Rules;
  /** The strike asked for, and every one of its kind in the clip, in their order. */
  readonly asked: JudgedStrike;
  readonly set: readonly JudgedStrike[];
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
  const found = row && (await clipInputOf(db, row.clip_id));
  const strikes = found?.clip.document.strikes ?? [];
  const strike = strikes.find((one) => one.id === strikeId);
  if (!found || !strike) return null;
  const kind = strikes.filter(
    (one) => one.technique === strike.technique && one.side === strike.side,
  );
  const set = (whole ? kind : [strike]).map((one): JudgedStrike => ({
    strike: one,
    analysis: analyzeClip(found.clip, one, found.library),
  }));
  const asked = set.find((one) => one.strike.id === strikeId)!;
  return {
    studentId: found.clip.student.id,
    technique: strike.technique,
    rules: asked.analysis.rules,
    asked,
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

/** What a strike shows of a fault, and what the coach's word on it needs to know. */
export interface FoundFinding {
  readonly finding: Finding;
  readonly studentId: string;
  readonly technique: string;
  readonly catalogue: Catalogue;
}

/** What a strike, or the set it is of, shows of a fault; the set's word names how many show it. */
export async function findingOf(
  db: Db,
  strikeId: string,
  fault: string,
  of: 'strike' | 'set',
): Promise<FoundFinding | null> {
  const judged = await judging(db, strikeId, of === 'set');
  if (!judged) return null;
  const { studentId, technique, rules } = judged;
  const about = { studentId, technique, catalogue: rules.catalogue };
  if (of === 'strike') {
    const finding = judged.asked.analysis.findings.find((one) => one.fault === fault);
    return finding ? { finding, ...about } : null;
  }
  const finding = setOf(judged).findings.find((one) => one.fault === fault);
  if (!finding) return null;
  const how = finding.isByMedian ? 'by the median' : 'as in this one';
  const evidence = `In ${finding.shows} of ${finding.of}, ${how}. ${finding.evidence}`;
  return { finding: { ...finding, evidence }, ...about };
}
