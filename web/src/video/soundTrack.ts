/**
 * The sound of a live stream as a track of a recording, with nothing left out: a page that is busy for
 * a moment takes it a moment later.
 */
import {
  AudioSample,
  AudioSampleSource,
  MediaStreamAudioTrackSource,
  type AudioEncodingConfig,
  type AudioSource,
} from 'mediabunny';

/** Pieces of a hundredth of a second that wait for a busy page; unasked a browser keeps ten, and drops the rest. */
const WAITING = 1000;
/**
 * Milliseconds after which pictures and sound have each come without delay at least once, as a rule. Not more: until
 * then nothing is written, and a page that is closed would leave nothing. What comes quicker later still counts.
 */
const SETTLED = 400;
/** Seconds: stamps stray by a tenth of it in Chromium; what is missing for longer is kept as silence. */
const STRAY = 0.02;
/** Milliseconds that the last pieces of a recording are waited for. */
const PATIENCE = 1000;

export interface SoundTrack {
  readonly source: AudioSource;
  /** A frame of the film has come. @param time seconds of the film */
  readonly pictureCame: (time: number) => void;
  /** Begins to record, once the recording has been started. @throws whatever stops the sound */
  readonly record: () => Promise<void>;
  /** Ends with what has sounded by now. */
  readonly stop: () => Promise<void>;
}

export function soundTrack(track: MediaStreamAudioTrack, config: AudioEncodingConfig): SoundTrack {
  return 'MediaStreamTrackProcessor' in globalThis
    ? whole(track, config)
    : asItComes(track, config);
}

function whole(track: MediaStreamAudioTrack, config: AudioEncodingConfig): SoundTrack {
  const source = new AudioSampleSource(config);
  const [film, sound] = [new Beginning(), new Beginning()];
  const processor = new MediaStreamTrackProcessor({ track, maxBufferSize: WAITING });
  const reader = processor.readable.getReader();
  let end = Infinity;
  /** Seconds of the film at which the sound that was kept ends. */
  let kept = -Infinity;

  const keep = async (data: AudioData) => {
    const time = (data.timestamp / 1000 + sound.at - film.at) / 1000;
    // Of stamps that stray the sum is true: sound goes on where it ended.
    const begin = time > kept + STRAY ? time : kept;
    const sample = new AudioSample(data);
    sample.setTimestamp(begin);
    kept = begin + sample.duration;
    if (begin >= 0) await source.add(sample);
    sample.close();
  };

  const record = async () => {
    const early: AudioData[] = [];
    for (;;) {
      const { value: data, done } = await reader.read();
      if (done) break;
      sound.came(data.timestamp / 1000);
      early.push(data);
      if (!(film.isSettled && sound.isSettled) && end === Infinity) continue;
      for (const one of early.splice(0)) await keep(one);
      if (film.at + 1000 * kept >= end) break;
    }
    for (const one of early) one.close();
  };

  let recording: Promise<void> = Promise.resolve();
  return {
    source,
    pictureCame: (time) => film.came(1000 * time),
    record: () => (recording = record()),
    stop: async () => {
      end = performance.now();
      const late = new Promise((resolve) => setTimeout(resolve, PATIENCE));
      await Promise.race([recording.catch(() => undefined), late]);
      await reader.cancel().catch(() => undefined);
    },
  };
}

/** When, by the page's clock, a clock of its own was at nothing: what came quickest was hardly late. */
class Beginning {
  at = Infinity;
  private first = Infinity;

  /** @param time milliseconds by its own clock of what comes just now */
  came(time: number): void {
    const now = performance.now();
    this.first = Math.min(this.first, now);
    this.at = Math.min(this.at, now - time);
  }

  get isSettled(): boolean {
    return performance.now() - this.first > SETTLED;
  }
}

/** Where a browser gives no pieces: through the page, which misses what sounds while it is busy. */
function asItComes(track: MediaStreamAudioTrack, config: AudioEncodingConfig): SoundTrack {
  const source = new MediaStreamAudioTrackSource(track, config);
  return {
    source,
    pictureCame: () => {},
    record: () => source.errorPromise,
    stop: () => Promise.resolve(),
  };
}
