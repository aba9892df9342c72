import { Problem } from '@sinew/core/foundation/problem/problem';
import { byteRange } from '@/data/clip/byteRange';
import { clipFiles } from '@/data/clip/clipFilesHere';
import { servedType } from '@/video/filmTypes';
import { ofClip } from '../ofClip';

/** The clip's file, whole or the byte range asked for. */
export const GET = ofClip(async (request, { clip }) => {
  const files = clipFiles();
  const film = await files.shown(clip.sha256);
  if (film === null) {
    throw new Problem('gone', { happened: 'This clip’s file is not there any more.' });
  }
  const { path, bytes: size, isOriginal } = film;
  const headers = {
    'content-type': isOriginal ? servedType(clip.mimeType) : 'video/mp4',
    'accept-ranges': 'bytes',
    'cache-control': 'private, no-store',
    etag: `"${clip.sha256}${isOriginal ? '' : '-readable'}"`,
  };
  const range = byteRange(request.headers.get('range'), size);
  if (range.kind === 'unsatisfiable') {
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  }
  const [from, to] = range.kind === 'part' ? [range.from, range.to] : [0, size - 1];
  const body = await files.read(path, from, to);
  return new Response(body, {
    status: range.kind === 'part' ? 206 : 200,
    headers: {
      ...headers,
      'content-length': String(to - from + 1),
      ...(range.kind === 'part' && { 'content-range': `bytes ${from}-${to}/${size}` }),
    },
  });
});
