/**
 * Fills an empty data folder with the made-up gym: the boathouse of a rowing club in the harbour
 * town of Wrayholm, where a striking class trains between the racks. Run by `npm run demo`.
 */
import { createReadStream, existsSync, readdirSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { ClipFiles } from '@sinew/web/data/film/clipFiles';
import { loadBench, saveBench } from '@sinew/web/data/bench/bench';
import { addClip } from '@sinew/web/data/clip/clips';
import { openDatabase } from '@sinew/web/data/database/database';
import { dataFolder } from '@sinew/web/data/database/dataFolder';
import type { Db } from '@sinew/web/data/database/db';
import { hold, holderInWords } from '@sinew/web/data/database/hold';
import { DatabaseProblem } from '@sinew/web/data/database/databaseProblem';
import { acceptFinding } from '@sinew/web/data/finding/findings';
import { createGym } from '@sinew/web/data/gym/gym';
import type { ClipDocument, Purpose } from '@sinew/core/analysis/clipDocument';
import { addDetections, changeJob } from '@sinew/web/data/clip/trackings';
import { joinClips } from '@sinew/web/data/clip/viewPairs';
import { girthsAt } from '@sinew/fighters/film/wornBands';
import {
  addStudent,
  recordConsent,
  setBands,
  type StudentInput,
} from '@sinew/web/data/student/students';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { seedPast } from './past';
import { DEMO_TAKE, DEMO_TAKES, type DemoTake, type TakeFilm } from '@sinew/fighters/film/takes';
import { eventFrames, matSeen, offsetOf, placedIn } from '@sinew/fighters/film/takeTruth';
import { bandsIn, detectionsIn, surveyIn } from './tracked';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { keepBandTurns } from '@sinew/web/data/clip/bandTurns';
import { keepSurvey } from '@sinew/web/data/clip/surveys';
import { takeFoundStrikes } from '@sinew/web/data/clip/takeFoundStrikes';

interface DemoStudent extends Pick<StudentInput, 'name' | 'grade'> {
  readonly stance?: StudentInput['stance'];
  readonly age: number;
  readonly monthsOfTraining: number;
  readonly heightCm: number;
  readonly massKg: number;
  readonly injuries?: string;
  readonly classGroup?: string;
  /** Who consented to filming; nobody yet when missing. A guardian's makes a minor. */
  readonly consent?: { readonly guardian: string } | 'own';
}

const STUDENTS: readonly DemoStudent[] = [
  {
    name: 'Maren Voss',
    age: 24,
    grade: 'beginner',
    monthsOfTraining: 4,
    heightCm: 172,
    massKg: 64,
    consent: 'own',
  },
  {
    name: 'Tobiah Renn',
    age: 31,
    grade: 'second class',
    monthsOfTraining: 26,
    heightCm: 178,
    massKg: 77,
    consent: 'own',
  },
  {
    name: 'Ilse Kaar',
    age: 14,
    grade: 'beginner',
    monthsOfTraining: 1.7,
    heightCm: 161,
    massKg: 52,
    classGroup: 'Juniors',
    consent: { guardian: 'Hedda Kaar' },
  },
  {
    name: 'Dov Hallam',
    age: 42,
    grade: 'first class',
    monthsOfTraining: 61,
    heightCm: 184,
    massKg: 88,
    injuries: 'Right wrist broken two years ago: no hard bag work without a word first.',
  },
  {
    name: 'Perrin Oake',
    age: 22,
    grade: 'third class',
    stance: 'orthodox',
    monthsOfTraining: 13,
    heightCm: 181,
    massKg: 74,
    consent: 'own',
  },
  {
    name: 'Sunniva Lund',
    age: 19,
    grade: 'beginner',
    stance: 'southpaw',
    monthsOfTraining: 8,
    heightCm: 169,
    massKg: 60,
    consent: 'own',
  },
  {
    name: DEMO_TAKE.student,
    age: 27,
    grade: 'second class',
    monthsOfTraining: 18,
    heightCm: 176,
    massKg: 68,
    consent: 'own',
  },
];

/** Films already marked by the made-up coach, and the fault whose cue was given. */
const WORKED: Readonly<Record<string, string | null>> = {
  'cross-all-at-once.mp4': 'all-at-once',
  'cross-in-order.mp4': null,
  'lead-hook-slap.mp4': 'slap',
};

const day = (monthsAgo: number) =>
  new Date(Date.now() - monthsAgo * 30.44 * 86_400_000).toISOString().slice(0, 10);

async function seedStudents(db: Db): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const { age, monthsOfTraining, consent, ...student } of STUDENTS) {
    const isMinor = typeof consent === 'object';
    const id = await addStudent(db, {
      stance: 'orthodox',
      injuries: '',
      classGroup: 'Tuesday',
      ...student,
      startedOn: day(monthsOfTraining),
      // Half a year past the birthday.
      bornOn: day(12 * age + 6),
    });
    if (consent) {
      await recordConsent(db, id, {
        givenBy: isMinor ? 'guardian' : 'student',
        name: isMinor ? consent.guardian : student.name,
        givenOn: day(Math.min(monthsOfTraining, 3)),
      });
    }
    const banded = DEMO_CLIPS.find((clip) => clip.look.bands && clip.student === student.name);
    if (banded?.look.bands) {
      const { hips, ribs } = girthsAt(banded.recipe.height);
      await setBands(db, id, {
        kind: banded.look.bands,
        hipsCm: 100 * hips,
        ribsCm: 100 * ribs,
        seam: 'front',
      });
    }
    ids.set(student.name, id);
  }
  return ids;
}

