/** `npm run owner`: the owner's passcode set anew at the machine, while the server may be running. */
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { openAccess } from '@/data/access/accessDb';
import { addPerson } from '@/data/access/people';
import { signIn, whoseToken } from '@/data/access/signIns';
import { countTries } from '@/data/access/wrongCodes';
import { typescript } from '../support';

const PROGRAM = fileURLToPath(new URL('../../src/data/access/ownerCommand.ts', import.meta.url));

function command(data: string, typed: string) {
  return spawnSync(process.execPath, typescript(PROGRAM), {
    env: { ...process.env, SINEW_DATA: data },
    input: `${typed}\n`,
    encoding: 'utf8',
  });
}

describe('the owner’s passcode', () => {
  it('is set anew; browsers signed in by the old one are out, and nobody has to wait', async () => {
    const data = scratchFolder('owner');
    const db = await openAccess(data);
    const owner = { name: 'Ilse Brandt', role: 'owner', passcode: 'harbour-42' } as const;
    await addPerson(db, owner);
    const { token } = await signIn(db, owner, null, 'Linux');
    const weak = command(data, 'short');
    expect([weak.status, weak.stderr]).toEqual([
      1,
      expect.stringMatching(/at least 8 letters or digits\. Nothing was changed\./),
    ]);
    expect(await whoseToken(db, token, 'passcode')).not.toBeNull();
    for (let i = 0; i < 5; i++) await countTries(db, [{ key: 'x' }]);
    const done = command(data, 'lighthouse-9');
    expect([done.status, done.stdout]).toEqual([
      0,
      expect.stringMatching(/signs in by it from now on/),
    ]);
    expect(await whoseToken(db, token, 'passcode')).toBeNull();
    await countTries(db, [{ key: 'x' }]);
    const anew = await signIn(db, { ...owner, passcode: 'lighthouse-9' }, null, 'Linux');
    expect(anew.asker.role).toBe('owner');
    await db.destroy();
  });

  it('is not asked for where nobody owns the gym', () => {
    const { status, stderr } = command(scratchFolder('owner'), 'lighthouse-9');
    expect([status, stderr]).toEqual([1, expect.stringMatching(/Nobody owns the gym/)]);
  });
});
