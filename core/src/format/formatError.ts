import { Problem } from '../foundation/problem/problem';

/** A file that cannot be read; the message names the place and the reason. */
export class FormatError extends Problem {
  /** @param line counted from 1; none where the file has no lines to speak of */
  constructor(message: string, line?: number) {
    super('not-understood', {
      happened: line === undefined ? message : `line ${line}: ${message}`,
    });
  }
}
