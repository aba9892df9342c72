/**
 * Writes docs/accuracy.md: what is reached on made-up strikes whose truth is known, as numbers and as
 * rendered films. Takes three quarters of an hour:  npm run accuracy
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { analyze } from '@sinew/core/analysis/analyze';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { bandSection } from './bandTables';
import { captureSection } from './captureTables';
import { costSection } from './costTables';
import { familySection } from './familyTables';
import { filmSection } from './filmTables';
import { judgedSection } from './judgedTables';
import { lastingSection } from './lastingTables';
import { trialsOf, type Trial, type Trials } from '@sinew/fighters/trials/measured';
import { phoneSection } from './phoneTables';
import { pictureSection } from './pictureTables';
import { quantile, table } from './table';
import { trackedSection } from './trackedTables';

const TECHNIQUES = Object.keys(FORMS) as TechniqueId[];
const RATES = [60, 120, 240];
const NOISES = [0, 0.002, 0.005];
const SEEDS = [1, 2, 3, 4];

interface Column {
  readonly name: string;
  readonly of: readonly string[];
  readonly shown: (trial: Trial) => number;
  readonly digits: number;
}

const ms = ({ error }: Trial) => 1000 * Math.abs(error);
const degrees = ({ error }: Trial) => (180 / Math.PI) * Math.abs(error);
const COLUMNS: readonly Column[] = [
  { name: 'starts, ms', of: ['hips', 'trunk', 'arm'], shown: ms, digits: 1 },
  { name: 'lead, ms', of: ['lead'], shown: ms, digits: 1 },
  { name: 'load, ms', of: ['load'], shown: ms, digits: 0 },
  { name: 'separation, °', of: ['separation.max', 'separation.growth'], shown: degrees, digits: 1 },
  { name: 'turns, °', of: ['turn.pelvis', 'turn.trunk'], shown: degrees, digits: 1 },
  {
    name: 'speed, %',
    of: ['speed.contact'],
    shown: ({ error, truth }) => 100 * Math.abs(error / truth),
    digits: 1,
  },
  { name: 'sink, cm', of: ['sink'], shown: ({ error }) => 100 * Math.abs(error), digits: 2 },
  { name: 'reach, %', of: ['reach'], shown: ({ error }) => 100 * Math.abs(error), digits: 1 },
  { name: 'contact, ms', of: ['contact'], shown: ms, digits: 1 },
  { name: 'end, ms', of: ['end'], shown: ms, digits: 0 },
  { name: 'home, ms', of: ['home'], shown: ms, digits: 0 },
];

/** "2.1 / 7.9 (96)": median, 95th percentile, and the share covered by ±, per cent. */
function cell({ of, shown, digits }: Column, trials: readonly Trial[]): string {
  const own = trials.filter((trial) => of.includes(trial.what));
  if (own.length === 0) return '';
  const sizes = own.map(shown);
  const covered = (100 * own.filter((trial) => trial.isCovered).length) / own.length;
  const number = (value: number) => value.toFixed(digits);
  return `${number(quantile(sizes, 0.5))} / ${number(quantile(sizes, 0.95))} (${covered.toFixed(0)})`;
}

function bySetting(all: readonly Trials[], columns: readonly Column[]): string {
  return table(
    ['frames a second', 'noise, mm', ...columns.map(({ name }) => name)],
    all.map(({ setting, trials }) => [
      String(setting.rate),
      String(1000 * setting.noise),
      ...columns.map((column) => cell(column, trials)),
    ]),
  );
}

function byTechnique({ trials }: Trials, columns: readonly Column[]): string {
  return table(
    ['technique', ...columns.map(({ name }) => name)],
    TECHNIQUES.map((technique) => [
      technique,
      ...columns.map((column) =>
        cell(
          column,
          trials.filter((trial) => trial.technique === technique),
        ),
      ),
    ]),
  );
}

/** The aims at 240 frames a second and 2 mm, and how often each is met. */
function againstAims({ trials }: Trials): string {
  const aims: readonly (readonly [string, readonly string[], (trial: Trial) => number, number])[] =
    [
      ['starts within 8 ms', ['hips', 'trunk', 'arm'], ms, 8],
      ['lead of hips before trunk within 8 ms', ['lead'], ms, 8],
      ['separation within 3°', ['separation.max', 'separation.growth'], degrees, 3],
      [
        'speed at contact within 4 %',
        ['speed.contact'],
        ({ error, truth }) => 100 * Math.abs(error / truth),
        4,
      ],
    ];
  return table(
    ['aim', 'met in'],
    aims.map(([name, of, size, limit]) => {
      const own = trials.filter(({ what }) => of.includes(what));
      const met = own.filter((trial) => size(trial) <= limit).length;
      return [name, `${((100 * met) / own.length).toFixed(0)} % of ${own.length}`];
    }),
  );
}

/** σ to first order against σ by 400 draws, over all readings of a few strikes. */
function drawsAgainstFirstOrder(): string {
  const ratios = (['cross', 'lead-hook', 'rear-uppercut', 'round-kick'] as const).flatMap((id) => {
    const recipe = clean(id);
    const { technique, side } = truthOfStrike(recipe);
    const given = {
      strike: { technique, side },
      track: knownTrack(recipe, { rate: 240, noise: 0.002, seed: 3 }),
      marks: {},
      body: { mass: 70, height: 1.76 },
    };
    const plain = analyze(given).readings;
    const drawn = analyze({ ...given, draws: { count: 400, seed: 11 } }).readings;
    return (Object.keys(plain) as (keyof typeof plain)[]).flatMap((key) => {
      const [a, b] = [plain[key], drawn[key]];
      return isAbsent(a) || isAbsent(b) || a.sigma === 0 ? [] : [b.sigma / a.sigma];
    });
  });
  const near = ratios.filter((ratio) => Math.abs(ratio - 1) < 0.15).length / ratios.length;
  return (
    `Over ${ratios.length} readings of four strikes (240 frames a second, 2 mm) the σ of 400 draws ÷ the σ to first ` +
    `order has its median at ${quantile(ratios, 0.5).toFixed(2)}, half of all lie between ` +
    `${quantile(ratios, 0.25).toFixed(2)} and ${quantile(ratios, 0.75).toFixed(2)}, and ${(100 * near).toFixed(0)} % within 15 % of 1.`
  );
}

