/**
 * What a microphone beside the camera hears of a take: gloves on the bag, the breath let out with
 * each strike, and the room. All from seeded noise; sound takes its time from the bag to the camera.
 */
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { SPEED_OF_SOUND } from '@sinew/core/observe/sound/sync';
import { distanceTo, hitsOf, type DemoTake, type TakeFilm } from './takes';

/** Samples a second. */
export const SOUND_RATE = 48_000;

const ROOM = 0.004;
/** A breath is let out over this long and ends as the strike lands, seconds. */
const BREATH = 0.22;

/** A burst of noise from `from` seconds on; its loudness is given over its own seconds. */
function burst(
  into: Float32Array,
  from: number,
  duration: number,
  loudness: (own: number) => number,
  seed: number,
): void {
  const random = seeded(seed);
  const first = Math.ceil(from * SOUND_RATE);
  const last = Math.min(into.length, Math.ceil((from + duration) * SOUND_RATE));
  for (let i = Math.max(0, first); i < last; i++) {
    into[i]! += normal(random) * loudness(i / SOUND_RATE - from);
  }
}

/**
 * Samples from the film's own start, −1 to 1.
 *
 * @param room loudness of the room's noise, root mean square; a glove on the bag peaks at about 0.6
 */
export function heardBy(take: DemoTake, film: TakeFilm, room = ROOM): Float32Array {
  const samples = new Float32Array(Math.floor((take.duration - film.starts) * SOUND_RATE));
  burst(samples, 0, take.duration, () => room, film.file.length);
  hitsOf(take).forEach((hit, index) => {
    const heard = hit.time + distanceTo(film, hit) / SPEED_OF_SOUND - film.starts;
    const strength = hit.technique === 'jab' ? 0.14 : 0.22;
    burst(samples, heard, 0.09, (t) => strength * Math.exp(-t / 0.012), 100 + index);
    const breath = (t: number) => 0.02 * Math.sin((Math.PI * t) / BREATH) ** 2;
    burst(samples, heard - BREATH, BREATH, breath, 200 + index);
    // The bag itself: a low thump.
    const first = Math.ceil(heard * SOUND_RATE);
    for (let i = Math.max(0, first); i < Math.min(samples.length, first + SOUND_RATE / 5); i++) {
      const t = i / SOUND_RATE - heard;
      samples[i]! += 1.6 * strength * Math.exp(-t / 0.04) * Math.sin(2 * Math.PI * 95 * t);
    }
  });
  return samples.map((value) => Math.max(-1, Math.min(1, value)));
}

/** 16-bit PCM, one channel. */
export function wav(samples: Float32Array, rate: number): Buffer {
  const file = Buffer.alloc(44 + 2 * samples.length);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + 2 * samples.length, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(16, 16);
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(1, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(2 * rate, 28);
  file.writeUInt16LE(2, 32);
  file.writeUInt16LE(16, 34);
  file.write('data', 36);
  file.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((value, i) => file.writeInt16LE(Math.round(32_767 * value), 44 + 2 * i));
  return file;
}
