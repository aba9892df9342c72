/** What is told of films as one phone takes them, held to their truth: the part of docs/accuracy.md about them. */
import { CAMERA_PLACES } from '@sinew/core/foundation/technique/views';
import { isPresent } from '@sinew/core/foundation/reading/reading';
import type { MeasureId } from '@sinew/core/measure/measures/allMeasures';
import { PHONE_FILMS } from './phoneFilms';
import { readPhoneFilm, type PhoneRead } from './phoneRead';
import { isSearched, searchedIn } from './phoneSearches';
import { quantile, table } from './table';

const DEGREE = Math.PI / 180;
const WORN = ['printed', 'tape', undefined] as const;
const NAMES = { printed: 'printed bands', tape: 'tape', nothing: 'nothing' } as const;
const nameOf = (worn: (typeof WORN)[number]) => NAMES[worn ?? 'nothing'];

interface Miss {
  readonly miss: number;
  readonly sigma: number;
}

/** "2.1 / 7.9 (96, 10)": median, 95th percentile, or the only one; per cent within ±, per cent not told. */
function cell(found: readonly (Miss | null)[], by: number): string {
  const known = found.filter((one) => one !== null);
  const share = (count: number, of: number) => ((100 * count) / of).toFixed(0);
  if (known.length === 0) return 'not told';
  const sizes = known.map(({ miss }) => by * Math.abs(miss));
  const covered = known.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma).length;
  const shown = sizes.length === 1 ? [0.5] : [0.5, 0.95];
  return (
    `${shown.map((at) => quantile(sizes, at).toFixed(1)).join(' / ')} ` +
    `(${share(covered, known.length)}, ${share(found.length - known.length, found.length)})`
  );
}

const start =
  (link: 'hips' | 'trunk') =>
  ({ told, truth, film }: PhoneRead): Miss | null => {
    const [mark, time] = [told.events[link], truth.times[link]];
    if (!mark || time === undefined) return null;
    return { miss: mark.time + film.starts - time, sigma: mark.sigma };
  };

/** The start of the drive is held against that of the hips, which it is not but lies near. */
function drive({ told, truth, film }: PhoneRead): Miss | null {
  const mark = told.events.drive;
  return mark ? { miss: mark.time + film.starts - truth.times.hips!, sigma: mark.sigma } : null;
}

const value =
  (id: MeasureId) =>
  ({ told, exact }: PhoneRead): Miss | null => {
    const [found, truth] = [told.readings[id], exact.readings[id]];
    if (!isPresent(found) || !isPresent(truth)) return null;
    return { miss: found.value - truth.value, sigma: found.sigma };
  };

/** A lead of so much or more is one, seconds; asked one-sided at 95 %. */
const ENOUGH = 0.02;

/** "5 of 8, 5 right": decided, of all. */
function decided(films: readonly PhoneRead[]): string {
  const asked = films.flatMap(({ told, truth }) => {
    const { hips, trunk } = truth.times;
    if (hips === undefined || trunk === undefined) return [];
    const lead = told.readings['lead.hipsTrunk'];
    return [{ lead, isEnough: trunk - hips >= ENOUGH }];
  });
  const sure = asked.filter(
    ({ lead }) => isPresent(lead) && Math.abs(lead.value - ENOUGH) > 1.645 * lead.sigma,
  );
  const right = sure.filter(
    ({ lead, isEnough }) => isPresent(lead) && lead.value > ENOUGH === isEnough,
  );
  return `${sure.length} of ${asked.length}, ${right.length} right`;
}

const HEADS = [
  'start of hips, ms',
  'start of trunk, ms',
  'lead, ms',
  'separation, °',
  'turn of pelvis, °',
  'turn of trunk, °',
  'drive, ms',
  '20 ms or more?',
];

const cells = (films: readonly PhoneRead[]) => [
  cell(films.map(start('hips')), 1000),
  cell(films.map(start('trunk')), 1000),
  cell(films.map(value('lead.hipsTrunk')), 1000),
  cell(films.map(value('separation.max')), 1 / DEGREE),
  cell(films.map(value('turn.pelvis')), 1 / DEGREE),
  cell(films.map(value('turn.trunk')), 1 / DEGREE),
  cell(films.map(drive), 1000),
  decided(films),
];

