/** The body tracker on rendered films whose truth is known: for docs/accuracy.md. */
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { scratchFolder } from '../scratch';
import { analyze, type Analysis } from '@sinew/core/analysis/analyze';
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { joinViews } from '@sinew/core/reconstruct/calibration/twoViews';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { knownTimes, mover } from '@sinew/fighters/fighter/pose';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { DEMO_TAKES, type DemoTake } from '@sinew/fighters/film/takes';
import { eventFrames, matSeen } from '@sinew/fighters/film/takeTruth';
import { detectionsIn } from '../gym/tracked';
import { project } from '@sinew/fighters/film/camera';
import { filmMaker } from '../render/film';
import { heldAgainst, type Trial } from '@sinew/fighters/trials/measured';
import { quantile, table } from './table';
import { readFilm, tracked } from './oneFilm';
import { searchOf } from './searches';
import { trackerBrowser, type TrackerBrowser } from './tracked';
import { FAULTY_FILMS, TRIED_FILMS, TRIED_RATE, type TriedFilm } from './trackedFilms';

/** Made only when a film has to be gone through. */
interface Makers {
  readonly films: () => ReturnType<typeof filmMaker>;
  readonly browser: () => Promise<TrackerBrowser>;
}

interface Tried {
  readonly film: TriedFilm;
  readonly found: number;
  /** Miss of each tracked point during the strike, pixels; and whether ± holds it, each coordinate. */
  readonly misses: readonly { landmark: Landmark; pixels: number; isCovered: boolean }[];
  readonly stature: number;
  readonly alone: Analysis;
  readonly told: Analysis;
}

/** Renders a film and goes through it. */
async function searched(film: TriedFilm, { films, browser }: Makers) {
  const { recipe, camera, look, view, crf, exposure } = film;
  const path = join(scratchFolder('tracked'), 'film.mp4');
  const times = frameTimesOf(recipe, TRIED_RATE);
  const subject = { file: '', student: '', view, rate: TRIED_RATE, recipe, look, camera };
  const make = await films();
  await make({ path, rate: TRIED_RATE, times, subject, crf, exposure });
  return (await browser()).track(path, film.model);
}

async function tryFilm(film: TriedFilm, makers: Makers): Promise<Tried> {
  const { recipe, camera } = film;
  const detections = await searchOf(film.id, () => searched(film, makers));
  const { times, tracking, alone, told } = readFilm(film, detections);
  const pose = mover(recipe);
  const known = knownTimes(recipe);
  const misses = LANDMARKS.flatMap((landmark) => {
    const points = tracking.track.points[landmark];
    return (points?.frames ?? []).flatMap((frame, i) => {
      const time = times[frame]!;
      if (time < known.load - 0.1 || time > known.home + 0.1) return [];
      const { x, y } = project(camera, pose(time)[landmark]);
      const [dx, dy] = [points!.x[i]! - x, points!.y[i]! - y];
      const spread = 1.96 * Math.hypot(points!.sigma[i]!, points!.bias![i]!);
      const isCovered = Math.abs(dx) <= spread && Math.abs(dy) <= spread;
      return [{ landmark, pixels: Math.hypot(dx, dy), isCovered }];
    });
  });
  return {
    film,
    found: detections.length / times.length,
    misses,
    stature: tracking.stature,
    alone,
    told,
  };
}

/** Pixels of standing height as the film's camera sees it. */
function heightSeen({ camera, recipe }: TriedFilm): number {
  const [foot, top] = [0, recipe.height].map((y) => project(camera, [0, y, 0]).y);
  return foot! - top!;
}

function landmarkTable(all: readonly Tried[]): string {
  return table(
    [
      'film',
      'found',
      'px',
      '% of height',
      'hands and feet, % of height',
      'within ±, %',
      'contact found, ms',
    ],
    all.map((tried) => {
      const { film, misses, found, alone } = tried;
      const height = heightSeen(film);
      const sizes = misses.map(({ pixels }) => pixels);
      const ends = misses
        .filter(({ landmark }) => /Knuckle|Wrist|Toe|Heel|Ankle/.test(landmark))
        .map(({ pixels }) => pixels);
      const share = (list: readonly number[]) =>
        [0.5, 0.95].map((q) => ((100 * quantile(list, q)) / height).toFixed(1)).join(' / ');
      const covered = misses.filter(({ isCovered }) => isCovered).length / misses.length;
      const contact = alone.events.contact;
      return [
        film.name,
        `${(100 * found).toFixed(0)} %`,
        [0.5, 0.95].map((q) => quantile(sizes, q).toFixed(0)).join(' / '),
        share(sizes),
        share(ends),
        (100 * covered).toFixed(0),
        contact
          ? `${(1000 * (contact.time - film.recipe.contact)).toFixed(0)} ± ${(1960 * contact.sigma).toFixed(0)}`
          : 'not found',
      ];
    }),
  );
}

