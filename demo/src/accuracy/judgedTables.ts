/** The part of docs/accuracy.md about the judge. */
import {
  cleanJudged,
  EXACT,
  FLAT,
  MOVED,
  faultsJudged,
  SPACE,
  type CleanSaid,
  type Said,
} from '@sinew/fighters/trials/judged';
import { STRENGTHS } from '@sinew/fighters/fighter/faults';
import { table } from './table';

const percent = (part: number, whole: number) =>
  whole === 0 ? '' : `${((100 * part) / whole).toFixed(0)} %`;

/** "found / missed / can't tell", per cent of those that are judged, and how many there were. */
function counts(said: readonly Said[]): string[] {
  const judged = said.filter(({ outcome }) => outcome !== null);
  const of = (outcome: Said['outcome']) => judged.filter((one) => one.outcome === outcome).length;
  return [
    percent(of('found'), judged.length),
    percent(of('clear'), judged.length),
    percent(of('cant-tell'), judged.length),
    String(judged.length),
  ];
}

const madeUp = (all: readonly (Said | CleanSaid)[]) =>
  all.reduce((n, { made }) => n + made.length, 0);

/** Which faults were found where they were not, the commonest first. */
function madeNames(all: readonly (Said | CleanSaid)[]): string {
  const count = new Map<string, number>();
  for (const { made } of all) for (const one of made) count.set(one, (count.get(one) ?? 0) + 1);
  const sorted = [...count].sort((a, b) => b[1] - a[1]).slice(0, 5);
  return sorted.map(([fault, n]) => `${fault} ${n}`).join(', ') || 'none';
}

/** How often each leak is thrown for the table leak by leak. */
const DRAWS = 4;

export function judgedSection(): string {
  const space = [...SPACE, EXACT].map((filming) => ({
    filming,
    said: faultsJudged(filming, STRENGTHS),
    clean: cleanJudged(filming, [1, 2, 3, 4]),
  }));
  const often = SPACE.filter(({ rate }) => rate === 240).map((filming) => ({
    filming,
    said: faultsJudged(filming, ['clear'], undefined, DRAWS),
  }));
  const flat = FLAT.map((filming) => ({
    filming,
    said: faultsJudged(filming, ['clear']),
    clean: cleanJudged(filming, [1, 2]),
  }));
  const moved = MOVED.map((filming) => ({
    filming,
    said: faultsJudged(filming, ['clear']),
    clean: cleanJudged(filming, [1, 2, 3]),
  }));
  const all = [...space, ...moved, ...flat];
  const best = space.find(({ filming }) => filming.rate === 240 && filming.isMarked)!;
  const faults = [...new Set(best.said.map(({ fault }) => fault))];
  const checks = (clean: readonly CleanSaid[]) => clean.reduce((n, { judged }) => n + judged, 0);
  return [
    '## The judge',
    '',
    'Fighters with one leak put in on purpose, just beyond its limit, clearly, and grossly, in every technique that can have it, orthodox and southpaw by turns, elbows and kicks with rear and lead side (`npm run accuracy`). Noise 2 mm on every coordinate. Per cent of the leaks that are judged in that film; a leak that a school or a technique does not have is not counted. *Made up*: leaks found beside the one put in and those it brings with it (`fighters/src/fighter/faults.ts` says which). *Bodies with flaws*: the families of the section on families, with noise that hangs together for 5 ms, jumps and gaps; the driven ones truly brake in stepping and chambered straights and in elbows (0.75 to 0.91 of their top speed is left at contact, limit 0.9), which counts as made up.',
    '',
    table(
      ['film', 'strength', 'found', 'missed', 'can’t tell', 'leaks', 'made up', 'which'],
      all.flatMap(({ filming, said }) =>
        STRENGTHS.flatMap((strength) => {
          const own = said.filter((one) => one.strength === strength);
          if (own.length === 0) return [];
          return [[filming.name, strength, ...counts(own), String(madeUp(own)), madeNames(own)]];
        }),
      ),
    ),
    '',
    'Clean fighters of every technique: each leak judged is one check.',
    '',
    table(
      ['film', 'strikes', 'checks', 'told', 'made up', 'strikes with one', 'which'],
      all.map(({ filming, clean }) => {
        const told = clean.reduce((n, one) => n + one.told, 0);
        const wrong = clean.filter(({ made }) => made.length > 0).length;
        return [
          filming.name,
          String(clean.length),
          String(checks(clean)),
          percent(told, checks(clean)),
          `${madeUp(clean)} (${((100 * madeUp(clean)) / checks(clean)).toFixed(2)} %)`,
          percent(wrong, clean.length),
          madeNames(clean),
        ];
      }),
    ),
    '',
    `Leak by leak, ${best.filming.name}, all strengths; then clearly put in, in ${DRAWS} draws of the noise, with instants marked and with contact only; then by single views (“–”: that view never tells).`,
    '',
    table(
      [
        'leak',
        ...STRENGTHS.map((s) => `${s}: found of`),
        ...often.map(({ filming }) => (filming.isMarked ? 'draws, marked' : 'draws, contact only')),
        ...flat.map(({ filming }) => filming.view),
      ],
      faults.map((fault) => {
        const of = (said: readonly Said[]) => {
          const judged = said.filter((one) => one.fault === fault && one.outcome !== null);
          const hits = judged.filter(({ outcome }) => outcome === 'found').length;
          return {
            hits,
            judged: judged.length,
            open: judged.filter((o) => o.outcome === 'cant-tell').length,
          };
        };
        return [
          fault,
          ...STRENGTHS.map((strength) => {
            const { hits, judged } = of(best.said.filter((one) => one.strength === strength));
            return `${hits} of ${judged}`;
          }),
          ...often.map(({ said }) => {
            const { hits, judged } = of(said);
            return `${hits} of ${judged}`;
          }),
          ...flat.map(({ said }) => {
            const { hits, judged, open } = of(said);
            return open === judged ? '–' : `${hits} of ${judged}`;
          }),
        ];
      }),
    ),
    '',
  ].join('\n');
}
