/**
 * `npm run soak [minutes]`: a gym under everything at once – films sent, marks saved, sets logged; the server
 * killed in the middle; files that are broken; clocks that jump; backups gone back to – by a seed, and
 * held afterwards against what was confirmed. Ends with 1 when anything confirmed is lost.
 */
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import { filmsIn, freshGym, startServer, type OwnServer } from '../support/ownServer';

const minutes = Number(process.argv[2] ?? 15);
const seed = Number(process.env.SINEW_SEED ?? 20261128);
const random = seeded(seed);
const among = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

const data = freshGym();
const clips = fileURLToPath(new URL('../../demo/clips', import.meta.url));
const films = readdirSync(clips)
  .filter((name) => name.endsWith('.mp4'))
  .map((name) => readFileSync(join(clips, name)));

/** What the server has said yes to since the last backup that may be gone back to. */
const confirmed = { clips: new Set<string>(), revisions: new Map<string, number>() };
const counts = new Map<string, { tried: number; refused: number; unanswered: number }>();
const problems: string[] = [];

let server: OwnServer = await startServer(data);

const rowsOf = <T>(query: string, file = 'sinew.db'): T[] => {
  const database = new Database(join(data, file), { readonly: true, timeout: 20_000 });
  try {
    return database.prepare(query).all() as T[];
  } finally {
    database.close();
  }
};
const students = () =>
  rowsOf<{ id: string }>(
    `select student.id from student join consent on consent.student_id = student.id
     where student.deleted_at is null and consent.withdrawn_at is null and
     (student.is_minor = 0 and student.born_on < '2005' or consent.given_by = 'guardian')`,
  ).map(({ id }) => id);

/** @returns the answer, or null when none came: the server was killed, or was silent for ten seconds */
async function asked(what: string, path: string, init: RequestInit = {}): Promise<Response | null> {
  const count = counts.get(what) ?? { tried: 0, refused: 0, unanswered: 0 };
  counts.set(what, count);
  count.tried += 1;
  try {
    const signal = AbortSignal.timeout(10_000);
    const answer = await fetch(server.url + path, { ...init, signal });
    if (!answer.ok) count.refused += 1;
    // A plain 500 is a fault of ours, whatever was sent.
    if (answer.status === 500) problems.push(`${what}: 500 ${(await answer.text()).slice(0, 200)}`);
    return answer;
  } catch {
    count.unanswered += 1;
    return null;
  }
}

async function sendFilm(): Promise<void> {
  const film = Buffer.from(among(films));
  // Another film every time: bytes after the end of an MP4 are not looked at.
  const tail = Buffer.from(
    `\0\0\0\x18free${Math.floor(random() * 1e15)
      .toString()
      .padStart(16, '0')}`,
  );
  const query = new URLSearchParams({ student: among(students()), name: 'soak.mp4', view: 'side' });
  const body = new Uint8Array(Buffer.concat([film, tail]));
  const answer = await asked('films sent', `/api/clips?${query}`, { method: 'POST', body });
  if (answer?.ok) confirmed.clips.add(((await answer.json()) as { id: string }).id);
}

async function saveMarks(): Promise<void> {
  if (confirmed.clips.size === 0) return;
  const id = among([...confirmed.clips]);
  const before = await asked('benches read', `/api/clips/${id}/bench`);
  if (!before?.ok) return;
  const { revision, document } = (await before.json()) as {
    revision: number;
    document: { strikes: unknown[] };
  };
  const contact = { contact: { frame: 20 + Math.floor(random() * 60), width: 1 } };
  const strike = { id: `soak-${id}`, technique: 'cross', side: 'right', marks: contact };
  const answer = await asked('benches saved', `/api/clips/${id}/bench`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ revision, document: { ...document, strikes: [strike] } }),
  });
  if (answer?.ok) confirmed.revisions.set(id, revision + 1);
}

async function lookAround(): Promise<void> {
  const path = among([
    '/',
    '/gym',
    '/plan',
    '/library',
    '/films?words=cross',
    `/students/${among(students())}/ledger`,
  ]);
  await asked('pages', path);
}

async function sendGarbage(): Promise<void> {
  const film = Buffer.from(among(films));
  for (let i = 0; i < 20; i++)
    film[Math.floor(random() * film.length)] = Math.floor(random() * 256);
  const query = new URLSearchParams({ student: among(students()), name: 'x.mp4', view: 'side' });
  const body = new Uint8Array(film.subarray(0, Math.floor(random() * film.length)));
  const answer = await asked('films broken', `/api/clips?${query}`, { method: 'POST', body });
  if (answer?.ok) confirmed.clips.add(((await answer.json()) as { id: string }).id);
}