const SAID: readonly (readonly [string, readonly string[], (trial: Trial) => string])[] = [
  ['load, ms', ['load'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['hips, ms', ['hips'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['trunk or thigh, ms', ['trunk'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['arm or shank, ms', ['arm'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['lead of hips, ms', ['lead'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['end, ms', ['end'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['home, ms', ['home'], ({ error }) => (1000 * Math.abs(error)).toFixed(0)],
  ['speed at contact, m/s', ['speed.contact'], ({ error }) => Math.abs(error).toFixed(1)],
  ['fastest, m/s', ['speed.peak'], ({ error }) => Math.abs(error).toFixed(1)],
  [
    'separation, °',
    ['separation.max', 'separation.growth'],
    ({ error }) => ((180 / Math.PI) * Math.abs(error)).toFixed(0),
  ],
  [
    'pelvis turn, °',
    ['turn.pelvis'],
    ({ error }) => ((180 / Math.PI) * Math.abs(error)).toFixed(0),
  ],
  ['trunk turn, °', ['turn.trunk'], ({ error }) => ((180 / Math.PI) * Math.abs(error)).toFixed(0)],
  ['sink, cm', ['sink'], ({ error }) => (100 * Math.abs(error)).toFixed(1)],
  ['reach, %', ['reach'], ({ error }) => (100 * Math.abs(error)).toFixed(0)],
];

interface Group {
  readonly name: string;
  readonly trials: readonly Trial[];
  readonly missed: readonly string[];
}

/** "5 / 13 (4 of 5; 2 absent)": median and largest error, how often within ±, how often absent. */
function readingTable(groups: readonly Group[]): string {
  return table(
    ['number', ...groups.map(({ name }) => name)],
    SAID.map(([name, of, shown]) => [
      name,
      ...groups.map(({ trials, missed }) => {
        const own = trials
          .filter(({ what }) => of.includes(what))
          .sort((a, b) => Math.abs(a.error) - Math.abs(b.error));
        const absent = missed.filter((one) => of.some((what) => one.endsWith(` ${what}`))).length;
        if (own.length === 0) return absent > 0 ? 'absent' : '';
        const covered = own.filter(({ isCovered }) => isCovered).length;
        const sizes = `${shown(own[own.length >> 1]!)} / ${shown(own[own.length - 1]!)}`;
        return `${sizes} (${covered} of ${own.length}${absent > 0 ? `; ${absent} absent` : ''})`;
      }),
    ]),
  );
}

function inOneFilm(all: readonly Tried[]): Group {
  const held = all
    .filter(({ film }) => film.model !== 'quick')
    .map(({ film, told }) =>
      heldAgainst(film.recipe.technique, truthOfStrike(film.recipe), told, true),
    );
  return {
    name: 'one film',
    trials: held.flatMap(({ trials }) => trials),
    missed: held.flatMap(({ missed }) => missed),
  };
}

async function inTwoFilms(take: DemoTake, { browser }: Makers): Promise<Group['trials']> {
  const pictures = await Promise.all(
    take.films.map(async (film, index) => {
      const path = fileURLToPath(new URL(`../../clips/${film.file}`, import.meta.url));
      const count = Math.floor((take.duration - film.starts) * film.rate);
      const times = Array.from({ length: count }, (_, i) => i / film.rate);
      const detections =
        detectionsIn(film.file) ??
        (await searchOf(film.file, async () => (await browser()).track(path, 'standard')));
      return {
        track: tracked(detections, times).track,
        calibration: {
          view: index === 0 ? ('side' as const) : ('front' as const),
          scale: null,
          target: null,
          rectangle: matSeen(take, film),
          size: { width: film.camera.width, height: film.camera.height },
        },
      };
    }),
  );
  const seconds = take.films[0]!.starts - take.films[1]!.starts;
  const offset = { seconds, sigma: 0.001, by: 'sound' as const, pairs: take.strikes.length };
  const { track } = joinViews(pictures[0]!, pictures[1]!, offset);
  return take.strikes.flatMap(({ recipe, at, from }, index) => {
    const truth = truthOfStrike(recipe);
    const { contact } = eventFrames(take, take.films[0]!, index);
    const analysis = analyze({
      strike: { technique: truth.technique, side: truth.side, stance: recipe.stance },
      track,
      marks: { contact: markOnFrame(track.frameTimes, contact) },
      body: { mass: 70, height: 1.76 },
    });
    return heldAgainst(recipe.technique, truth, analysis, true, at - from).trials;
  });
}

function judged(all: readonly Tried[]): string {
  const told = all.map(({ film, told: { findings } }) => ({
    isJammed: film.recipe.reach < 0.8,
    found: findings.filter(({ status }) => status === 'found').map(({ fault }) => fault),
    open: findings.filter(({ status }) => status === 'cant-tell').length,
    clear: findings.filter(({ status }) => status === 'clear').length,
  }));
  const wrong = told.flatMap(({ isJammed, found }) =>
    found.filter((fault) => !(isJammed && fault === 'jammed')),
  );
  const jammed = told.filter(({ isJammed }) => isJammed);
  const hit = jammed.filter(({ found }) => found.includes('jammed')).length;
  const sum = (of: (one: (typeof told)[number]) => number) =>
    told.reduce((total, one) => total + of(one), 0);
  return (
    `With contact told, the judge said of these ${told.length} films: ${wrong.length} leaks that are not there, ` +
    `the jammed cross found in ${hit} of ${jammed.length}, ${sum(({ clear }) => clear)} times “no”, ` +
    `${sum(({ open }) => open)} times “can’t tell”.`
  );
}

export async function trackedSection(): Promise<string> {
  const opened: { films?: ReturnType<Makers['films']>; browser?: Promise<TrackerBrowser> } = {};
  const makers: Makers = {
    films: () => (opened.films ??= filmMaker()),
    browser: () => (opened.browser ??= trackerBrowser()),
  };
  try {
    const all: Tried[] = [];
    for (const tried of TRIED_FILMS) {
      all.push(await tryFilm(tried, makers));
      console.error(`tracked: ${tried.name}`);
    }
    const faulty: Tried[] = [];
    for (const tried of FAULTY_FILMS) faulty.push(await tryFilm(tried, makers));
    const joined: Trial[] = [];
    for (const take of DEMO_TAKES) joined.push(...(await inTwoFilms(take, makers)));
    const groups = [inOneFilm(all), { name: 'two films', trials: joined, missed: [] }];
    return section(all, groups, faulty);
  } finally {
    await (await opened.browser)?.close();
  }
}

/** What is said of the leak that is in a film, and of others. */
function leakTable(faulty: readonly Tried[]): string {
  return table(
    ['leak put in', 'what is said of it', 'others found'],
    faulty.map(({ film, told: { findings } }) => {
      const said = findings.find(({ fault }) => fault === film.id)?.status ?? 'not judged';
      const others = findings.filter(
        ({ status, fault }) => status === 'found' && fault !== film.id,
      );
      return [film.name, said, others.map(({ fault }) => fault).join(', ') || 'none'];
    }),
  );
}

function section(
  all: readonly Tried[],
  groups: readonly Group[],
  faulty: readonly Tried[],
): string {
  return `## Body tracking

Films of a rendered fighter (${TRIED_RATE} frames a second, 720 lines, H.264) gone through by the app's own decoder and tracker, nothing corrected by hand. Each film differs from the first in what its name says. Errors are those of points that the track keeps, from a tenth of a second before the load until the hand is home: median / 95th percentile. “Within ±” is the share of points of which both coordinates lie within their own ±. The bag is of a skin's colour on purpose, and hides the fist when it lands.

${landmarkTable(all)}

What is read off such tracks, contact told: median / largest error (how many lie within ±). One film: level line and scale by the student's height are assumed, as the app does when the coach has set nothing. Two films: the three demo takes, ${DEMO_TAKES.reduce((sum, { strikes }) => sum + strikes.length, 0)} strikes, joined over the mat.

${readingTable(groups)}

${judged(all)}

The usual cross with a leak put clearly into it, from the side, contact told:

${leakTable(faulty)}

What this means:

- **One film is good for** the way of hand and foot, reach where it is far from its limit, lean, levels and feet. It does not show the turn of pelvis and trunk: their starts, the lead of the hips and separation stay open until the coach marks them.
- **Two films** give the starts of trunk, arm, thigh and shank to some 15 ms where both show the body, and the turn of the trunk up to 22° too small. The pelvis is seen by its thighs and clothes and so starts up to 60 ms late: its ± says so, and the lead of the hips is not judged on it. Where the bag hides an arm for most of a film, as in the elbow take, starts went wrong by 0.04 to 0.14 s, and the load of the front kick by 0.3 s, which their ± does not say: look at the strip before you believe it.
- **± of points** keeps its word from the side with standard and fine. With quick and from behind it is somewhat too small (90 % instead of 95), from the front much (79 %).
- **Contact** is told by sound or by the coach. Found from a tracked fist it strays by tens of ms.
- **Speed at contact** is not given by one tracked film: the fist is least surely seen just there. Two frames on which it is placed, or two films, tell it.
- What a model guesses of the body in space from one film (“estimated”) tells how the body stands, least surely along the line of sight, and never when a link starts or how fast it goes: on these fighters its pelvis started up to 120 ms late.
- From above the tracker finds a body in every second frame, and poorly: place points by hand there.
- Rendered fighters are not people. On your own films look at the points.`;
}
