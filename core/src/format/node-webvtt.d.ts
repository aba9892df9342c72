declare module 'node-webvtt' {
  interface Cue {
    identifier: string;
    start: number;
    end: number;
    text: string;
    styles: string;
  }
  const vtt: {
    compile(file: { valid: true; meta?: Record<string, string>; cues: Cue[] }): string;
    /** @throws Error when the text is not WebVTT */
    parse(text: string, options: { meta: boolean }): { cues: Cue[] };
  };
  export default vtt;
}
