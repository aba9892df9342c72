import { byteRange } from '@/data/film/byteRange';

export interface ServedBytes {
  /** Both ends included. */
  readonly read: (from: number, to: number) => Promise<ReadableStream<Uint8Array>>;
  /** How many there are. */
  readonly bytes: number;
  readonly type: string;
  readonly etag: string;
}

/**
 * A file, whole or the byte range asked for.
 *
 * @throws when it is not there any more
 */
export async function servedFile(
  request: Request,
  { read, bytes: size, type, etag }: ServedBytes,
): Promise<Response> {
  const headers = {
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, no-store',
    etag: `"${etag}"`,
  };
  const range = byteRange(request.headers.get('range'), size);
  if (range.kind === 'unsatisfiable') {
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  }
  const [from, to] = range.kind === 'part' ? [range.from, range.to] : [0, size - 1];
  const body = await read(from, to);
  return new Response(body, {
    status: range.kind === 'part' ? 206 : 200,
    headers: {
      ...headers,
      'content-length': String(to - from + 1),
      ...(range.kind === 'part' && { 'content-range': `bytes ${from}-${to}/${size}` }),
    },
  });
}
