// Other workspaces that reach this file know the types it needs by this line alone.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./pino-roll.d.ts" />
/**
 * What went wrong and what was refused, in `log/` beside the data: for the coach's support, never for
 * anybody else. It holds codes, addresses and places in the program, and no words of anybody: messages
 * may name people or their films, and so stay out.
 */
import { join } from 'node:path';
import pino, { type Logger } from 'pino';
import roll from 'pino-roll';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { dataFolder } from '../database/dataFolder';

/** A file is begun each day, or when it has grown to so much; so many are kept. */
const SIZE = '1m';
const KEPT_FILES = 9;

export const logFolder = (data = dataFolder()) => join(data, 'log');

const shared = globalThis as { sinewLog?: Promise<Logger>; sinewUnreadable?: Set<string> };

/** `SINEW_LOG` is the level: trace, debug, info, warn, error, silent; info when not given. */
async function open(): Promise<Logger> {
  const level = process.env.SINEW_LOG ?? 'info';
  if (level === 'silent') return pino({ level });
  const stream = await roll({
    file: join(logFolder(), 'sinew'),
    extension: '.log',
    frequency: 'daily',
    size: SIZE,
    limit: { count: KEPT_FILES },
    mkdir: true,
    mode: 0o600,
  });
  return pino({ level, base: undefined, timestamp: pino.stdTimeFunctions.isoTime }, stream);
}

function write(level: 'info' | 'warn' | 'error', event: string, about: object): void {
  const log = (shared.sinewLog ??= open());
  log.then(
    (opened) => opened[level](about, event),
    // A log that cannot be written stops nobody.
    () => undefined,
  );
}

/** A question that was answered with a refusal. */
export function logRefused(request: Request, status: number, code: string): void {
  write('info', 'refused', { method: request.method, path: pathOf(request), status, code });
}

/** A question that could not be answered. */
export function logFailed(request: Request, error: unknown): void {
  write('error', 'failed', { method: request.method, path: pathOf(request), ...traceOf(error) });
}

/**
 * What is kept of something cannot be read: what, and not whose. Once while this server runs: pages ask
 * again and again, and would push everything else out of the log.
 */
export function logUnreadable(what: string): void {
  const told = (shared.sinewUnreadable ??= new Set());
  if (told.has(what)) return;
  told.add(what);
  write('warn', 'unreadable', { what });
}

/** Work in the background that is done. */
export function logDone(job: string): void {
  write('info', 'done', { job });
}

/** Work in the background that failed, or an error that nobody waits for. */
export function logTrouble(job: string, error: unknown): void {
  write('warn', 'trouble', { job, ...traceOf(error) });
}

/** What is asked after stays out: it may hold names. */
const pathOf = (request: Request) => new URL(request.url).pathname;

/** An error without its message: its kind, its code, where it was thrown. */
export function traceOf(error: unknown): object {
  if (!(error instanceof Error)) return { kind: typeof error };
  const { code } = error as { code?: unknown };
  const frames = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .map((line) =>
      line.trim().replace(/\(?(file:\/\/)?\/[^\s)]*\/(web|core|node_modules)\//, '($2/'),
    );
  return {
    kind: error instanceof Problem ? 'Problem' : error.name,
    ...(typeof code === 'string' && { code }),
    at: frames.slice(0, 8),
  };
}
