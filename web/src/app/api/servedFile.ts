import { byteRange } from '@/data/clip/byteRange';
import { clipFiles } from '@/data/clip/clipFilesHere';

/**
 * A file, whole or the byte range asked for.
 *
 * @param bytes its size
 * @throws what the file system says when it is not there
 */
export async function servedFile(
  request: Request,
  { path, bytes: size, type, etag }: { path: string; bytes: number; type: string; etag: string },
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
  const body = await clipFiles().read(path, from, to);
  return new Response(body, {
    status: range.kind === 'part' ? 206 : 200,
    headers: {
      ...headers,
      'content-length': String(to - from + 1),
      ...(range.kind === 'part' && { 'content-range': `bytes ${from}-${to}/${size}` }),
    },
  });
}
