/**
 * Records a live stream to the browser's own disk: every frame at its own time, a key frame twice a
 * second, half a second at most not yet written.
 */
import { nanoid } from 'nanoid';
import {
  getFirstEncodableAudioCodec,
  getFirstEncodableVideoCodec,
  MediaStreamVideoTrackSource,
  Mp4OutputFormat,
  Output,
  QUALITY_HIGH,
  StreamTarget,
  type StreamTargetChunk,
} from 'mediabunny';
import type { RecentFilm } from './recentFilm';
import { soundTrack, type SoundTrack } from './soundTrack';
import type { TakeAbout } from './takeAbout';
import { namedTake, takeStore } from './takeStore';

/** Seconds. */
const FRAGMENT = 0.5;

export interface Recorded {
  readonly id: string;
  /** Null when not one frame had come. */
  readonly file: File | null;
}

export class Recorder {
  private isOver = false;

  private constructor(
    readonly id: string,
    private readonly about: TakeAbout,
    private readonly output: Output,
    private readonly sound: SoundTrack | null,
  ) {}

  /**
   * @throws Error in words for the coach when this browser cannot record; nothing is left then
   * @param onProblem called once, with a message for the coach, when recording cannot go on; what
   *   has been recorded is kept, and `stop` gives it
   * @param recent is given the film as it is recorded, to be seen again at once
   */
  static async start(
    stream: MediaStream,
    about: TakeAbout,
    onProblem: (message: string) => void,
    recent: RecentFilm | null = null,
  ): Promise<Recorder> {
    const [video] = stream.getVideoTracks();
    const [audio] = stream.getAudioTracks();
    if (!video) throw new Error('the camera gives no picture');
    const codec = await getFirstEncodableVideoCodec(['avc', 'vp9', 'av1']);
    if (!codec) throw new Error('this browser cannot encode film; use Chromium, or bring a file');
    const soundCodec = audio && (await getFirstEncodableAudioCodec(['opus', 'aac']));

    const id = nanoid();
    const store = takeStore();
    await store.begin(id, about);
    const output = new Output({
      format: new Mp4OutputFormat({
        fastStart: 'fragmented',
        minimumFragmentDuration: FRAGMENT,
      }),
      target: new StreamTarget(
        new WritableStream<StreamTargetChunk>({
          write: (chunk) =>
            store.write(chunk).catch((error: unknown) => {
              fail(error);
              throw error;
            }),
        }),
      ),
    });
    const sound =
      audio && soundCodec
        ? soundTrack(audio as MediaStreamAudioTrack, { codec: soundCodec, bitrate: 96_000 })
        : null;
    const recorder = new Recorder(id, about, output, sound);
    const fail = (error: unknown) => {
      if (recorder.isOver) return;
      recorder.isOver = true;
      onProblem(problemOf(error));
    };
    const pictures = new MediaStreamVideoTrackSource(
      video as MediaStreamVideoTrack,
      {
        codec,
        bitrate: QUALITY_HIGH,
        keyFrameInterval: FRAGMENT,
        onEncodedSample: ({ timestamp }) => sound?.pictureCame(timestamp),
        onEncodedPacket: (packet, meta) => recent?.keep(packet, meta),
      },
      { frameRate: null },
    );
    pictures.errorPromise.catch(fail);
    output.addVideoTrack(pictures);
    if (sound) output.addAudioTrack(sound.source);
    try {
      await output.start();
    } catch (error) {
      recorder.isOver = true;
      await store.end();
      await store.remove(id);
      await sound?.stop();
      throw error;
    }
    sound?.record().catch(fail);
    return recorder;
  }

  /** Ends the recording and makes a plain film of it. */
  async stop(): Promise<Recorded> {
    const wasWhole = !this.isOver;
    this.isOver = true;
    await this.sound?.stop();
    // After a failure there is nothing left to finish; what was written is finalised all the same.
    await (wasWhole ? this.output.finalize() : this.output.cancel()).catch(() => undefined);
    const store = takeStore();
    await store.end();
    const file = await store.mend(this.id);
    return { id: this.id, file: file && namedTake(file, this.about) };
  }
}

function problemOf(error: unknown): string {
  const { name, message } = error as { name?: string; message?: string };
  return name === 'QuotaExceededError' || /quota|no room|no space/i.test(message ?? '')
    ? 'The disk is full: recording has stopped. What was recorded until then is kept.'
    : `Recording has stopped: ${message ?? 'the camera gave up'}. What was recorded until then is kept.`;
}
