/** `npm start -- --gym`: open as soon as the server is up, with the address for the phones in the terminal. */
import { renderUnicodeCompact } from 'uqr';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { logTrouble } from '../log/log';
import { openDoor } from './door';

export async function openAtStart(): Promise<void> {
  try {
    const { addresses, fingerprint, isOwnMade } = await openDoor();
    const lines = [
      `Gym:    ${addresses.join('\n        ')}`,
      ...(isOwnMade ? [`        SHA-256 ${fingerprint}`] : []),
      renderUnicodeCompact(addresses[0]!, { border: 2 }),
    ];
    process.stdout.write(`\n${lines.join('\n')}\n\n`);
  } catch (error) {
    if (!(error instanceof Problem)) logTrouble('door', error);
    const why = error instanceof Error ? error.message : String(error);
    console.error(`\nNot open to the gym’s network: ${why}\n`);
  }
}