async function addFilm(
  db: Db,
  files: ClipFiles,
  studentId: string,
  file: string,
  view: View,
  purpose: Purpose | null,
): Promise<string> {
  const path = fileURLToPath(new URL(`../../clips/${file}`, import.meta.url));
  const { id } = await addClip(db, files, {
    studentId,
    fileName: file,
    view,
    captureRate: null,
    purpose,
    stream: Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>,
    announced: (await stat(path)).size,
  });
  return id;
}

/** A take from two sides: marked by the made-up coach, or found by the program and not confirmed. */
async function seedTake(
  db: Db,
  files: ClipFiles,
  studentId: string,
  take: DemoTake,
): Promise<void> {
  const ids: string[] = [];
  for (const [index, film] of take.films.entries()) {
    const view = index === 0 ? 'side' : 'front';
    const purpose: Purpose = { technique: take.technique, question: 'order' };
    const id = await addFilm(db, files, studentId, film.file, view, purpose);
    ids.push(id);
    const { corners, ...mat } = matSeen(take, film);
    const saved = (await loadBench(db, id))!;
    await saveBench(db, id, {
      revision: saved.revision,
      document: {
        ...saved.document,
        rectangle: { ...mat, corners: [...corners] },
        ...(take.marked === undefined ? foundIn(take, film) : markedIn(take, film, take.marked)),
      },
    });
    await seedDetections(db, id, film.file);
  }
  const [first, second] = ids as [string, string];
  await joinClips(db, first, second, offsetOf(take));
}

type Worked = Pick<ClipDocument, 'placed' | 'strikes'>;

const strikeId = (file: string) => `demo-${file.replace(/\W/g, '-')}`;

/** Every strike with its points, one with all its instants; the others are left for the coach to take. */
function markedIn(take: DemoTake, film: TakeFilm, marked: number): Worked {
  const frames = eventFrames(take, film, marked);
  const wanted = new Set<number>();
  for (const [index] of take.strikes.entries()) {
    const { ready, home } = eventFrames(take, film, index);
    for (let frame = Math.max(0, ready); frame < home; frame += 2) wanted.add(frame);
    wanted.add(home);
  }
  const inOrder = [...wanted].sort((a, b) => a - b);
  return {
    placed: placedIn(take, film, inOrder),
    strikes: [
      {
        id: strikeId(film.file),
        technique: take.technique,
        side: 'right',
        span: { from: frames.ready, to: frames.home },
        marks: Object.fromEntries(
          Object.entries(frames).map(([event, frame]) => [event, { frame, width: 1 }]),
        ),
      },
    ],
  };
}

/** What the program finds by itself: the strike, its contact as it is heard. */
function foundIn(take: DemoTake, film: TakeFilm): Worked {
  const { contact } = eventFrames(take, film, 0);
  return {
    placed: [],
    strikes: [
      {
        id: strikeId(film.file),
        technique: take.technique,
        side: 'right',
        isAutomatic: true,
        marks: { contact: { frame: contact, width: 3 } },
      },
    ],
  };
}

