import { Listening } from '@sinew/core/observe/sound/listening';

/** Seconds that are listened through anew with every piece: a hit that is cut by its end is heard with the next. */
const HEARD = 0.7;

interface Piece {
  readonly samples: Float32Array;
  /** By the sound's own clock, seconds. */
  readonly end: number;
}

/**
 * Tells every hit as it is heard. A page that stalls hears them later, and misses none.
 *
 * @param onHit is told the instant by the page's clock, milliseconds
 * @returns how to stop
 */
export function hearHits(stream: MediaStream, onHit: (instant: number) => void): () => void {
  if (stream.getAudioTracks().length === 0) return () => {};
  const device = new AudioContext();
  void device.resume();
  const listening = new Listening(device.sampleRate);
  const heard = new Float32Array(Math.round(HEARD * device.sampleRate));
  const hear = ({ samples, end }: Piece) => {
    heard.copyWithin(0, samples.length);
    heard.set(samples, heard.length - samples.length);
    for (const { time } of listening.hear(heard, end)) {
      onHit(performance.now() - 1000 * (device.currentTime - time));
    }
  };
  // A browser without it films all the same, and hears nothing.
  void device.audioWorklet
    .addModule('/hear.js')
    .then(() => {
      const ear = new AudioWorkletNode(device, 'hear', { numberOfOutputs: 0 });
      ear.port.onmessage = ({ data }: MessageEvent<Piece>) => hear(data);
      device.createMediaStreamSource(stream).connect(ear);
    })
    .catch(() => undefined);
  return () => void device.close();
}
