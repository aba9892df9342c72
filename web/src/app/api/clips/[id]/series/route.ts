import { z } from 'zod';
import { FormatError } from '@sinew/core/format/formatError';
import { readTrackJson } from '@sinew/core/format/trackJson';
import { detectionsOnFilm } from '@sinew/core/observe/track/onFilm';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import type { SpaceTrack } from '@sinew/core/observe/track/track';
import { ownPagesOnly } from '@/app/api/local';
import { loadBench } from '@/data/bench/bench';
import { clipById } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';
import {
  beginsSchema,
  dropSeries,
  keepAsSeen,
  keepSeries,
  seriesNameSchema,
  seriesOf,
} from '@/data/clip/series';

interface Context {
  params: Promise<{ id: string }>;
}

const request = z.object({ fileName: seriesNameSchema, begins: beginsSchema, track: z.string() });

const refusal = (message: string, status: number) => Response.json({ message }, { status });

/** A landmark series from elsewhere, in Sinew's own JSON, for the film of this clip. */
export const PUT = ownPagesOnly(async (sent, { params }: Context) => {
  const { id } = await params;
  const body = request.safeParse(await sent.json().catch(() => null));
  if (!body.success) return refusal('The series could not be read; nothing was kept.', 400);
  const { fileName, begins } = body.data;
  const db = await database();
  const [clip, bench] = await Promise.all([clipById(db, id), loadBench(db, id)]);
  if (!clip || !bench) return refusal('This clip has been deleted.', 404);
  try {
    const track = readTrackJson(body.data.track);
    if (track.space === '3d') {
      await keepSeries(db, id, { fileName, begins, track: track as SpaceTrack });
      await measureClipLater(id);
      return Response.json({ series: await seriesOf(db, id) });
    }
    const times = realFrameTimes(clip.frameTimes, bench.document.captureRate);
    const detections = detectionsOnFilm(track, times, begins);
    if (detections.length === 0) {
      return refusal('The series and the film do not overlap in time; nothing was kept.', 422);
    }
    await keepAsSeen(db, id, fileName, detections);
    await measureClipLater(id);
    return Response.json({ series: null });
  } catch (error) {
    if (error instanceof FormatError) return refusal(`${error.message}; nothing was kept.`, 422);
    throw error;
  }
});

/** Forget it. */
export const DELETE = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  await dropSeries(await database(), id);
  await measureClipLater(id);
  return Response.json({});
});
