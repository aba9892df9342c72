/** A voice of this machine; others would send the words away. */
function ownVoice(): SpeechSynthesisVoice | null {
  const voices = globalThis.speechSynthesis?.getVoices() ?? [];
  return voices.find(({ localService, lang }) => localService && lang.startsWith('en')) ?? null;
}

/** @returns false where this machine has no voice of its own */
export function speak(words: string): boolean {
  const voice = ownVoice();
  if (!voice) return false;
  speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(words);
  utterance.voice = voice;
  utterance.rate = 1.15;
  speechSynthesis.speak(utterance);
  return true;
}

/** Signs that a voice would leave out or spell. */
const ALOUD: readonly (readonly [RegExp, string])[] = [
  [/ ± /g, ', give or take '],
  [/(\d) %/g, '$1 per cent'],
  [/(\d) cm\b/g, '$1 centimetres'],
  [/(\d) in\b/g, '$1 inches'],
];

/** A sentence as it is said, for one that is written. */
export const aloud = (sentence: string): string =>
  ALOUD.reduce((text, [sign, word]) => text.replace(sign, word), sentence);
