/** The made-up gym's last weeks: what was worked, filmed and tested before today. */
import { createHash, randomUUID } from 'node:crypto';
import { analyze, measure } from '@sinew/core/analysis/analyze';
import { plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import { EVENTS, markOnFrame } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import type { Track } from '@sinew/core/observe/track/track';
import type { Intent } from '@sinew/core/foundation/drill/intent';
import { stamps, type Db } from '@sinew/web/data/database/db';
import { acceptFinding } from '@sinew/web/data/finding/findings';
import { saveSettings } from '@sinew/web/data/gym/gym';
import { USUAL_MANNER } from '@sinew/web/manner/manner';
import { libraryOf } from '@sinew/web/data/gym/library';
import { addNote, addTest } from '@sinew/web/data/progress/ledger';
import { measureStudent } from '@sinew/web/data/finding/measured';
import { packed } from '@sinew/web/data/finding/packedReadings';
import { encodeTimes } from '@sinew/web/data/bench/placedBlob';
import { addItem, planBlock, setDone } from '@sinew/web/data/work/plan';
import { today } from '@sinew/web/data/database/today';
import { prescribe, setNextCheck, workOf } from '@sinew/web/data/work/work';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { formOf, knownTimes } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';

const DAY = 86_400_000;
const RATE = 240;
/** Metres: what a careful hand leaves. */
const NOISE = 0.004;

/** An evening some days ago. */
const evening = (daysAgo: number) =>
  new Date(new Date().setHours(18, 30, 0, 0) - daysAgo * DAY).toISOString();
const ago = (days: number): Day => plusDays(today(), -days);

interface PastSet {
  readonly studentId: string;
  readonly daysAgo: number;
  readonly recipe: Recipe;
  readonly strikes: number;
  /** Two cameras see the whole body in space; one sees it from the side. */
  readonly cameras?: 1 | 2;
  readonly intent: Intent;
  readonly round?: number;
}

/**
 * A set of which only the numbers are left: its film went when the consent of those weeks ended.
 *
 * @returns its first strike
 */
async function pastSet(db: Db, set: PastSet): Promise<string> {
  const { studentId, daysAgo, recipe, strikes, intent, round = null, cameras = 1 } = set;
  const ids = Array.from({ length: strikes }, () => randomUUID());
  const technique = techniqueById(recipe.technique);
  const side = formOf(recipe).striking;
  const clipId = randomUUID();
  const name = `${recipe.technique} ${ago(daysAgo)}${round ? ` round ${round}` : ''}.mp4`;
  const at = { created_at: evening(daysAgo), updated_at: evening(daysAgo) };
  const film = knownPicture(recipe, 'side', { rate: RATE, noise: NOISE, seed: 1 });
  await db
    .insertInto('clip')
    .values({
      id: clipId,
      student_id: studentId,
      file_name: name,
      mime_type: 'video/mp4',
      bytes: 0,
      sha256: createHash('sha256').update(clipId).digest('hex'),
      view: 'side',
      azimuth: null,
      capture_rate: null,
      width: 1280,
      height: 720,
      codec: 'avc',
      frame_times: encodeTimes(film.track.frameTimes),
      scale: null,
      target: null,
      purpose: null,
      rectangle: null,
      lens: null,
      refused: null,
      corrections: null,
      drawings: null,
      note: null,
      intent,
      round,
      deleted_at: null,
      purged_at: evening(0),
      revision: 1,
      ...at,
    })
    .execute();
  for (const [position, id] of ids.entries()) {
    await db
      .insertInto('strike')
      .values({
        id,
        clip_id: clipId,
        technique: technique.id,
        side,
        position,
        from_frame: null,
        to_frame: null,
        combination: null,
        is_automatic: 0,
        school: null,
        situation: null,
        range: null,
        audit: null,
        looks: null,
        note: null,
        removed_at: null,
        marks_left: 0,
        ...at,
      })
      .execute();
    const sampling = {
      rate: RATE,
      noise: NOISE,
      seed: 1000 * daysAgo + 10 * (round ?? 0) + position,
    };
    const { readings, links } = measure(
      cameras === 2
        ? markedAs(recipe, { track: knownTrack(recipe, sampling) })
        : markedAs(recipe, knownPicture(recipe, 'side', sampling)),
    );
    await db
      .insertInto('measured')
      .values({
        strike_id: id,
        stamp: 'numbers only',
        readings: packed(readings),
        // Judged with the student's other strikes.
        rules: '',
        shows: JSON.stringify({ found: [], clear: [] }),
        links: JSON.stringify(
          Object.fromEntries(Object.entries(links).map(([link, { verdict }]) => [link, verdict])),
        ),
        ...at,
      })
      .execute();
  }
  return ids[0]!;
}

/** As a careful coach marks it. */
function markedAs<T extends { readonly track: Track }>(recipe: Recipe, seen: T) {
  const times = seen.track.frameTimes;
  const known = knownTimes(recipe);
  return {
    ...seen,
    strike: {
      technique: techniqueById(recipe.technique),
      side: formOf(recipe).striking,
      stance: recipe.stance,
    },
    marks: Object.fromEntries(
      EVENTS.map((event) => [event, markOnFrame(times, nearestFrame(times, known[event]))]),
    ),
  };
}

/** The coach took a leak's cue on the evening on which it was filmed. */
async function pastCue(
  db: Db,
  strikeId: string,
  { studentId, recipe, daysAgo }: Pick<PastSet, 'studentId' | 'recipe' | 'daysAgo'>,
  fault: string,
): Promise<void> {
  const { catalogue } = await libraryOf(db);
  const track = knownTrack(recipe, { rate: RATE, noise: NOISE, seed: 1 });
  const { findings } = analyze(markedAs(recipe, { track }));
  const finding = findings.find((one) => one.fault === fault && one.status === 'found');
  if (!finding) throw new Error(`${fault} does not show in a ${recipe.technique}`);
  const judged = { finding, studentId, technique: recipe.technique, catalogue };
  const outcome = await acceptFinding(db, strikeId, fault, false, Promise.resolve(judged));
  if (outcome.kind !== 'accepted') throw new Error(`${fault} is not taken`);
  const at = { created_at: evening(daysAgo) };
  await db.updateTable('finding').set(at).where('strike_id', '=', strikeId).execute();
}

/** Sets of a drill on days gone by: days ago, strikes, of them clean. */
async function pastWork(
  db: Db,
  studentId: string,
  prescriptionId: string | null,
  name: string,
  technique: string,
  sets: readonly (readonly [
    daysAgo: number,
    strikes: number,
    clean: number | null,
    intent: Intent,
  ])[],
): Promise<void> {
  for (const [i, [daysAgo, strikes, cleanOnes, intent]] of sets.entries()) {
    const at = new Date(Date.parse(evening(daysAgo)) + i * 60_000).toISOString();
    await db
      .insertInto('drill_log')
      .values({
        id: randomUUID(),
        student_id: studentId,
        prescription_id: prescriptionId,
        technique,
        name,
        day: ago(daysAgo),
        at,
        intent,
        strikes,
        seconds: 0,
        clean: cleanOnes,
        counted_by: 'tap',
        deleted_at: null,
        ...stamps(),
      })
      .execute();
  }
}

/** Give what the catalogue proposes for the first cue without work. */
async function giveProposed(db: Db, studentId: string, daysAgo: number): Promise<string> {
  const proposal = (await workOf(db, studentId))?.proposals[0];
  if (!proposal) throw new Error('there is no cue to work on');
  const { technique, fault } = proposal.worksOn;
  const outcome = await prescribe(db, {
    ...proposal.prescription,
    studentId,
    worksOn: { technique, fault },
    override: '',
  });
  if (outcome.kind !== 'given') throw new Error('the work was not given');
  await db
    .updateTable('prescription')
    .set({ given_on: ago(daysAgo), created_at: evening(daysAgo) })
    .where('id', '=', outcome.id)
    .execute();
  return outcome.id;
}

const degrees = (value: number) => (value * Math.PI) / 180;

/** What the rest of the class has worked on: strikes of every family, filmed with two cameras. */
async function othersPast(db: Db, of: (name: string) => string): Promise<void> {
  const set = (
    name: string,
    daysAgo: number,
    recipe: Recipe,
    intent: Intent = 'tempo',
    strikes = 5,
  ) => {
    const past: PastSet = { studentId: of(name), daysAgo, recipe, strikes, intent, cameras: 2 };
    return pastSet(db, past).then((strikeId) => ({ ...past, strikeId }));
  };

  // A kick whose hips come to lead, week by week.
  for (const [daysAgo, hipsToTrunk] of [
    [28, 0.004],
    [21, 0.012],
    [14, 0.021],
    [6, 0.03],
  ] as const) {
    await set('Tobiah Renn', daysAgo, clean('round-kick', { hipsToTrunk, height: 1.78 }));
  }
  const hook = clean('lead-hook', { height: 1.78 });
  await set('Tobiah Renn', 4, hook);

  // A southpaw whose hand keeps coming home late.
  let jab = { strikeId: '', studentId: '', daysAgo: 0, recipe: clean('jab') };
  for (const [daysAgo, recoil] of [
    [24, 1.72],
    [17, 1.68],
    [10, 1.74],
    [3, 1.7],
  ] as const) {
    const recipe = clean('jab', { stance: 'southpaw', recoil, height: 1.69 });
    jab = await set('Sunniva Lund', daysAgo, recipe);
  }
  await pastCue(db, jab.strikeId, jab, 'slow-home');
  const home = await giveProposed(db, of('Sunniva Lund'), 3);
  await pastWork(
    db,
    of('Sunniva Lund'),
    home,
    'Echo drill: partner claps, hand is home before the echo',
    'jab',
    [
      [3, 20, 12, 'slow'],
      [1, 20, 15, 'slow'],
    ],
  );

  // A junior whose hand stays up better each week.
  let straight = jab;
  for (const [daysAgo, dip] of [
    [22, 0.15],
    [15, 0.12],
    [8, 0.09],
  ] as const) {
    straight = await set('Ilse Kaar', daysAgo, clean('jab', { dip, height: 1.61 }));
  }
  await pastCue(db, straight.strikeId, straight, 'hand-drop');

  // An old wrist, and a fist that bends again.
  const bent = clean('cross', { wristFlex: degrees(30), height: 1.84 });
  const wrist = await set('Dov Hallam', 20, bent);
  await pastCue(db, wrist.strikeId, wrist, 'wrist-bent');

  const tight = {
    hipsToTrunk: 0.002,
    trunkToArm: 0.02,
    coil: 0,
    pelvisPeak: 0.7,
    trunkPeak: 0.7,
    height: 1.81,
  };
  const elbow = await set('Perrin Oake', 6, clean('elbow-round', tight), 'slow');
  await pastCue(db, elbow.strikeId, elbow, 'all-at-once');
}

/** @param ids students by name */
export async function seedPast(db: Db, ids: ReadonlyMap<string, string>): Promise<void> {
  const of = (name: string) => ids.get(name)!;
  await saveSettings(db, {
    name: 'Wrayholm Boathouse',
    className: 'Tuesday class',
    grades: ['beginner', 'third class', 'second class', 'first class'],
    from: { full: 'third class', power: 'second class' },
    sessions: [],
    manner: USUAL_MANNER,
  });

  const maren = of('Maren Voss');
  const leads = [
    [44, 0.002],
    [37, 0],
    [30, 0.004],
    [23, 0.001],
    [9, 0.016],
    [5, 0.027],
  ] as const;
  for (const [daysAgo, hipsToTrunk] of leads) {
    await pastSet(db, {
      studentId: maren,
      daysAgo,
      strikes: 5,
      intent: 'tempo',
      recipe: clean('cross', { hipsToTrunk, shrug: 0, height: 1.72, out: 0.2 }),
      cameras: daysAgo === 5 ? 2 : 1,
    });
  }
  const work = await giveProposed(db, maren, 16);
  await setNextCheck(db, work, ago(1));
  await pastWork(db, maren, work, 'Slow three-count: hips, trunk, hand', 'cross', [
    [30, 16, null, 'slow'],
    [23, 16, null, 'slow'],
    [16, 8, 5, 'slow'],
    [14, 8, 7, 'slow'],
    [9, 8, 7, 'slow'],
    [7, 10, 9, 'slow'],
    [2, 10, 7, 'tempo'],
    [0, 8, 7, 'tempo'],
  ]);
  await addNote(db, {
    studentId: maren,
    technique: 'cross',
    day: ago(9),
    text: 'Counts aloud by herself now; the hand still wants to go on “two”.',
  });
  await addTest(db, {
    studentId: maren,
    day: ago(9),
    given: {
      kind: 'throw',
      standing: { value: 7.4, plusMinus: 0.1 },
      seated: { value: 5.2, plusMinus: 0.1 },
    },
  });

  const tobiah = of('Tobiah Renn');
  const hook = await giveProposed(db, tobiah, 3);
  await pastWork(db, tobiah, hook, 'Freeze-frame hooks', 'lead-hook', [[2, 24, 20, 'slow']]);

  const perrin = of('Perrin Oake');
  for (const [i, tall] of [0, 0.012, 0.02, 0.034].entries()) {
    await pastSet(db, {
      studentId: perrin,
      daysAgo: 9,
      strikes: 4,
      intent: 'full',
      round: i + 1,
      recipe: clean('cross', { tall, height: 1.81, shrug: 0, out: 0.17 + 0.006 * i }),
    });
  }

  await othersPast(db, of);
  for (const id of ids.values()) await measureStudent(db, id);

  const day = today();
  for (const [daysAgo, session, title] of [
    [7, 'slow-day', 'Slow day'],
    [5, 'speed-day', 'Speed day'],
    [2, 'slow-day', 'Slow day'],
  ] as const) {
    const past = { day: ago(daysAgo), kind: 'session', session, title, studentId: null } as const;
    await setDone(db, await addItem(db, past), true);
  }
  await addItem(db, {
    day,
    kind: 'session',
    session: 'slow-day',
    title: 'Slow day',
    studentId: null,
  });
  await addItem(db, { day, kind: 'retest', session: null, title: 'Film again', studentId: maren });
  await planBlock(db, {
    name: 'Harbour open floor',
    from: plusDays(day, 1),
    target: plusDays(day, 41),
    weekdays: [1, 3],
  });
}
