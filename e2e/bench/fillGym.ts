/** Fills a folder with a gym of 200 students, 5,000 clips and 50,000 strikes, all marked and measured. */
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { analyze } from '@sinew/core/analysis/analyze';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { EVENTS, markOnFrame } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { clean } from '@sinew/fighters/fighter/recipe';
import { openDatabase } from '@sinew/web/data/database/database';
import { createGym } from '@sinew/web/data/gym/gym';
import { libraryOf } from '@sinew/web/data/gym/library';
import { toKeep, VERSION } from '@sinew/web/data/finding/measured';
import { packed } from '@sinew/web/data/finding/packedReadings';
import { rulesOf, shownBy } from '@sinew/web/data/finding/foundFaults';
import { encodeTimes } from '@sinew/web/data/bench/placedBlob';
import { addStudent, recordConsent } from '@sinew/web/data/student/students';
import { today } from '@sinew/web/data/database/today';

export const STUDENTS = 200;
export const CLIPS = 25;
export const STRIKES = 10;

const recipe = clean('cross');
const film = knownPicture(recipe, 'side', { rate: 240, noise: 0.004, seed: 1 });
const times = film.track.frameTimes;
const known = knownTimes(recipe);
const marks = Object.fromEntries(
  EVENTS.map((event) => [event, markOnFrame(times, nearestFrame(times, known[event]))]),
);
const { readings, findings } = analyze({
  ...film,
  marks,
  strike: { technique: techniqueById('cross'), side: 'right', stance: 'orthodox' },
});

/** @returns the students' ids */
export async function fillGym(folder: string): Promise<string[]> {
  const db = await openDatabase(folder);
  await createGym(db, 'A large gym', '');
  const ids: string[] = [];
  for (let i = 0; i < STUDENTS; i++) {
    const id = await addStudent(db, {
      name: `Student ${i}`,
      stance: 'orthodox',
      grade: '',
      startedOn: '2026-01-01',
      heightCm: 176,
      massKg: 70,
      injuries: '',
      classGroup: `Class ${i % 8}`,
      bornOn: '1996-03-14',
    });
    await recordConsent(db, id, { givenBy: 'student', name: 'S', givenOn: '2026-01-01' });
    ids.push(id);
  }
  const rules = rulesOf(await libraryOf(db), {});
  await db.destroy();
  const sqlite = new Database(join(folder, 'sinew.db'));
  const insert = (table: string, row: Record<string, unknown>) => {
    const names = Object.keys(row);
    return sqlite
      .prepare(`insert into ${table} (${names}) values (${names.map((name) => `@${name}`)})`)
      .run(row);
  };
  const frameTimes = encodeTimes(times);
  const [kept, links] = [packed(readings), JSON.stringify({ pelvis: 'drives', trunk: 'drags' })];
  const shows = JSON.stringify(shownBy(findings));
  sqlite.transaction(() => {
    for (const [s, student] of ids.entries()) {
      for (let c = 0; c < CLIPS; c++) {
        const clip = `clip-${s}-${c}`;
        const at = `${plusDays(today(), -7 * (CLIPS - c))}T18:00:00.000Z`;
        const stamps = { created_at: at, updated_at: at };
        insert('clip', {
          id: clip,
          student_id: student,
          sha256: createHash('sha256').update(clip).digest('hex'),
          file_name: `${c}.mp4`,
          mime_type: 'video/mp4',
          bytes: 1,
          view: 'side',
          width: 1280,
          height: 720,
          codec: 'avc',
          frame_times: frameTimes,
          revision: 1,
          intent: 'tempo',
          ...stamps,
        });
        for (let k = 0; k < STRIKES; k++) {
          const strike = `${clip}-${k}`;
          insert('strike', {
            id: strike,
            clip_id: clip,
            technique: 'cross',
            side: 'right',
            position: k,
            marks_left: 0,
            ...stamps,
          });
          for (const [event, { frame, time, sigma, source }] of Object.entries(marks)) {
            insert('mark', {
              strike_id: strike,
              event,
              frame,
              width: 1,
              time,
              sigma,
              source,
              ...stamps,
            });
          }
          insert('measured', {
            strike_id: strike,
            readings: kept,
            links,
            rules,
            shows,
            ...stamps,
            // As SQLite writes numbers out.
            stamp: `${VERSION}/1/orthodox/1.76/70.0////`,
          });
        }
        insert('finding', {
          id: `finding-${s}-${c}`,
          strike_id: `${clip}-0`,
          fault: 'all-at-once',
          status: 'accepted',
          reason: '',
          evidence: 'Seen.',
          judged_by: '[]',
          ...stamps,
        });
      }
      const at = `${plusDays(today(), -20)}T18:00:00.000Z`;
      const stamps = { created_at: at, updated_at: at };
      insert('cue', {
        id: `cue-${s}`,
        student_id: student,
        finding_id: `finding-${s}-0`,
        drill: '',
        technique: 'cross',
        text: 'Hips first.',
        status: 'active',
        ...stamps,
      });
      insert('prescription', {
        id: `work-${s}`,
        student_id: student,
        cue_id: `cue-${s}`,
        technique: 'cross',
        fault: 'all-at-once',
        drill: 'three-count',
        name: 'Three-count',
        dose: '3 × 10',
        stances: 'both',
        intent: 'slow',
        gate: '',
        given_on: plusDays(today(), -20),
        next_check: plusDays(today(), (s % 9) - 4),
        status: 'active',
        override: '',
        ...stamps,
      });
      for (let d = 0; d < 60; d++) {
        insert('drill_log', {
          id: `log-${s}-${d}`,
          student_id: student,
          prescription_id: `work-${s}`,
          technique: 'cross',
          name: 'Three-count',
          day: plusDays(today(), -d),
          at,
          intent: 'slow',
          strikes: 30,
          seconds: 0,
          clean: 25,
          counted_by: 'tap',
          ...stamps,
        });
      }
    }
  })();
  sqlite.pragma('analysis_limit = 400');
  sqlite.exec('analyze');
  sqlite.close();
  await mustBeMeasured(folder, ids[0]!);
  return ids;
}

/** What is stale is measured anew by every page that asks, which is not what is timed. */
async function mustBeMeasured(folder: string, studentId: string): Promise<void> {
  const db = await openDatabase(folder);
  const { updates } = await toKeep(db, studentId, Infinity);
  await db.destroy();
  if (updates.length > 0) throw new Error('The gym is filled with strikes that are stale.');
}
