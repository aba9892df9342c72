/**
 * A child that does one thing over and over until it is killed: `crashing.ts WHAT FOLDER FILE`.
 * What it has confirmed it says on its output, a line each.
 */
import { join } from 'node:path';
import { backUp } from '@/data/maintenance/backups';
import { ClipFiles } from '@/data/film/clipFiles';
import { openDatabase } from '@/data/database/database';
import { importGym } from '@/data/transfer/gymImport';
import { logWork } from '@/data/work/drillLog';

const [what, folder, file] = process.argv.slice(2) as [string, string, string];
const db = await openDatabase(folder);
const say = (line: string) => process.stdout.write(`${line}\n`);

const DEEDS: Readonly<Record<string, () => Promise<void>>> = {
  async write() {
    for (let i = 0; ; i++) {
      const id = `log-${i}`;
      await logWork(db, {
        id,
        studentId: file,
        prescriptionId: null,
        technique: null,
        name: 'Bag',
        day: '2026-03-01',
        intent: 'slow',
        strikes: 10,
        seconds: 0,
        clean: null,
        countedBy: 'tap',
      });
      say(id);
    }
  },
  async backup() {
    for (let i = 0; ; i++) {
      const at = new Date(Date.UTC(2026, 0, 1 + i));
      const { name } = await backUp(folder, join(folder, 'backups'), at, {
        isRotated: true,
      });
      say(name);
    }
  },
  async import() {
    await importGym(new ClipFiles(folder), file, join(folder, 'incoming'));
    say('imported');
  },
};

say('ready');
await DEEDS[what]!();
