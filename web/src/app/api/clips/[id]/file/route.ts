import { Problem } from '@sinew/core/foundation/problem/problem';
import { servedFile } from '@/app/api/servedFile';
import { clipFiles } from '@/data/film/clipFilesHere';
import { servedType } from '@/video/filmTypes';
import { ofClip } from '../ofClip';

/** The clip's file, whole or the byte range asked for. */
export const GET = ofClip(async (request, { clip }) => {
  const film = await clipFiles().shown(clip.sha256);
  if (film === null) {
    throw new Problem('gone', { happened: 'This clip’s file is not there any more.' });
  }
  const { read, bytes, isOriginal } = film;
  return servedFile(request, {
    read,
    bytes,
    type: isOriginal ? servedType(clip.mimeType) : 'video/mp4',
    etag: `${clip.sha256}${isOriginal ? '' : '-readable'}`,
  });
});
