/** What is used of it; the package brings no types of its own. */
declare module 'pino-roll' {
  import type { DestinationStream } from 'pino';

  export default function roll(options: {
    readonly file: string;
    readonly extension: string;
    readonly frequency: 'daily';
    readonly size: string;
    readonly limit: { readonly count: number };
    readonly mkdir: boolean;
    readonly mode: number;
  }): Promise<DestinationStream>;
}
