/** Goes once through a film, its sound first, holding one small picture at a time. */
import {
  ALL_FORMATS,
  AudioSampleSink,
  Input,
  VideoSampleSink,
  type InputVideoTrack,
  type Source,
  type VideoSample,
} from 'mediabunny';
import { edgeWidth } from '@sinew/core/observe/footage/blur';
import { greyFrom, lightOf, type Grey } from '@sinew/core/observe/footage/grey';
import { MovementMap, repeatedFrames, type Movement } from '@sinew/core/observe/footage/movement';
import { shakeOf, shiftBetween, type Shift } from '@sinew/core/observe/footage/shake';
import { EnvelopeMaker } from '@sinew/core/observe/sound/envelope';
import { findBreaths, findHits } from '@sinew/core/observe/sound/onsets';
import type { Survey } from '@sinew/core/observe/take/survey';

/** Widths of the pictures that are looked at, pixels. */
const SMALL = 160;
const MIDDLE = 320;
const LARGE = 640;
/** So many pictures, spread over the film, tell of light and of the camera's shake. */
const SAMPLES = 24;
/** So many of the strongest moments tell of blur. */
const STRONGEST = 6;
/** The sound's part of the work, as a share. */
const SOUND_SHARE = 0.1;

/**
 * @param count how many frames the film has
 * @param onProgress called with a share of the work, 0 to 1
 */
export async function surveyFilm(
  source: Source,
  count: number,
  onProgress: (share: number) => void,
): Promise<Survey> {
  const input = new Input({ source, formats: ALL_FORMATS });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) throw new Error('There is no picture in this clip.');
    const heard = await listen(input, (share) => onProgress(share * SOUND_SHARE));
    const seen = await look(track, count, (share) =>
      onProgress(SOUND_SHARE + share * (1 - SOUND_SHARE)),
    );
    return { ...seen, ...heard };
  } finally {
    input.dispose();
  }
}

type Heard = Pick<Survey, 'hasSound' | 'hits' | 'breaths'>;

async function listen(input: Input, onProgress: (share: number) => void): Promise<Heard> {
  const track = await input.getPrimaryAudioTrack();
  if (!track || !(await track.canDecode())) return { hasSound: false, hits: [], breaths: [] };
  const duration = await track.computeDuration();
  let maker: EnvelopeMaker | null = null;
  let channel = new Float32Array(0);
  for await (const sample of new AudioSampleSink(track).samples()) {
    maker ??= new EnvelopeMaker(sample.sampleRate);
    if (channel.length !== sample.numberOfFrames) channel = new Float32Array(sample.numberOfFrames);
    sample.copyTo(channel, { planeIndex: 0, format: 'f32-planar' });
    maker.add(channel, sample.timestamp);
    onProgress(Math.min(1, sample.timestamp / Math.max(duration, 1e-3)));
    sample.close();
  }
  if (!maker) return { hasSound: false, hits: [], breaths: [] };
  const envelope = maker.finish();
  const hits = findHits(envelope);
  return { hasSound: true, hits, breaths: findBreaths(envelope, hits) };
}

async function look(
  track: InputVideoTrack,
  count: number,
  onProgress: (share: number) => void,
): Promise<Omit<Survey, keyof Heard>> {
  const [width, height] = [await track.getDisplayWidth(), await track.getDisplayHeight()];
  const small = painter(width, height, SMALL);
  const middle = painter(width, height, MIDDLE);
  const large = painter(width, height, LARGE);
  const map = new MovementMap(small.width, small.height);
  const movements: Movement[] = [];
  const strongest = new Strongest();
  const sampled: Grey[] = [];
  const shifts: Shift[] = [];
  let first: Grey | null = null;
  let before: Grey | null = null;
  let number = 0;
  const every = Math.max(1, Math.floor(count / SAMPLES));
  for await (const sample of new VideoSampleSink(track).samples()) {
    const picture = small.paint(sample);
    const movement = map.add(picture);
    if (movement) movements.push(movement);
    if (movement && before && strongest.wants(movement.amount)) {
      strongest.add({ amount: movement.amount, large: large.paint(sample), before, picture });
    }
    if (number % every === 0) {
      sampled.push(picture);
      const view = middle.paint(sample);
      first ??= view;
      const shift = first === view ? { x: 0, y: 0 } : shiftBetween(first, view);
      if (shift) shifts.push(shift);
    }
    sample.close();
    before = picture;
    number += 1;
    if (number % 8 === 0) onProgress(Math.min(1, number / count));
  }
  if (number < count) {
    throw new Error(
      `Only ${number} of ${count} frames can be decoded: the clip is damaged after that. ` +
        'It is kept as it is.',
    );
  }
  const shake = shifts.length >= sampled.length / 2 ? shakeOf(shifts) : null;
  const toFilm = width / middle.width;
  return {
    width,
    height,
    amounts: [0, ...movements.map(({ amount }) => Math.round(amount * 1e7) / 1e7)],
    repeated: repeatedFrames(movements),
    light: lightOf(sampled),
    edges: strongest.edges(map, width / large.width),
    shake: shake && { jitter: shake.jitter * toFilm, drift: shake.drift * toFilm },
    moved: map.box(),
  };
}

interface Painter {
  readonly width: number;
  readonly height: number;
  paint(sample: VideoSample): Grey;
}

/** Draws pictures no wider than `most`, in grey. */
function painter(width: number, height: number, most: number): Painter {
  const scale = Math.min(1, most / width);
  const [w, h] = [Math.round(width * scale), Math.round(height * scale)];
  const context = new OffscreenCanvas(w, h).getContext('2d', { willReadFrequently: true })!;
  return {
    width: w,
    height: h,
    paint(sample) {
      sample.draw(context, 0, 0, w, h);
      return greyFrom(context.getImageData(0, 0, w, h).data, w, h);
    },
  };
}

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

interface Moment {
  readonly amount: number;
  readonly large: Grey;
  readonly before: Grey;
  readonly picture: Grey;
}

/** Levels by which a place must change from one frame to the next to count as moving. */
const MOVES = 24;

/** The moments at which most moves, no more of them than are needed. */
class Strongest {
  private moments: Moment[] = [];

  wants(amount: number): boolean {
    return this.moments.length < STRONGEST || amount > this.moments[STRONGEST - 1]!.amount;
  }

  add(moment: Moment): void {
    this.moments = [...this.moments, moment]
      .sort((a, b) => b.amount - a.amount)
      .slice(0, STRONGEST);
  }

  /** @param toFilm pixels of the film to one of the large pictures */
  edges(map: MovementMap, toFilm: number): Survey['edges'] {
    const moving: number[] = [];
    const still: number[] = [];
    for (const { large, before, picture } of this.moments) {
      const shareOf = (x: number, y: number) => [x / large.width, y / large.height] as const;
      const changes = (x: number, y: number) => {
        const [sx, sy] = shareOf(x, y);
        const at = Math.floor(sy * picture.height) * picture.width + Math.floor(sx * picture.width);
        return Math.abs(picture.data[at]! - before.data[at]!) > MOVES;
      };
      const fast = edgeWidth(large, changes);
      const rest = edgeWidth(large, (x, y) => !map.movedAt(...shareOf(x, y)));
      if (fast !== null) moving.push(fast * toFilm);
      if (rest !== null) still.push(rest * toFilm);
    }
    return {
      moving: moving.length > 0 ? median(moving) : null,
      still: still.length > 0 ? median(still) : null,
    };
  }
}