async function seedDetections(db: Db, clipId: string, file: string): Promise<void> {
  const detections = detectionsIn(file);
  if (!detections) return;
  await changeJob(db, clipId, { kind: 'start', model: 'standard', person: null });
  await addDetections(db, clipId, detections);
  await keepSurvey(db, clipId, surveyIn(file));
  const bands = bandsIn(file);
  if (bands) await keepBandTurns(db, clipId, bands);
  await changeJob(db, clipId, { kind: 'finish', state: 'done', message: null });
}

async function seedClip(
  db: Db,
  files: ClipFiles,
  studentId: string,
  clip: (typeof DEMO_CLIPS)[number],
): Promise<void> {
  const { technique } = clip.recipe;
  const purpose = detectionsIn(clip.file) && { technique, question: null };
  const id = await addFilm(db, files, studentId, clip.file, clip.view, purpose);
  await seedDetections(db, id, clip.file);
  await takeFoundStrikes(db, id);
  const fault = WORKED[clip.file];
  if (fault === undefined) return;
  const truth = truthOf(clip);
  const strike = strikeId(clip.file);
  const saved = await loadBench(db, id);
  await saveBench(db, id, {
    revision: saved!.revision,
    document: {
      ...saved!.document,
      intent: 'tempo',
      scale: truth.calibration.scale,
      target: truth.calibration.target,
      placed: truth.placed(4),
      strikes: [
        {
          id: strike,
          technique: truth.strike.technique.id,
          side: truth.strike.side,
          marks: Object.fromEntries(
            Object.entries(truth.frames).map(([event, frame]) => [event, { frame, width: 1 }]),
          ),
        },
      ],
    },
  });
  if (fault === null) return;
  const outcome = await acceptFinding(db, strike, fault, false);
  if (outcome.kind !== 'accepted') throw new Error(`${fault} does not show in ${clip.file}`);
}

/** Set back the day on which a clip was filmed. */
async function filmedBefore(db: Db, file: string, daysAgo: number): Promise<void> {
  const created_at = new Date(Date.now() - daysAgo * 86_400_000).toISOString();
  await db.updateTable('clip').set({ created_at }).where('file_name', '=', file).execute();
  await db
    .updateTable('finding')
    .set({ created_at })
    .where('strike_id', '=', strikeId(file))
    .execute();
}

async function seedGym(db: Db, folder: string): Promise<void> {
  await createGym(db, 'Wrayholm Boathouse', 'Tuesday class');
  const files = new ClipFiles(folder);
  const ids = await seedStudents(db);
  for (const clip of DEMO_CLIPS) await seedClip(db, files, ids.get(clip.student)!, clip);
  for (const take of DEMO_TAKES) await seedTake(db, files, ids.get(take.student)!, take);
  await filmedBefore(db, 'cross-all-at-once.mp4', 16);
  await filmedBefore(db, 'cross-in-order.mp4', 0.1);
  await seedPast(db, ids);
  const count = DEMO_CLIPS.length + DEMO_TAKES.flatMap(({ films }) => films).length;
  console.log(`Seeded ${ids.size} students and ${count} clips in ${folder}.`);
}

const folder = dataFolder();
const held = await hold(folder, { pid: process.pid, address: null });
if (!held.isHeld) {
  console.error(`The gym in ${folder} is open already, in ${holderInWords(held.by)}.`);
  process.exit(1);
}
try {
  const db = await openDatabase(folder);
  const hasStudents = await db.selectFrom('student').select('id').executeTakeFirst();
  const hasFilms =
    existsSync(join(folder, 'clips')) && readdirSync(join(folder, 'clips')).length > 0;
  if (hasStudents) console.log(`The gym in ${folder} has students already; nothing was changed.`);
  else if (hasFilms) console.log(`There are films in ${folder} already; nothing was changed.`);
  else await seedGym(db, folder);
  await db.destroy();
} catch (error) {
  if (!(error instanceof DatabaseProblem)) throw error;
  // The app says what is wrong and what to do.
  console.log(error.message);
}
