import type { ClipDocument } from '@sinew/core/analysis/clipDocument';
import { copyFileSync, createWriteStream, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';
import { ClipFiles } from '@/data/film/clipFiles';
import { loadBench, saveBench } from '@/data/bench/bench';
import { addClip, type NewClip } from '@/data/clip/clips';
import { openDatabase } from '@/data/database/database';
import { databasePath } from '@/data/database/dataFolder';
import type { Db } from '@/data/database/db';
import { acceptFinding } from '@/data/finding/findings';
import type { Scope } from '@/data/transfer/exportScope';
import { exportGym } from '@/data/transfer/gymExport';
import { addNote } from '@/data/progress/ledger';
import { measureStudent } from '@/data/finding/measured';
import { prescribe, workOf } from '@/data/work/work';
import { logWork } from '@/data/work/drillLog';
import { addStudent, recordConsent, setBands, studentForm } from '@/data/student/students';
import { keepBandTurns } from '@/data/clip/bandTurns';

export const film = (name: string) =>
  readFileSync(new URL(`../../demo/clips/${name}`, import.meta.url));

const LOADER = fileURLToPath(new URL('../../scripts/typescript.mjs', import.meta.url));

/** @returns what Node is started with, that it runs this program in TypeScript */
export const typescript = (program: string, ...args: readonly string[]) => [
  '--import',
  LOADER,
  program,
  ...args,
];

export const streamOf = (...parts: readonly Uint8Array[]) =>
  new ReadableStream<Uint8Array>({
    start(controller) {
      for (const part of parts) controller.enqueue(part);
      controller.close();
    },
  });

export interface TestGym {
  readonly folder: string;
  readonly db: Db;
  readonly files: ClipFiles;
}

/** A database that has been brought up to date, once for all tests of a file. */
let upToDate: Promise<string> | null = null;

async function bringUpToDate(): Promise<string> {
  const folder = scratchFolder('up-to-date');
  await (await openDatabase(folder)).destroy();
  return databasePath(folder);
}

export async function emptyGym(): Promise<TestGym> {
  const folder = scratchFolder('test');
  upToDate ??= bringUpToDate();
  copyFileSync(await upToDate, databasePath(folder));
  return { folder, db: await openDatabase(folder), files: new ClipFiles(folder) };
}

export async function student(
  { db }: TestGym,
  given: { isMinor?: boolean; consent?: 'student' | 'guardian' | null } = {},
): Promise<string> {
  const bornOn = `${new Date().getFullYear() - (given.isMinor ? 14 : 30)}-01-01`;
  const input = studentForm.parse({ name: 'Somebody', stance: 'orthodox', bornOn });
  const id = await addStudent(db, input);
  const consent = given.consent === undefined ? 'student' : given.consent;
  if (consent) {
    await recordConsent(db, id, { givenBy: consent, name: 'Somebody', givenOn: '2026-01-02' });
  }
  return id;
}

export function newClip(
  studentId: string,
  bytes: Uint8Array,
  change: Partial<NewClip> = {},
): NewClip {
  return {
    studentId,
    fileName: 'film.mp4',
    view: 'side',
    captureRate: null,
    purpose: null,
    stream: streamOf(bytes),
    announced: bytes.length,
    ...change,
  };
}

/** A clip with one strike whose marks make it all-at-once. */
export async function markedClip(gym: TestGym, studentId: string, file = 'cross-clean.mp4') {
  const { id } = await addClip(gym.db, gym.files, newClip(studentId, film(file)));
  const saved = (await loadBench(gym.db, id))!;
  const document = {
    ...saved.document,
    strikes: [{ id: `strike-${id}`, technique: 'cross', side: 'right', marks: AT_ONCE }],
  } satisfies ClipDocument;
  await saveBench(gym.db, id, { revision: 0, document });
  return { clipId: id, strikeId: `strike-${id}`, document };
}

export type MarkedClip = Awaited<ReturnType<typeof markedClip>>;

/** A gym of one student with one such clip. */
export async function markedGym() {
  const gym = await emptyGym();
  const who = await student(gym);
  return { gym, who, marked: await markedClip(gym, who) };
}

export const AT_ONCE = {
  load: { frame: 60, width: 1 },
  hips: { frame: 110, width: 1 },
  trunk: { frame: 110, width: 1 },
  arm: { frame: 112, width: 3 },
  contact: { frame: 168, width: 1 },
  end: { frame: 171, width: 1 },
  home: { frame: 220, width: 1 },
} as const;

/** A gym with something in every room. */
export async function fullGym(): Promise<{ gym: TestGym; who: string }> {
  const gym = await emptyGym();
  const id = await student(gym);
  const { strikeId, clipId } = await markedClip(gym, id);
  await setBands(gym.db, id, { kind: 'tape', hipsCm: 96, ribsCm: null, seam: 'back' });
  const turn = { frames: [3, 4], yaw: [-0.8, -0.7], shake: [0.01, 0.01], lasting: [0.05, 0.05] };
  const hips = { girth: 0.96, turn, silent: [] };
  await keepBandTurns(gym.db, clipId, { seam: 'back', isSquareKnown: false, bands: { hips } });
  await acceptFinding(gym.db, strikeId, 'all-at-once', false);
  const proposal = (await workOf(gym.db, id))!.proposals[0]!;
  const worksOn = { technique: 'cross', fault: 'all-at-once' };
  await prescribe(gym.db, { ...proposal.prescription, studentId: id, worksOn, override: '' });
  await logWork(gym.db, {
    id: 'log-1',
    studentId: id,
    prescriptionId: null,
    technique: 'cross',
    name: 'Bag',
    day: '2026-03-01',
    intent: 'slow',
    strikes: 10,
    seconds: 0,
    clean: 9,
    countedBy: 'tap',
  });
  await addNote(gym.db, { studentId: id, technique: null, day: '2026-03-01', text: 'Ünïcode 🥊' });
  await measureStudent(gym.db, id);
  return { gym, who: id };
}

export async function saved(gym: TestGym, scope?: Scope): Promise<string> {
  const path = join(gym.folder, 'gym.zip');
  const zip = await exportGym(gym.files, join(gym.folder, 'incoming'), scope);
  await pipeline(zip, createWriteStream(path));
  return path;
}
