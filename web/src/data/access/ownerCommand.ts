/** Asks for the owner's new passcode and keeps it; every browser of theirs is signed out. */
import { createInterface } from 'node:readline/promises';
import { saidBy } from '@sinew/core/foundation/problem/problem';
import { dataFolder } from '../database/dataFolder';
import { openAccess } from './accessDb';
import { people, setPasscode } from './people';
import { passcodeSchema } from './secrets';
import { endWaits } from './wrongCodes';

async function main(): Promise<string | null> {
  const db = await openAccess(dataFolder());
  try {
    const owner = (await people(db)).find(({ role }) => role === 'owner');
    if (!owner) return `Nobody owns the gym in ${dataFolder()}: set up its owner under Gym.`;
    const lines = createInterface({ input: process.stdin, output: process.stdout });
    const passcode = await lines.question(`A new passcode for ${owner.name}: `);
    lines.close();
    const parsed = passcodeSchema.safeParse(passcode);
    if (!parsed.success) return parsed.error.issues[0]!.message;
    const wrong = await saidBy(setPasscode(db, owner.id, parsed.data));
    if (wrong !== null) return wrong;
    await endWaits(db);
    process.stdout.write(`\n${owner.name} signs in by it from now on.\n`);
    return null;
  } finally {
    await db.destroy();
  }
}

const wrong = await main();
if (wrong !== null) {
  console.error(`\n${wrong} Nothing was changed.`);
  process.exitCode = 1;
}
