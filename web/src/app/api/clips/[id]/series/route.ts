import { FormatError } from '@sinew/core/format/formatError';
import { readTrackJson, writeTrackJson } from '@sinew/core/format/trackJson';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { detectionsOnFilm } from '@sinew/core/observe/track/onFilm';
import { sizeProblem } from '@sinew/core/observe/track/bodySize';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import type { SpaceTrack } from '@sinew/core/observe/track/track';
import { bodyOf, CLIP_GONE, done, there } from '@/app/api/answers';
import { KEEP_SERIES } from '@/api/endpoints';
import { loadBench } from '@/data/bench/bench';
import { dropSeries, keepAsSeen, keepSeries, seriesOf } from '@/data/clip/series';
import { measureClipLater } from '@/data/finding/measureLater';
import { ofClip } from '../ofClip';

const safe = 'Nothing was kept.';

/** A landmark series from elsewhere, in Sinew's own JSON, for the film of this clip. */
export const PUT = ofClip(async (request, { db, clip }) => {
  const { id } = clip;
  const {
    fileName,
    begins,
    track: text,
  } = await bodyOf(request, KEEP_SERIES.sends, {
    happened: 'The series could not be read.',
    safe,
  });
  const { document } = there(await loadBench(db, id), CLIP_GONE);
  const track = trackIn(text);
  if (track.space === '3d') {
    await keepSeries(db, id, { fileName, begins, track: track as SpaceTrack });
    await measureClipLater(id);
    const kept = await seriesOf(db, id);
    return Response.json({ series: kept && { ...kept, track: writeTrackJson(kept.track) } });
  }
  const times = realFrameTimes(clip.frameTimes, document.captureRate);
  const detections = detectionsOnFilm(track, times, begins);
  if (detections.length === 0) {
    throw new Problem('refused', {
      happened: 'The series and the film do not overlap in time.',
      safe,
      todo: 'Say at which time of the film the series begins.',
    });
  }
  await keepAsSeen(db, id, fileName, detections);
  await measureClipLater(id);
  return Response.json({ series: null });
});

function trackIn(text: string) {
  try {
    const track = readTrackJson(text);
    const problem = track.space === '3d' ? sizeProblem(track, null) : null;
    if (problem !== null) throw new FormatError(problem);
    return track;
  } catch (error) {
    if (!(error instanceof FormatError)) throw error;
    const why = error.message.replace(/[.?]$/, '');
    throw new Problem('refused', { happened: `The series cannot be read: ${why}.`, safe });
  }
}

/** Forget it. */
export const DELETE = ofClip(async (_, { db, clip: { id } }) => {
  await dropSeries(db, id);
  await measureClipLater(id);
  return done();
});
