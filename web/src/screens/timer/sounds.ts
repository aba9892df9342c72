/** What the timer lets hear: a bell, a warning, and calls spoken by this machine's own voices. */
import { speak } from '@/ui/speak';

let device: AudioContext | null = null;

/** Browsers let a page be heard after the first touch or key. */
function speaker(): AudioContext {
  device ??= new AudioContext();
  void device.resume();
  return device;
}

/** A struck bell: partials of a church bell (hum, prime, tierce, quint, nominal), each dying away. */
const PARTIALS = [
  [0.5, 0.3],
  [1, 0.5],
  [1.2, 0.3],
  [1.5, 0.2],
  [2, 0.4],
] as const;
const PRIME = 620;

export function bell(): void {
  const context = speaker();
  const now = context.currentTime;
  for (const [ratio, loudness] of PARTIALS) {
    const [tone, level] = [context.createOscillator(), context.createGain()];
    tone.frequency.value = PRIME * ratio;
    level.gain.setValueAtTime(0.0001, now);
    level.gain.exponentialRampToValueAtTime(0.5 * loudness, now + 0.005);
    level.gain.exponentialRampToValueAtTime(0.0001, now + 2.2 / ratio);
    tone.connect(level).connect(context.destination);
    tone.start(now);
    tone.stop(now + 2.3 / ratio);
  }
}

/** Two knocks on wood. */
export function knock(): void {
  const context = speaker();
  for (const at of [0, 0.18]) {
    const now = context.currentTime + at;
    const [tone, level] = [context.createOscillator(), context.createGain()];
    tone.type = 'triangle';
    tone.frequency.setValueAtTime(900, now);
    tone.frequency.exponentialRampToValueAtTime(300, now + 0.06);
    level.gain.setValueAtTime(0.6, now);
    level.gain.exponentialRampToValueAtTime(0.0001, now + 0.1);
    tone.connect(level).connect(context.destination);
    tone.start(now);
    tone.stop(now + 0.12);
  }
}

/** Speak, or knock where this machine has no voice of its own. */
export function call(words: string): void {
  if (!speak(words)) knock();
}
