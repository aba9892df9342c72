/** Live sound as a track of a recording, off a source that does not care how busy the page is. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

vi.mock('mediabunny', () => ({
  AudioSample: class {
    readonly duration: number;
    timestamp: number;
    constructor(private readonly data: Piece) {
      this.timestamp = data.timestamp / 1e6;
      this.duration = data.duration / 1e6;
    }
    setTimestamp(to: number) {
      this.timestamp = to;
    }
    close() {
      this.data.close();
    }
  },
  AudioSampleSource: class {
    add({ timestamp, duration }: Kept) {
      added.push({ timestamp, duration });
      return Promise.resolve();
    }
  },
  MediaStreamAudioTrackSource: class {
    readonly errorPromise = Promise.reject(new Error('the microphone is gone'));
  },
}));

interface Kept {
  readonly timestamp: number;
  readonly duration: number;
}
interface Piece {
  /** Microseconds. */
  readonly timestamp: number;
  readonly duration: number;
  readonly close: () => void;
}

let added: Kept[] = [];
let waiting: Piece[] = [];
let asks: ((result: { value?: Piece; done: boolean }) => void)[] = [];
let mostWaiting = 0;
const closed = vi.fn();

/** A piece of a hundredth of a second; the microphone's own clock is 700 ms ahead of the page's. */
function sounds(atMs: number, strays = 0): void {
  const timestamp = 1000 * (atMs + 700 + strays);
  const piece = { timestamp, duration: 10_000, close: closed };
  const ask = asks.shift();
  if (ask) ask({ value: piece, done: false });
  else if (waiting.length < mostWaiting) waiting.push(piece);
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['performance', 'setTimeout', 'clearTimeout'] });
  [added, waiting, asks] = [[], [], []];
  closed.mockClear();
  vi.stubGlobal(
    'MediaStreamTrackProcessor',
    class {
      readonly readable = {
        getReader: () => ({
          read: () => {
            const value = waiting.shift();
            if (value) return Promise.resolve({ value, done: false });
            return new Promise((resolve) => asks.push(resolve));
          },
          cancel: () => {
            for (const ask of asks.splice(0)) ask({ done: true });
            return Promise.resolve();
          },
        }),
      };
      constructor({ maxBufferSize }: { maxBufferSize: number }) {
        mostWaiting = maxBufferSize;
      }
    },
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Milliseconds. */
const BEGUN = 2500;

const CONFIG = { codec: 'opus', bitrate: 64_000 } as const;

/**
 * A recording that has run for two and a half seconds: whatever waits is in it.
 *
 * @param late milliseconds by which each piece is late
 * @param pictureLate the same of pictures
 */
async function begun(late = (_ms: number) => 0, pictureLate = late, until = BEGUN) {
  const { soundTrack } = await import('@/video/soundTrack');
  const track = soundTrack({} as MediaStreamAudioTrack, CONFIG);
  void track.record();
  const [coming, pictures]: [number[], number[]] = [[], []];
  for (let t = 0; t < until; t += 10) {
    if (t % 20 === 0) pictures.push(t);
    while (pictures.length > 0 && pictures[0]! + pictureLate(pictures[0]!) <= t) {
      track.pictureCame(pictures.shift()! / 1000);
    }
    coming.push(t);
    while (coming.length > 0 && coming[0]! + late(coming[0]!) <= t) sounds(coming.shift()!);
    await vi.advanceTimersByTimeAsync(10);
  }
  return track;
}

/** Seconds between the end of each piece and the beginning of the next. */
const gaps = () =>
  added.slice(1).map(({ timestamp }, i) => timestamp - added[i]!.timestamp - added[i]!.duration);

describe('the sound of a recording', () => {
  it('begins with the film, whatever clock the microphone goes by', async () => {
    await begun();
    expect(added.length).toBeGreaterThan(40);
    expect(added[0]!.timestamp).toBeCloseTo(0, 6);
    expect(Math.max(...gaps().map(Math.abs))).toBeLessThan(1e-9);
  });

  it('begins with the film also where most of it comes late: what came quickest tells', async () => {
    const late = (ms: number) => (ms <= 120 ? Math.min(30, 120 - ms) : 30);
    await begun(late, () => 0);
    expect(added[0]!.timestamp).toBeCloseTo(0, 6);
    expect(added.at(-1)!.timestamp).toBeCloseTo(2.46, 6);
  });

  it('is right soon after a page was busy as the film began, or an encoder was not ready', async () => {
    // All pictures of the first second come at its end, and some of the next one late.
    const late = (ms: number) => (ms < 1000 ? 1000 - ms : ms < 1500 ? 250 : 0);
    await begun(() => 0, late, 3500);
    expect(added.at(-1)!.timestamp).toBeCloseTo(3.49, 6);
  });

  it('mends what it did not know when it began, and never goes back', async () => {
    await begun(
      () => 0,
      (ms) => (ms < 3000 ? 100 : 0),
      4000,
    );
    // What sounded before it knew is early by what pictures were late; then it is right.
    expect(added[0]!.timestamp).toBeLessThan(0.011);
    expect(added.at(-1)!.timestamp).toBeCloseTo(3.99, 6);
    expect(Math.min(...gaps())).toBeGreaterThan(-1e-9);
    const late = added.length;
    for (let t = 4000; t < 4200; t += 10) {
      sounds(t, -60);
      await vi.advanceTimersByTimeAsync(10);
    }
    expect(added.length).toBe(late + 20);
    expect(Math.min(...gaps())).toBeGreaterThan(-1e-9);
  });

  it('of a short recording is in it, too', async () => {
    const track = await begun(
      () => 0,
      () => 0,
      300,
    );
    expect(added).toHaveLength(0);
    void track.stop();
    for (let t = 300; t < 400; t += 10) {
      sounds(t);
      await vi.advanceTimersByTimeAsync(10);
    }
    expect(added[0]!.timestamp).toBeCloseTo(0, 6);
    expect(added.at(-1)!.timestamp).toBeCloseTo(0.3, 6);
  });

  it('of a page that was busy for five seconds waits, and comes whole', async () => {
    await begun();
    // Nothing is asked for meanwhile: whoever reads does not come to it.
    const reader = asks.splice(0);
    for (let t = BEGUN; t < BEGUN + 5000; t += 10) sounds(t);
    expect(waiting).toHaveLength(500);
    reader[0]!({ value: waiting.shift()!, done: false });
    await vi.advanceTimersByTimeAsync(5000);
    expect(added.at(-1)!.timestamp).toBeCloseTo(7.49, 6);
    expect(Math.max(...gaps().map(Math.abs))).toBeLessThan(1e-9);
    expect(closed).toHaveBeenCalledTimes(750);
  });

  it('goes on where it ended when stamps stray, and stays silent where some is missing', async () => {
    await begun();
    for (let t = BEGUN; t < 2700; t += 10) {
      sounds(t, t % 40 === 0 ? 4 : -4);
      await vi.advanceTimersByTimeAsync(10);
    }
    expect(Math.max(...gaps().map(Math.abs))).toBeLessThan(1e-9);
    await vi.advanceTimersByTimeAsync(300);
    for (let t = 3000; t < 3100; t += 10) {
      sounds(t);
      await vi.advanceTimersByTimeAsync(10);
    }
    const missing = gaps().filter((gap) => Math.abs(gap) > 1e-9);
    expect(missing).toHaveLength(1);
    expect(missing[0]).toBeCloseTo(0.3, 2);
    expect(added.at(-1)!.timestamp).toBeCloseTo(3.09, 2);
  });

  it('ends with what has sounded by then, and does not wait for ever for more', async () => {
    const track = await begun();
    let isOver = false;
    const stopped = track.stop().then(() => (isOver = true));
    await vi.advanceTimersByTimeAsync(900);
    expect(isOver).toBe(false);
    await vi.advanceTimersByTimeAsync(200);
    await stopped;
    expect(added.at(-1)!.timestamp).toBeCloseTo(2.49, 6);
  });

  it('that no browser gives in pieces goes through the page, and says what stops it', async () => {
    vi.stubGlobal('MediaStreamTrackProcessor', undefined);
    delete (globalThis as { MediaStreamTrackProcessor?: unknown }).MediaStreamTrackProcessor;
    const { soundTrack } = await import('@/video/soundTrack');
    const track = soundTrack({} as MediaStreamAudioTrack, CONFIG);
    await expect(track.record()).rejects.toThrow('the microphone is gone');
    await track.stop();
  });
});
