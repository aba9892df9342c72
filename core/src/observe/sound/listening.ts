/** Hits while they can still be heard: from overlapping pieces of what a microphone gives, each told once. */
import { EnvelopeMaker, HOP } from './envelope';
import { findHits, quietOf, type Hit } from './onsets';

/** A piece begins in the middle of something: what is in its first moment was told of with the piece before. */
const CUT = 0.03;
/** Seconds: the same hit heard in two pieces is this near to itself, and two hits are not. */
const SAME = 0.06;
/** Pieces whose quiet is remembered: a bag that rings is not what the room is like. */
const REMEMBERED = 60;

export class Listening {
  private last = -Infinity;
  private readonly quiets: number[] = [];

  /** @param rate samples a second */
  constructor(private readonly rate: number) {}

  /**
   * @param samples the latest, one channel, −1 to 1; a good part of them may have been given before
   * @param end seconds by any one clock, at the end of them
   * @returns hits that were not told of yet, by the same clock
   */
  hear(samples: Float32Array, end: number): Hit[] {
    // A device that has only just begun gives nothing at all at first, which is not a quiet room.
    const first = samples.findIndex((one) => one !== 0);
    if (first < 0) return [];
    const begin = end - (samples.length - first) / this.rate;
    const maker = new EnvelopeMaker(this.rate);
    maker.add(samples.subarray(first), begin);
    const envelope = maker.finish();
    this.quiets.push(quietOf(envelope));
    if (this.quiets.length > REMEMBERED) this.quiets.shift();
    const heard = findHits(envelope, Math.min(...this.quiets));
    const fresh = heard.filter(
      ({ time }) => time > begin + CUT + HOP && time > this.last + SAME && time <= end,
    );
    this.last = fresh.at(-1)?.time ?? this.last;
    return fresh;
  }
}
