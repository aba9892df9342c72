import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { ZodError } from 'zod';
import { analyzeFile, optionsSchema } from './analyzeFile';

const USAGE =
  'usage: sinew analyze FILE --technique NAME --stance orthodox|southpaw ' +
  '[--side left|right] [--contact SECONDS] [--view side|front|behind|above]';

function main(args: string[]): string {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      technique: { type: 'string' },
      stance: { type: 'string', default: 'orthodox' },
      side: { type: 'string' },
      contact: { type: 'string' },
      view: { type: 'string' },
      json: { type: 'boolean' },
    },
  });
  const [command, file, ...more] = positionals;
  if (command !== 'analyze' || file === undefined || more.length > 0) throw new Error(USAGE);
  const result = analyzeFile(readFileSync(file, 'utf8'), optionsSchema.parse(values));
  return JSON.stringify(result, null, values.json ? undefined : 2);
}

try {
  console.log(main(process.argv.slice(2)));
} catch (error) {
  const message = error instanceof ZodError ? error.issues[0]!.message : (error as Error).message;
  console.error(`sinew: ${message.split('\n')[0]}`);
  process.exitCode = 2;
}
