import { Problem } from '@sinew/core/foundation/problem/problem';
import { byteRange } from '@/data/clip/byteRange';
import { clipFiles } from '@/data/clip/clipFilesHere';
import { servedType } from '@/video/filmTypes';
import { ofClip } from '../ofClip';

/** The clip's file, whole or the byte range asked for. */
export const GET = ofClip(async (request, { clip }) => {
  const files = clipFiles();
  const size = await files.size(clip.sha256);
  if (size === null) {
    throw new Problem('gone', { happened: 'This clip’s file is not there any more.' });
  }
  const headers = {
    'content-type': servedType(clip.mimeType),
    'accept-ranges': 'bytes',
    'cache-control': 'private, no-store',
    etag: `"${clip.sha256}"`,
  };
  const range = byteRange(request.headers.get('range'), size);
  if (range.kind === 'unsatisfiable') {
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  }
  const [from, to] = range.kind === 'part' ? [range.from, range.to] : [0, size - 1];
  const body = await files.read(clip.sha256, from, to);
  return new Response(body, {
    status: range.kind === 'part' ? 206 : 200,
    headers: {
      ...headers,
      'content-length': String(to - from + 1),
      ...(range.kind === 'part' && { 'content-range': `bytes ${from}-${to}/${size}` }),
    },
  });
});
