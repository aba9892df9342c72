/**
 * A coach talks over a strike: the picture as it is looked at, the strip under it, what is drawn, and the
 * voice, as they are at every moment, become one film.
 */
import {
  BufferTarget,
  CanvasSource,
  getFirstEncodableAudioCodec,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
} from 'mediabunny';
import { soundTrack } from '../soundTrack';
import { inked } from './inked';

/** What is filmed of the bench. */
export interface Scene {
  readonly film: HTMLCanvasElement;
  readonly overlay: SVGSVGElement;
  readonly strip: SVGSVGElement;
  /** The names of its lanes, which stand to its left. */
  readonly names: readonly HTMLElement[];
  /** Holds film and overlay, moved and enlarged as the coach looks at them. */
  readonly moved: HTMLElement;
}

export interface Talking {
  /** Null when nothing has come. @throws Error in words for the coach */
  stop(): Promise<{ readonly film: Blob; readonly seconds: number } | null>;
  cancel(): void;
}

/** Frames a second. */
const RATE = 25;
/** Of film and strip, pixels. */
const WIDTH = 1280;
/** Bits a second. */
const BITRATE = 1_600_000;
const VOICE = 64_000;
/** Seconds; then it ends by itself, and nothing said is lost. */
export const LONGEST_TALK = 120;
/** Room for the names of the lanes, pixels. */
const NAMES = 96;
const PAPER = '#f7f2e9';
const INK = '#15130f';

/**
 * @param voice a stream with the coach's microphone; its tracks are ended with the talk
 * @param onTick called with the seconds so far
 * @throws Error in words for the coach when this browser cannot make films
 */
export async function talkOver(
  scene: Scene,
  voice: MediaStream,
  onTick: (seconds: number) => void,
): Promise<Talking> {
  const { film, strip } = scene;
  const even = (pixels: number) => Math.max(2, 2 * Math.round(pixels / 2));
  const shown = { width: WIDTH, height: even((WIDTH * film.height) / film.width) };
  // A film upright is as high as a film across is wide, with paper beside it.
  const room = Math.min(shown.height, 720);
  const size = (room / film.height) * film.width;
  const box = strip.getBoundingClientRect();
  const scale = (WIDTH - NAMES) / Math.max(1, box.width);
  const under = even(scale * box.height);
  const canvas = new OffscreenCanvas(WIDTH, even(room) + under);
  const context = canvas.getContext('2d', { alpha: false })!;
  const [codec, sound] = await Promise.all([
    getFirstEncodableVideoCodec(['avc', 'vp9', 'av1'], canvas),
    getFirstEncodableAudioCodec(['aac', 'opus']),
  ]);
  if (!codec || !sound) {
    throw new Error('This browser cannot make films with sound. Chromium or Safari can.');
  }
  const output = new Output({
    format: new Mp4OutputFormat({ fastStart: 'in-memory' }),
    target: new BufferTarget(),
  });
  const pictures = new CanvasSource(canvas, { codec, bitrate: BITRATE, keyFrameInterval: 1 });
  const [microphone] = voice.getAudioTracks();
  const heard = soundTrack(microphone as MediaStreamAudioTrack, { codec: sound, bitrate: VOICE });
  output.addVideoTrack(pictures, { frameRate: RATE });
  output.addAudioTrack(heard.source);
  await output.start();
  const overlay = drawingOf(scene.overlay);
  const lanes = drawingOf(strip);
  const draw = () => {
    context.fillStyle = PAPER;
    context.fillRect(0, 0, canvas.width, canvas.height);
    const { x, y, zoom } = lensOf(scene.moved);
    const left = (WIDTH - size) / 2;
    context.save();
    context.beginPath();
    context.rect(left, 0, size, room);
    context.clip();
    context.translate(left + size * (x + 0.5), room * (y + 0.5));
    context.scale(zoom, zoom);
    context.drawImage(film, -size / 2, -room / 2, size, room);
    if (overlay.now) context.drawImage(overlay.now, -size / 2, -room / 2, size, room);
    context.restore();
    if (lanes.now) context.drawImage(lanes.now, NAMES, even(room), WIDTH - NAMES, under);
    drawNames(context, scene, even(room), scale);
  };

  const began = performance.now();
  let last = -1;
  let isAdding = false;
  let failure: unknown = null;
  const timer = setInterval(() => {
    const seconds = (performance.now() - began) / 1000;
    const frame = Math.floor(seconds * RATE);
    // A machine that is behind leaves pictures out; the voice goes on.
    if (isAdding || frame <= last || seconds > LONGEST_TALK) return onTick(seconds);
    last = frame;
    isAdding = true;
    heard.pictureCame(seconds);
    draw();
    pictures
      .add(frame / RATE, 1 / RATE)
      .catch((error: unknown) => (failure ??= error))
      .finally(() => (isAdding = false));
    onTick(seconds);
  }, 1000 / RATE);
  heard.record().catch((error: unknown) => (failure ??= error));
  const end = () => {
    clearInterval(timer);
    overlay.end();
    lanes.end();
    voice.getTracks().forEach((track) => track.stop());
  };
  return {
    async stop() {
      const seconds = Math.min(LONGEST_TALK, (performance.now() - began) / 1000);
      clearInterval(timer);
      await heard.stop();
      end();
      if (last < 0) {
        await output.cancel();
        return null;
      }
      if (failure) {
        await output.cancel();
        throw new Error('This browser broke off while it made the film of what you said.');
      }
      await output.finalize();
      return { film: new Blob([output.target.buffer!], { type: 'video/mp4' }), seconds };
    },
    cancel() {
      end();
      void heard.stop();
      void output.cancel();
    },
  };
}

function drawNames(
  context: OffscreenCanvasRenderingContext2D,
  { names, strip }: Scene,
  top: number,
  scale: number,
): void {
  const above = strip.getBoundingClientRect().top;
  context.fillStyle = INK;
  context.font = `600 ${13 * scale}px "Liberation Sans", Arial, sans-serif`;
  context.textBaseline = 'middle';
  for (const one of names) {
    const { top: from, height } = one.getBoundingClientRect();
    context.fillText(one.textContent.trim(), 12, top + scale * (from + height / 2 - above));
  }
}

/** Where the picture is moved to and how much it is enlarged, in parts of itself. */
function lensOf(moved: HTMLElement): { x: number; y: number; zoom: number } {
  const { a, e, f } = new DOMMatrixReadOnly(getComputedStyle(moved).transform);
  const { offsetWidth: width, offsetHeight: height } = moved;
  return { x: e / Math.max(1, width), y: f / Math.max(1, height), zoom: a };
}

/** A drawing of the page as a picture, anew whenever it changes; the last one until then. */
function drawingOf(svg: SVGSVGElement): { readonly now: HTMLImageElement | null; end(): void } {
  let now: HTMLImageElement | null = null;
  let isStale = true;
  let isOver = false;
  const watcher = new MutationObserver(() => (isStale = true));
  watcher.observe(svg, { attributes: true, childList: true, characterData: true, subtree: true });
  const follow = async () => {
    while (!isOver) {
      if (isStale) {
        isStale = false;
        now = await inked(svg).catch(() => now);
      }
      await new Promise((resolve) => setTimeout(resolve, 1000 / RATE));
    }
  };
  void follow();
  return {
    get now() {
      return now;
    },
    end() {
      isOver = true;
      watcher.disconnect();
    },
  };
}