let gym: Uint8Array | null = null;
async function gymFiles(): Promise<void> {
  if (gym === null || random() < 0.2) {
    const answer = await asked('gyms taken out', '/api/gym?kept');
    if (answer?.ok)
      gym = new Uint8Array(await answer.arrayBuffer().catch(() => new ArrayBuffer(0)));
    return;
  }
  const broken = gym.slice();
  for (let i = 0; i < 3; i++)
    broken[Math.floor(random() * broken.length)]! ^= 1 << Math.floor(random() * 8);
  await asked('gyms broken', '/api/gym', { method: 'PUT', body: broken });
}

async function kill(): Promise<void> {
  // In the middle of whatever goes on.
  const going = [sendFilm(), saveMarks(), gymFiles()];
  await new Promise((resolve) => setTimeout(resolve, random() * 400));
  await server.stop();
  await Promise.all(going);
  const clockDays = random() < 0.3 ? among([-400, -3, 3, 400]) : 0;
  server = await startServer(data, clockDays);
  held('a kill');
}

/** The disk is full for a while: films are refused in words, and what is there can be seen. */
async function fullDisk(): Promise<void> {
  await server.stop();
  server = await startServer(data, 0, { SINEW_KEEP_FREE_MB: '1000000000' });
  const count = confirmed.clips.size;
  for (let i = 0; i < 3; i++) await sendFilm();
  if (confirmed.clips.size > count) problems.push('a film was taken on a full disk');
  await lookAround();
  await server.stop();
  server = await startServer(data);
  held('a full disk');
}

/** The database is lost, and the newest backup takes its place: what stands in it counts from then on. */
async function goBack(): Promise<void> {
  const newest = readdirSync(join(data, 'backups'))
    .filter((name) => name.endsWith('.db'))
    .sort()
    .at(-1);
  if (!newest) return;
  await server.stop();
  writeFileSync(join(data, 'sinew.db'), 'no database any more');
  rmSync(join(data, 'sinew.db-wal'), { force: true });
  server = await startServer(data);
  const body = new URLSearchParams({ backup: newest });
  const answer = await asked('backups gone back to', '/recovery', { method: 'POST', body });
  if (!answer?.ok) problems.push(`${newest} was not gone back to: ${answer?.status}`);
  const then = clipsIn(join('backups', newest));
  for (const id of confirmed.clips) if (!then.has(id)) confirmed.clips.delete(id);
  for (const [id, revision] of confirmed.revisions) {
    const row = then.get(id);
    if (row) confirmed.revisions.set(id, Math.min(revision, row.revision));
    else confirmed.revisions.delete(id);
  }
  held('going back');
}

const clipsIn = (file?: string) =>
  new Map(
    rowsOf<{ id: string; sha256: string; revision: number }>(
      'select id, sha256, revision from clip where deleted_at is null',
      file,
    ).map((row) => [row.id, row]),
  );

/** Everything that was confirmed is there. */
function held(after: string): void {
  const rows = clipsIn();
  const kept = new Set(filmsIn(data).map((path) => path.slice(-68, -4)));
  for (const id of confirmed.clips) {
    const row = rows.get(id);
    if (!row) problems.push(`after ${after}: clip ${id} is not there`);
    else if (!kept.has(row.sha256)) problems.push(`after ${after}: the film of ${id} is not there`);
  }
  for (const [id, revision] of confirmed.revisions) {
    if ((rows.get(id)?.revision ?? -1) < revision)
      problems.push(`after ${after}: marks of ${id} are older`);
  }
}

const DEEDS = [
  [sendFilm, 6],
  [saveMarks, 18],
  [lookAround, 18],
  [sendGarbage, 9],
  [gymFiles, 3],
  [kill, 3],
  [fullDisk, 1],
  [goBack, 1],
] as const;
const bag = DEEDS.flatMap(([deed, weight]) => Array.from({ length: weight }, () => deed));

const memory: number[] = [];
const until = Date.now() + minutes * 60_000;
let deeds = 0;
while (Date.now() < until) {
  await among(bag)();
  deeds += 1;
  if (deeds % 20 === 0) memory.push(server.memory());
}
await server.stop();
held('the end');
const sound = rowsOf<{ integrity_check: string }>('pragma integrity_check');
if (sound[0]?.integrity_check !== 'ok') problems.push(`the database: ${JSON.stringify(sound)}`);

console.log(
  `${deeds} deeds in ${minutes} minutes, seed ${seed}; ${confirmed.clips.size} films confirmed`,
);
for (const [what, { tried, refused, unanswered }] of counts) {
  console.log(
    `${what}: ${tried} tried, ${refused} refused, ${unanswered} without an answer (killed)`,
  );
}
const [first = 0, last = 0] = [memory[0], memory.at(-1)];
console.log(
  `memory of the server: ${Math.round(first / 1e6)} MB at first, ${Math.round(last / 1e6)} MB at last`,
);
console.log(problems.length === 0 ? 'nothing lost' : `LOST or wrong:\n${problems.join('\n')}`);
rmSync(data, { recursive: true, force: true });
process.exit(problems.length === 0 ? 0 : 1);
