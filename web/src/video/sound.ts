/** Sounds made and heard while filming: the count before a take, and the clap that starts one. */

/** Hertz. */
const COUNT_TONE = 660;
const GO_TONE = 990;

let context: AudioContext | null = null;

/** The one sound device of this tab; browsers let it speak after the first touch or key. */
function speaker(): AudioContext {
  context ??= new AudioContext();
  void context.resume();
  return context;
}

function beep(frequency: number, seconds: number): void {
  const device = speaker();
  const [tone, level] = [device.createOscillator(), device.createGain()];
  const now = device.currentTime;
  tone.frequency.value = frequency;
  level.gain.setValueAtTime(0.0001, now);
  level.gain.exponentialRampToValueAtTime(0.5, now + 0.01);
  level.gain.exponentialRampToValueAtTime(0.0001, now + seconds);
  tone.connect(level).connect(device.destination);
  tone.start(now);
  tone.stop(now + seconds);
}

export const countBeep = () => beep(COUNT_TONE, 0.12);
export const goBeep = () => beep(GO_TONE, 0.35);
export const endBeep = () => beep(COUNT_TONE / 2, 0.4);

/** A clap stands this far above what was heard in the last second, decibels, and over a floor. */
const CLAP_RISE = 18;
const CLAP_FLOOR = -30;
/** Decibels below full scale. */
const SILENCE = -90;

export interface Level {
  /** Decibels below full scale: the loudest of the last moment. */
  readonly peak: number;
  readonly isClap: boolean;
}

/** @returns how to stop listening */
export function listenTo(stream: MediaStream, onLevel: (level: Level) => void): () => void {
  if (stream.getAudioTracks().length === 0) return () => {};
  const device = speaker();
  const source = device.createMediaStreamSource(stream);
  const meter = device.createAnalyser();
  meter.fftSize = 2048;
  source.connect(meter);
  const samples = new Float32Array(meter.fftSize);
  const past: number[] = [];
  const timer = setInterval(() => {
    meter.getFloatTimeDomainData(samples);
    const most = samples.reduce((top, one) => Math.max(top, Math.abs(one)), 0);
    const peak = Math.max(SILENCE, 20 * Math.log10(most));
    const usual = [...past].sort((a, b) => a - b)[past.length >> 1] ?? peak;
    const isClap = past.length > 8 && peak > CLAP_FLOOR && peak - usual > CLAP_RISE;
    past.push(peak);
    if (past.length > 24) past.shift();
    onLevel({ peak, isClap });
  }, 40);
  return () => {
    clearInterval(timer);
    source.disconnect();
  };
}
