/** What is written down of what went wrong, and what is given to whoever helps. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { join } from 'node:path';
import { unzipSync, strFromU8 } from 'fflate';
import { afterEach, describe, expect, it } from 'vitest';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { logFolder, traceOf } from '@/data/log/log';
import { supportFile } from '@/data/log/supportFile';
import { fullGym, type TestGym } from './support';

let gym: TestGym | null = null;
afterEach(async () => {
  await gym?.db.destroy();
  gym = null;
});

describe('the log', () => {
  it('keeps the kind, the code and the place of an error, and never its words', () => {
    const error = Object.assign(new TypeError('Ragna Sorn has no film'), { code: 'SQLITE_BUSY' });
    const trace = traceOf(error);
    expect(trace).toMatchObject({ kind: 'TypeError', code: 'SQLITE_BUSY' });
    expect(JSON.stringify(trace)).not.toContain('Ragna');
    expect((trace as { at: string[] }).at[0]).toMatch(/log\.test\.ts/);
    const problem = new Problem('gone', { happened: 'Ragna Sorn is gone.' });
    expect(JSON.stringify(traceOf(problem))).not.toContain('Ragna');
    expect(traceOf(problem)).toMatchObject({ kind: 'Problem', code: 'gone' });
    expect(traceOf('a word')).toEqual({ kind: 'string' });
  });
});

describe('a support file', () => {
  it('has counts, sizes and the log, and neither film nor name', async () => {
    ({ gym } = await fullGym());
    mkdirSync(logFolder(gym.folder));
    writeFileSync(join(logFolder(gym.folder), 'sinew.1.log'), '{"msg":"refused"}\n');
    writeFileSync(join(gym.folder, 'letter to Somebody.txt'), 'private');
    const bytes = await buffer(await supportFile(gym.db, gym.folder));
    const entries = unzipSync(new Uint8Array(bytes));
    expect(Object.keys(entries).sort()).toEqual(['about.json', 'log/sinew.1.log']);
    const text = strFromU8(entries['about.json']!);
    expect(text).not.toContain('Somebody');
    expect(text).not.toContain('film.mp4');
    const about = JSON.parse(text) as { rows: Record<string, number>; check: string[] };
    expect(about.rows).toMatchObject({ student: 1, clip: 1, strike: 1 });
    expect(about.check).toEqual(['ok']);
    expect(JSON.parse(text)).toMatchObject({ files: { clips: expect.any(Number) } });
    expect(readFileSync(join(gym.folder, 'letter to Somebody.txt'), 'utf8')).toBe('private');
  });
});