function settings(isContactKnown: boolean): Trials[] {
  return RATES.flatMap((rate) =>
    NOISES.map((noise) => {
      const found = trialsOf(TECHNIQUES, { rate, noise, isContactKnown }, SEEDS);
      console.error(`${rate} a second, ${1000 * noise} mm: ${found.trials.length} numbers`);
      return found;
    }),
  );
}

const usual = (all: readonly Trials[]) =>
  all.find(({ setting }) => setting.rate === 240 && setting.noise === 0.002)!;
const missed = (all: readonly Trials[]) => {
  const lacks = all.flatMap((one) => one.missed).length;
  const whole = all.reduce((sum, one) => sum + one.trials.length, 0) + lacks;
  return `${lacks} of ${whole} numbers were absent`;
};
const withoutContact = COLUMNS.filter(({ name }) => !name.startsWith('contact'));

const PAGE = fileURLToPath(new URL('../../../docs/accuracy.md', import.meta.url));

const head = `# Accuracy

Made-up strikes whose truth is known to rounding (\`fighters/src/fighter/truth.ts\`: no filter, no fit, none of the code under test), sampled at a frame rate with normal noise on every coordinate, measured by the core. All ${TECHNIQUES.length} techniques, both stances, ${SEEDS.length} seeds each unless said otherwise. \`npm run accuracy\` writes this page; with names of parts (\`strikes\`, \`families\`, \`pictures\`, \`phone\`, \`bands\`, \`films\`, \`capture\`, \`judge\`, \`costs\`, \`times\`, \`tracked\`) it writes those anew and leaves the others.

Each cell: median of the error's size / its 95th percentile (share of cases in which the truth lies within ±, per cent; 95 is what ± promises). Starts are those of hips, trunk and arm together (pelvis, thigh and shank in kicks). These are three-dimensional tracks, as two cameras give them; what one picture shows is less, and says so.
`;

function strikesSection(): string {
  const told = settings(true);
  const alone = settings(false);
  return `## Contact told, the rest found

Independent noise from frame to frame. Contact is marked on its frame, as a coach or a microphone does. ${missed(told)}.

${bySetting(told, withoutContact)}

## Nothing told

Contact too is found, from the way the striking end loses its speed. A strike that goes *through* its target (elbows here take 50 ms to stop) does not show to the frame where it met it: mark contact there. ${missed(alone)}.

${bySetting(alone, COLUMNS)}

## Against the aims

Contact told, 240 frames a second, 2 mm:

${againstAims(usual(told))}

Shares add up to the whole speed exactly.

## By technique, contact told, 240 frames a second, 2 mm

${byTechnique(usual(told), withoutContact)}

## By technique, nothing told, 240 frames a second, 2 mm

${byTechnique(usual(alone), COLUMNS)}

## First order against draws

${drawsAgainstFirstOrder()}
`;
}

/** Parts of the page, each with how it begins; what is between two beginnings belongs to the first. */
const PARTS: readonly {
  readonly id: string;
  readonly begins: string;
  readonly write: () => string | Promise<string>;
}[] = [
  { id: 'strikes', begins: '## Contact told, the rest found', write: strikesSection },
  { id: 'families', begins: '## Families of bodies', write: familySection },
  { id: 'pictures', begins: '## What one picture shows', write: pictureSection },
  { id: 'phone', begins: '## One phone, nothing worn', write: phoneSection },
  { id: 'bands', begins: '## Worn bands, one film', write: bandSection },
  { id: 'films', begins: '## One phone, ninety-six films', write: filmSection },
  { id: 'capture', begins: '## Sound, two clocks', write: captureSection },
  { id: 'judge', begins: '## The judge', write: judgedSection },
  { id: 'costs', begins: '## What leaks cost\n', write: costSection },
  { id: 'times', begins: '## What leaks cost in time', write: lastingSection },
  { id: 'tracked', begins: '## Body tracking', write: trackedSection },
  {
    id: 'exact',
    begins: '## Exact by construction',
    write: () => `## Exact by construction

The shares of the links add up to the speed of the striking end to rounding, and a southpaw strike reads as its orthodox mirror image to 9 decimals; tests hold both (\`core/test/chain.test.ts\`, \`core/test/known.test.ts\`).
`,
  },
];

const page = readFileSync(PAGE, 'utf8');
const kept = (begins: string) => {
  const from = page.indexOf(begins);
  if (from < 0) return '';
  const ends = PARTS.map((part) => page.indexOf(part.begins, from + 1)).filter((at) => at > from);
  return page.slice(from, Math.min(...ends, page.length)).trim();
};
const wanted = process.argv.slice(2);
const unknown = wanted.find((id) => !PARTS.some((part) => part.id === id));
if (unknown) throw new Error(`no part “${unknown}”: ${PARTS.map(({ id }) => id).join(', ')}`);
const written: string[] = [head];
for (const { id, begins, write } of PARTS) {
  const isAnew = wanted.length === 0 || wanted.includes(id);
  written.push((isAnew ? await write() : kept(begins)).trim());
}
writeFileSync(PAGE, `${written.filter(Boolean).join('\n\n')}\n`);
