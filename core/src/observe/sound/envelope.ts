/**
 * How loud a recording is over time, small enough to be kept: one number each quarter millisecond
 * of the part of the sound that rises sharply, whatever the length of the recording.
 */

/** Seconds between two values of an envelope. */
export const HOP = 0.00025;

export interface Envelope {
  /** Root mean square of the sound's differences, per hop: high notes count more than low ones. */
  readonly loudness: Float32Array;
  /** How often the sound changes sign, per second, per hop. */
  readonly crossings: Float32Array;
  /** Seconds of the film at the first hop. */
  readonly start: number;
}

/** Takes a recording in pieces, in order, and gives its envelope; holds no sound. */
export class EnvelopeMaker {
  private readonly loudness: number[] = [];
  private readonly crossings: number[] = [];
  private start: number | null = null;
  private last = 0;
  private lastRise = 0;
  private sum = 0;
  private changes = 0;
  private count = 0;
  private taken = 0;

  /** @param rate samples a second */
  constructor(private readonly rate: number) {}

  /**
   * @param samples one channel, −1 to 1
   * @param time seconds of the film at the first of them; only the first piece's counts
   */
  add(samples: Float32Array, time: number): void {
    this.start ??= time;
    for (const sample of samples) {
      const rise = sample - this.last;
      this.sum += rise * rise;
      if (rise * this.lastRise < 0) this.changes += 1;
      if (rise !== 0) this.lastRise = rise;
      this.last = sample;
      this.count += 1;
      this.taken += 1;
      if (this.taken >= (this.loudness.length + 1) * HOP * this.rate) this.close();
    }
  }

  private close(): void {
    this.loudness.push(Math.sqrt(this.sum / this.count));
    this.crossings.push((this.changes / this.count) * this.rate);
    this.sum = 0;
    this.changes = 0;
    this.count = 0;
  }

  finish(): Envelope {
    return {
      loudness: Float32Array.from(this.loudness),
      crossings: Float32Array.from(this.crossings),
      start: this.start ?? 0,
    };
  }
}
