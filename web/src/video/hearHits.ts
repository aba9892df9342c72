import { Listening } from '@sinew/core/observe/sound/listening';

/** Milliseconds between two looks at what has been heard; each covers far more. */
const EVERY = 120;
/** Samples in one look: two thirds of a second, the longest that a page can ask for. */
const HEARD = 32_768;

/**
 * Tells every hit as it is heard.
 *
 * @param onHit is told the instant by the page's clock, milliseconds
 * @returns how to stop; null where the stream has no sound
 */
export function hearHits(
  stream: MediaStream,
  onHit: (instant: number) => void,
): (() => void) | null {
  if (stream.getAudioTracks().length === 0) return null;
  const device = new AudioContext();
  void device.resume();
  const meter = device.createAnalyser();
  meter.fftSize = HEARD;
  device.createMediaStreamSource(stream).connect(meter);
  const listening = new Listening(device.sampleRate);
  const samples = new Float32Array(HEARD);
  const timer = setInterval(() => {
    meter.getFloatTimeDomainData(samples);
    const end = device.currentTime;
    const now = performance.now();
    for (const { time } of listening.hear(samples, end)) onHit(now - 1000 * (end - time));
  }, EVERY);
  return () => {
    clearInterval(timer);
    void device.close();
  };
}
