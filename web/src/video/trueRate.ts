/** How many frames a second a camera really gives: counted, not believed. */
import { rateOf, type Rate } from '@sinew/core/observe/footage/rate';

/** Seconds of frames that are looked at. */
const WINDOW = 1.5;

interface Processor {
  readonly readable: ReadableStream<VideoFrame>;
}

type ProcessorMaker = new (init: { track: MediaStreamTrack }) => Processor;

/**
 * Counts the frames of a track until told to stop.
 *
 * @param onRate called twice a second or so with the rate of the last moments
 * @returns how to stop; null when this browser cannot count frames
 */
export function watchRate(
  track: MediaStreamTrack,
  onRate: (rate: Rate) => void,
): (() => void) | null {
  const Maker = (globalThis as { MediaStreamTrackProcessor?: ProcessorMaker })
    .MediaStreamTrackProcessor;
  if (!Maker) return null;
  const own = track.clone();
  const reader = new Maker({ track: own }).readable.getReader();
  let times: number[] = [];
  let told = 0;
  void (async () => {
    for (;;) {
      const { value: frame, done } = await reader.read();
      if (done) return;
      const time = frame.timestamp / 1e6;
      frame.close();
      // A film that starts over, or a camera that was changed, starts a new count.
      if (times.length > 0 && time <= times[times.length - 1]!) times = [];
      times = [...times.filter((one) => time - one < WINDOW), time];
      if (times.length > 4 && performance.now() - told > 500) {
        told = performance.now();
        onRate(rateOf(times));
      }
    }
  })().catch(() => undefined);
  return () => {
    void reader.cancel().catch(() => undefined);
    own.stop();
  };
}
