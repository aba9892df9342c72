/** Cameras and microphones of this machine, and the one that is shipped with Sinew. */
import { Problem } from '@sinew/core/foundation/problem/problem';

export interface Device {
  readonly id: string;
  readonly name: string;
}

/** The camera that is a film; always there. */
export const SIMULATED = 'simulated';

export const NO_SOUND = 'none';

/** Asked-for sizes of the picture, pixels high; the camera gives the nearest it has. */
export const HEIGHTS = [480, 720, 1080, 2160] as const;
/** Asked-for rates; a camera gives what it has, and what it gives is measured. */
export const RATES = [30, 60, 120, 240] as const;

export interface Wish {
  readonly camera: string;
  readonly microphone: string;
  readonly height: number;
  readonly rate: number;
}

export interface LiveCamera {
  readonly stream: MediaStream;
  /** What is to be heard for levels and claps; without sound null. */
  readonly close: () => void;
}

/** A camera that cannot be used, with a message for the coach. */
export class CameraProblem extends Problem {
  constructor(happened: string) {
    super('refused', { happened });
  }
}

/** Names are empty until the coach has allowed the camera once. */
export async function devices(): Promise<{ cameras: Device[]; microphones: Device[] }> {
  const all = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  const named = (kind: MediaDeviceKind, word: string) =>
    all
      .filter((one) => one.kind === kind && one.deviceId !== '')
      .map((one, index) => ({ id: one.deviceId, name: one.label || `${word} ${index + 1}` }));
  return { cameras: named('videoinput', 'Camera'), microphones: named('audioinput', 'Microphone') };
}

/** @throws CameraProblem */
export async function openCamera(wish: Wish): Promise<LiveCamera> {
  return wish.camera === SIMULATED ? simulated() : real(wish);
}

async function real({ camera, microphone, height, rate }: Wish): Promise<LiveCamera> {
  if (!navigator.mediaDevices) {
    throw new CameraProblem('This browser gives pages no camera. Bring a file, or use Chromium.');
  }
  const video: MediaTrackConstraints = {
    // Of a phone the camera that looks at the student, unless another was chosen.
    ...(camera === '' ? { facingMode: 'environment' } : { deviceId: { exact: camera } }),
    height: { ideal: height },
    width: { ideal: Math.round((height * 16) / 9) },
    frameRate: { ideal: rate },
  };
  const audio: MediaTrackConstraints | false = microphone !== NO_SOUND && {
    ...(microphone !== '' && { deviceId: { exact: microphone } }),
    // A hit is what voice filters were made to remove.
    echoCancellation: false,
    noiseSuppression: false,
    autoGainControl: false,
  };
  try {
    return owned(await navigator.mediaDevices.getUserMedia({ video, audio }));
  } catch (error) {
    const { name } = error as DOMException;
    // A machine with a camera and no microphone still films.
    if (name === 'NotFoundError' && audio) {
      return real({ camera, microphone: NO_SOUND, height, rate });
    }
    throw new CameraProblem(PROBLEMS[name] ?? `The camera cannot be opened (${name}).`);
  }
}

const PROBLEMS: Partial<Record<string, string>> = {
  NotAllowedError:
    'The camera is not allowed here. Allow it in the address bar, then try again; or bring a file.',
  NotFoundError:
    'There is no camera on this machine. Plug one in and try again, bring a file, or use the simulated camera.',
  NotReadableError: 'Another program is using the camera. Close it there, then try again.',
  OverconstrainedError: 'This camera is not there any more. Choose another one.',
};

const owned = (stream: MediaStream): LiveCamera => ({
  stream,
  close: () => stream.getTracks().forEach((track) => track.stop()),
});

/** A made-up fighter, played over and over as if it were live. */
async function simulated(): Promise<LiveCamera> {
  const film = document.createElement('video');
  film.src = '/simulated-camera.mp4';
  film.loop = true;
  film.playsInline = true;
  const sound = new AudioContext();
  const heard = sound.createMediaStreamDestination();
  sound.createMediaElementSource(film).connect(heard);
  await sound.resume();
  await film.play();
  const pictures = (film as HTMLVideoElement & { captureStream(): MediaStream }).captureStream();
  const [picture] = pictures.getVideoTracks();
  if (!picture) throw new CameraProblem('The simulated camera does not start. Reload the page.');
  const stream = new MediaStream([picture, ...heard.stream.getAudioTracks()]);
  return {
    stream,
    close: () => {
      stream.getTracks().forEach((track) => track.stop());
      film.pause();
      film.removeAttribute('src');
      void sound.close();
    },
  };
}
