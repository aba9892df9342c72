/**
 * JSON from a file that somebody else may have made. Before it is parsed it is looked through once: a few
 * megabytes of brackets within brackets would take a gigabyte to parse.
 */
import type { z } from 'zod';
import { wrongWith } from '@sinew/core/foundation/problem/problem';
import { wrong } from './gymZip';

/** @param deepest how far brackets may stand within brackets */
export function isDeeper(text: string, deepest: number): boolean {
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    switch (text.charCodeAt(i)) {
      case 0x22: // "
        i = endOfString(text, i);
        break;
      case 0x7b: // {
      case 0x5b: // [
        depth += 1;
        if (depth > deepest) return true;
        break;
      case 0x7d: // }
      case 0x5d: // ]
        depth -= 1;
    }
  }
  return false;
}

/** Where the string ends that begins at a place; the end of the text when it does not. */
function endOfString(text: string, from: number): number {
  let at = from;
  do {
    at = text.indexOf('"', at + 1);
    if (at < 0) return text.length;
  } while (isEscaped(text, at));
  return at;
}

function isEscaped(text: string, at: number): boolean {
  let slashes = 0;
  while (text.charCodeAt(at - 1 - slashes) === 0x5c) slashes += 1;
  return slashes % 2 === 1;
}

/** @param where it stands, to the coach; @throws GymFileError */
export function parsedAs<T>(
  schema: z.ZodType<T>,
  text: string,
  { where, deepest }: { readonly where: string; readonly deepest: number },
): T {
  if (isDeeper(text, deepest)) throw wrong(`${where} is nested deeper than Sinew writes it.`);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw wrong(`${where} is no JSON.`);
  }
  const found = schema.safeParse(json);
  if (found.success) return found.data;
  throw wrong(`${where}: ${wrongWith(found.error.issues[0]!)}`);
}
