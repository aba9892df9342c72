/** The app's own decoder and body tracker at work on a film or a photograph; see `tracked.ts`. */
import { BlobSource } from 'mediabunny';
import { boxOf, type Box } from '@sinew/core/observe/track/box';
import { BodyTracker } from '@sinew/web/tracking/bodyTracker';
import { findPeople } from '@sinew/web/tracking/findPeople';
import { coarseFrames, findIn, whereToLook } from '@sinew/web/tracking/plan';
import type { Found } from '@sinew/web/api/job';
import type { Model } from '@sinew/web/api/models';
import { FrameSource } from '@sinew/web/video/frameSource';
import { surveyFilm } from '@sinew/web/video/filmSurvey';
import type { Survey } from '@sinew/core/observe/take/survey';

/** Frame and numbers of a detection, as in the core. */
type Seen = readonly [number, readonly number[]];

export interface TrackedFilm {
  /** The file's own times, seconds. */
  readonly times: readonly number[];
  readonly width: number;
  readonly height: number;
  readonly detections: readonly Seen[];
  /** Milliseconds a frame, decoding included. */
  readonly pace: number;
}

export interface TrackedPicture {
  readonly width: number;
  readonly height: number;
  /** Everybody found, the surest first. */
  readonly people: readonly (readonly number[])[];
}

export type Task =
  | { readonly kind: 'people'; readonly address: string }
  | {
      readonly kind: 'film';
      readonly address: string;
      readonly model: Model;
      readonly people: Found['people'];
    }
  | { readonly kind: 'picture'; readonly address: string; readonly model: Model }
  | { readonly kind: 'survey'; readonly address: string }
  /** The model alone, on one picture over and over. */
  | {
      readonly kind: 'bare';
      readonly address: string;
      readonly model: Model;
      readonly count: number;
    };

const sizeOf = (picture: VideoFrame | ImageBitmap) =>
  'displayWidth' in picture
    ? { width: picture.displayWidth, height: picture.displayHeight }
    : { width: picture.width, height: picture.height };

const blobAt = async (address: string) => (await fetch(address)).blob();

/** As the app looks for the student before it looks closely. */
async function people(address: string): Promise<Found['people']> {
  const source = await FrameSource.open(new BlobSource(await blobAt(address)));
  const tracker = await BodyTracker.load('/tracker', 'quick', 3);
  const size = await sizeOfFilm(source);
  const see = async (frame: number, within: Box) => {
    const picture = await source.frame(frame);
    const boxes = tracker.look(picture, within, frame).map(boxOf);
    picture.close();
    return boxes;
  };
  const found = await findPeople(see, coarseFrames(source.frameTimes), size, null, () => {});
  tracker.close();
  return found.people;
}

async function sizeOfFilm(source: FrameSource) {
  const picture = await source.frame(0);
  const size = sizeOf(picture);
  picture.close();
  return size;
}

async function film(address: string, model: Model, seen: Found['people']): Promise<TrackedFilm> {
  const source = await FrameSource.open(new BlobSource(await blobAt(address)));
  const tracker = await BodyTracker.load('/tracker', model);
  const detections: Seen[] = [];
  const size = await sizeOfFilm(source);
  let started = 0;
  for (let frame = 0; frame < source.frameTimes.length; frame++) {
    const picture = await source.frame(frame);
    const places = whereToLook(seen, frame, size);
    const [body] = findIn(places, (place) => tracker.look(picture, place, frame));
    picture.close();
    if (frame === 0) started = performance.now();
    if (body) detections.push([frame, [...body.values]]);
  }
  const pace = (performance.now() - started) / Math.max(1, source.frameTimes.length - 1);
  tracker.close();
  return { times: source.frameTimes, ...size, detections, pace };
}

async function survey(address: string): Promise<Survey> {
  const blob = await blobAt(address);
  const { frameTimes } = await FrameSource.open(new BlobSource(blob));
  return surveyFilm(new BlobSource(blob), frameTimes.length, () => undefined);
}

async function picture(address: string, model: Model): Promise<TrackedPicture> {
  const bitmap = await createImageBitmap(await blobAt(address));
  const tracker = await BodyTracker.load('/tracker', model, 3);
  const size = sizeOf(bitmap);
  const people = tracker.look(bitmap, { x: 0, y: 0, ...size }, 0).map(({ values }) => [...values]);
  tracker.close();
  return { ...size, people };
}

/** @returns milliseconds a picture */
async function bare(address: string, model: Model, count: number): Promise<number> {
  const source = await FrameSource.open(new BlobSource(await blobAt(address)));
  const shown = await source.frame(0);
  const size = sizeOf(shown);
  const tracker = await BodyTracker.load('/tracker', model);
  const whole = { x: 0, y: 0, ...size };
  tracker.look(shown, whole, 0);
  const started = performance.now();
  for (let i = 0; i < count; i++) tracker.look(shown, whole, 0);
  const pace = (performance.now() - started) / count;
  shown.close();
  tracker.close();
  return pace;
}

function run(task: Task): Promise<unknown> {
  switch (task.kind) {
    case 'film':
      return film(task.address, task.model, task.people);
    case 'people':
      return people(task.address);
    case 'picture':
      return picture(task.address, task.model);
    case 'survey':
      return survey(task.address);
    case 'bare':
      return bare(task.address, task.model, task.count);
  }
}

onmessage = ({ data: task }: MessageEvent<Task>) => {
  run(task).then(
    (result) => postMessage({ result }),
    (error: unknown) => postMessage({ error: String(error) }),
  );
};