/** Leaks held against the films: how many are decided, and what of that the exact body says, too. */
function checks(films: readonly PhoneRead[]): string[] {
  const all = films.flatMap(({ told, exact }) =>
    told.findings.map((finding) => ({
      finding,
      truth: exact.findings.find(({ fault }) => fault === finding.fault)?.status,
    })),
  );
  const open = all.filter(({ finding }) => finding.status === 'cant-tell');
  const decidedBoth = all.filter(
    ({ finding, truth }) =>
      finding.status !== 'cant-tell' && (truth === 'found' || truth === 'clear'),
  );
  const of = (said: string, truth: string) =>
    decidedBoth.filter((one) => one.finding.status === said && one.truth === truth).length;
  const share = (count: number) => `${((100 * count) / all.length).toFixed(0)} %`;
  return [
    String(films.length),
    String(all.length),
    share(all.length - open.length),
    share(of('found', 'found') + of('clear', 'clear')),
    String(of('found', 'found')),
    `${of('found', 'clear')} (${((100 * of('found', 'clear')) / all.length).toFixed(2)} %)`,
    String(of('clear', 'found')),
  ];
}

export function filmSection(): string {
  const films = PHONE_FILMS.filter(isSearched).map((film) => readPhoneFilm(film, searchedIn(film)));
  const wearing = (worn: (typeof WORN)[number]) =>
    films.filter(({ film }) => film.look.bands === worn);
  const rows = (of: (film: PhoneRead) => boolean, worn: (typeof WORN)[number], head: string[]) => {
    const own = wearing(worn).filter(of);
    return own.length === 0 ? [] : [[...head, String(own.length), ...cells(own)]];
  };
  return `## One phone, ninety-six films

Films of smooth bodies in clothes that fold, before the walls of a boathouse: shutter open for a quarter of each frame, H.264 at CRF 21 to 28, 3.2 to 4 m off, 0.9 to 1.4 m high, gone through by the app's own tracker and band reader (\`npm run films -w demo\` makes them and keeps what is found). ${films.length} of ${PHONE_FILMS.length} have been searched, the first ones of an order in which all is mixed. Eight places; printed bands, tape or nothing; cross, hooks, uppercut, round elbow, round kick; leads of hips before trunk of 0 to 60 ms; three families of bodies, four people, both stances. Contact is told on its frame. Median / 95th percentile of the error's size (per cent within ±, per cent not told). Starts are held against the made-up truth, the rest against what the exact body reads.

${table(
  ['worn', 'a second', 'films', ...HEADS],
  WORN.flatMap((worn) =>
    [120, 240].flatMap((rate) =>
      rows(({ film }) => film.rate === rate, worn, [nameOf(worn), String(rate)]),
    ),
  ),
)}

By place, degrees:

${table(
  ['worn', 'place', 'films', ...HEADS],
  WORN.flatMap((worn) =>
    CAMERA_PLACES.flatMap(({ azimuth }) =>
      rows(({ film }) => film.azimuth === azimuth, worn, [
        nameOf(worn),
        (azimuth / DEGREE).toFixed(0),
      ]),
    ),
  ),
)}

By technique:

${table(
  ['worn', 'technique', 'films', ...HEADS],
  WORN.flatMap((worn) =>
    [...new Set(films.map(({ film }) => film.recipe.technique))].flatMap((technique) =>
      rows(({ film }) => film.recipe.technique === technique, worn, [nameOf(worn), technique]),
    ),
  ),
)}

What the judge decides of these films, and whether the exact body says the same:

${table(
  ['worn', 'films', 'checks', 'decided', 'decided and right', 'found', 'made up', 'missed'],
  WORN.filter((worn) => wearing(worn).length > 0).map((worn) => [
    nameOf(worn),
    ...checks(wearing(worn)),
  ]),
)}
`;
}
