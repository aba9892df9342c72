/** A file that cannot be read; the message names the place and the reason. */
export class FormatError extends Error {
  /** @param line counted from 1; none where the file has no lines to speak of */
  constructor(message: string, line?: number) {
    super(line === undefined ? message : `line ${line}: ${message}`);
  }
}
