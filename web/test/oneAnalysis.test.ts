/** The bench, the server, the card and the command line say the same of one strike. */
import { afterEach, expect, it } from 'vitest';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import { costedFindings, judgeMeasured } from '@sinew/core/analysis/analyze';
import { measureInClip } from '@sinew/core/analysis/analyzeClip';
import { readClipFile } from '@sinew/core/analysis/clipFile';
import { rulesFor } from '@sinew/core/analysis/rules';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { ranked } from '@sinew/core/judge/fault/rank';
import { analyzeClipFile } from '../../cli/src/analyzeFile';
import { loadBench, saveBench } from '../src/data/bench/bench';
import { clipFileOf } from '../src/data/clip/clipFileOf';
import { clipInputOf } from '../src/data/clip/clipInput';
import { cardOf } from '../src/data/finding/card';
import { acceptFinding } from '../src/data/finding/findings';
import { judging } from '../src/data/finding/judging';
import { changeLibrary } from '../src/data/gym/library';
import { emptyGym, markedClip, student } from './support';

let gym: Awaited<ReturnType<typeof emptyGym>>;

afterEach(async () => {
  await gym.db.destroy();
});

interface Printed {
  readonly strikes: readonly {
    readonly strike: string;
    readonly events: Record<string, { time: number; sigma: number }>;
    readonly readings: Record<string, { value?: number; sigma?: number; source?: string }>;
    readonly findings: readonly { fault: string; status: string; evidence: string }[];
  }[];
}

it('findings, sources and sentences are the same everywhere', async () => {
  gym = await emptyGym();
  const who = await student(gym);
  const { clipId, strikeId } = await markedClip(gym, who);
  // A limit of the gym's own and a combination: all that the analysis asks for travels.
  const limit = { kind: 'limit', fault: 'all-at-once', limit: 'turned/lead.hipsTrunk' } as const;
  await changeLibrary(gym.db, 'Coach', { ...limit, value: 0.03 });
  const saved = (await loadBench(gym.db, clipId))!;
  const [first] = saved.document.strikes;
  const strikes = [
    { ...first!, combination: 'one', situation: 'lined-up' as const },
    { ...first!, id: 'second', combination: 'one' },
  ];
  await saveBench(gym.db, clipId, {
    revision: saved.revision,
    document: { ...saved.document, strikes },
  });

  // The server's judging.
  const judged = (await judging(gym.db, strikeId, false))!.asked.analysis;
  expect(judged.findings.some(({ status }) => status === 'found')).toBe(true);

  // The bench's way: the same steps, each by itself.
  const { clip, library } = (await clipInputOf(gym.db, clipId))!;
  const strike = clip.document.strikes.find(({ id }) => id === strikeId)!;
  const measured = measureInClip(clip, strike);
  const rules = rulesFor(strike, clip.document.strikes, clip.student, library);
  const found = judgeMeasured(measured, measured.facts.strike, rules);
  const costed = costedFindings(measured, found, measured.facts, rules);
  expect(ranked(costed, rules)).toEqual(judged.findings);

  // The command line, from the exported document.
  const text = (await clipFileOf(gym.db, clipId))!;
  expect(text).not.toContain('Somebody');
  const printed = analyzeClipFile(text, strikeId) as Printed;
  const [line] = printed.strikes;
  const told = judged.findings.filter(({ status }) => status !== 'clear');
  expect(line!.findings).toMatchObject(
    told.map(({ fault, status, evidence, cost }) => ({ fault, status, evidence, cost })),
  );
  for (const [id, reading] of Object.entries(judged.readings)) {
    const other = line!.readings[id]!;
    if (isAbsent(reading)) expect(other.value, id).toBeUndefined();
    else expect(other, id).toMatchObject({ value: reading.value, source: reading.source });
  }
  expect(analyzeClipFile(text)).toMatchObject({ strikes: [{ strike: strikeId }, {}] });
  const again = readClipFile(text);
  expect(analyzeClip(again.clip, again.clip.document.strikes[0]!, again.library)).toEqual(judged);

  // The card: the number that judged, its sentence, where it comes from.
  const [fault] = judged.findings.filter(({ status }) => status === 'found');
  await acceptFinding(gym.db, strikeId, fault!.fault, true);
  const card = (await cardOf(gym.db, who))!;
  expect(card.cues[0]!.cue.evidence).toBe(fault!.evidence);
});
