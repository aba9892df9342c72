/** A process of its own that holds a folder until it is killed. */
import { hold } from '@/data/database/hold';

await hold(process.argv[2]!, { pid: process.pid, address: 'http://127.0.0.1:4199' });
process.stdout.write(`${process.pid}`);
setInterval(() => {}, 1000);
