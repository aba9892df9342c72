/**
 * Whether a film can answer what it was taken for: one line a matter, each with its reason, what it
 * costs and what would mend it. It never forbids anything.
 *
 * Limits: common practice, no source, except where a line says where it comes from.
 */
import type { Question } from '../../foundation/technique/questions';
import type { Light } from './grey';
import type { MovedBox } from './movement';
import type { Rate } from './rate';
import type { Shake } from './shake';

/** What was measured in a film; pixels are the film's own. */
export interface Footage {
  readonly width: number;
  readonly height: number;
  readonly rate: Rate;
  /** Frames that repeat the one before while things move. */
  readonly repeated: number;
  readonly frames: number;
  readonly light: Light;
  /** Width of the edges of what moves fast and of what stands still; null when there are too few. */
  readonly edges: { readonly moving: number | null; readonly still: number | null };
  /** Null when too little in the picture stands still to tell. */
  readonly shake: Shake | null;
  /** Around all that moved; null when nothing did. */
  readonly moved: MovedBox | null;
  /** Whether the film has sound. */
  readonly hasSound: boolean;
}

export interface CheckLine {
  readonly about: 'rate' | 'frames' | 'light' | 'blur' | 'frame' | 'shake' | 'sound';
  readonly verdict: 'good' | 'careful' | 'poor' | 'unknown';
  /** What was found, with its number. */
  readonly says: string;
  /** What follows from it for the reading of the film, and what to do; empty when all is well. */
  readonly so: string;
}

/** @param question what the film is for; null when nobody has said */
export function checkFootage(footage: Footage, question: Question | null): CheckLine[] {
  return [
    checkRate(footage, question),
    checkFrames(footage),
    checkLight(footage),
    checkBlur(footage),
    checkFrame(footage),
    checkShake(footage),
    checkSound(footage),
  ];
}

const round = (value: number, digits = 0) => value.toFixed(digits);
const percent = (share: number) => `${round(100 * share)} %`;

export function checkRate({ rate }: Pick<Footage, 'rate'>, question: Question | null): CheckLine {
  const about = 'rate';
  const perSecond = `${round(rate.perSecond)} frames a second`;
  const wanted = question?.rate ?? 100;
  const asks = question ? `“${question.asks}”` : 'whether hips lead trunk by about 30 ms';
  if (rate.perSecond >= 0.98 * wanted) {
    return { about, verdict: 'good', says: `${perSecond}: enough for ${asks}.`, so: '' };
  }
  const spacing = round(1000 / Math.max(rate.perSecond, 1e-9));
  return {
    about,
    verdict: rate.perSecond < wanted / 2 ? 'poor' : 'careful',
    says: `${perSecond}, one each ${spacing} ms; ${asks} needs ${round(wanted)} or more.`,
    so: 'Timing will often be “can’t tell”. Film in slow motion, or at the highest rate the camera has.',
  };
}

function checkFrames({ rate, repeated, frames }: Footage): CheckLine {
  const about = 'frames';
  const lost = rate.dropped + repeated;
  if (lost === 0 && rate.uneven < 0.05) {
    return { about, verdict: 'good', says: 'Every frame is there, evenly spaced.', so: '' };
  }
  const parts = [
    rate.dropped > 0 && `${rate.dropped} dropped`,
    repeated > 0 && `${repeated} only repeat the one before`,
    rate.uneven >= 0.05 && `${percent(rate.uneven)} unevenly spaced`,
  ].filter(Boolean);
  return {
    about,
    verdict: lost > 0.1 * frames ? 'poor' : 'careful',
    says: `Of ${frames} frames ${parts.join(', ')}.`,
    so: 'Times stay right where frames are; in the gaps the ± grows. Close other programs, or ask less of the camera.',
  };
}

export function checkLight({ light }: Pick<Footage, 'light'>): CheckLine {
  const about = 'light';
  if (light.black > 0.35 || light.middle < 45) {
    const says = `Dark: half of the picture is below level ${round(light.middle)} of 255.`;
    return {
      about,
      verdict: 'poor',
      says,
      so: 'Limbs melt into the dark. Turn the lights on, or film against a lighter wall.',
    };
  }
  if (light.white > 0.25) {
    const says = `Washed out: ${percent(light.white)} of the picture is plain white.`;
    return {
      about,
      verdict: 'poor',
      says,
      so: 'Turn away from the window, or lower the exposure.',
    };
  }
  if (light.contrast < 60) {
    const says = `Flat: dark and light lie only ${round(light.contrast)} levels apart.`;
    return {
      about,
      verdict: 'careful',
      says,
      so: 'Joints will be hard to place. Choose a background that contrasts with the clothes.',
    };
  }
  return { about, verdict: 'good', says: 'Light and contrast are fine.', so: '' };
}

/** Smear of what moves fast, as shares of the picture's height. */
const SMEAR_CAREFUL = 0.012;
const SMEAR_POOR = 0.025;

function checkBlur({ edges, height }: Footage): CheckLine {
  const about = 'blur';
  if (edges.moving === null || edges.still === null) {
    return {
      about,
      verdict: 'unknown',
      says: 'Blur cannot be told: too few clear edges move in this film.',
      so: 'Look at the fist at its fastest yourself.',
    };
  }
  const smear = Math.max(0, edges.moving - edges.still);
  const says = `What moves fast is smeared over about ${round(smear)} pixels more than what stands still.`;
  if (smear < SMEAR_CAREFUL * height) return { about, verdict: 'good', says, so: '' };
  return {
    about,
    verdict: smear < SMEAR_POOR * height ? 'careful' : 'poor',
    says,
    so: `Fist and foot can be placed no better than that at full speed. More light, or a shorter shutter time.`,
  };
}

/** What ends this close to the border, as a share of the picture, is cut off by it. */
const BORDER = 0.008;
const LOW = 0.35;

function checkFrame({ moved }: Footage): CheckLine {
  const about = 'frame';
  if (!moved) {
    return { about, verdict: 'unknown', says: 'Nothing moves in this film.', so: '' };
  }
  const cut = [
    moved.left < BORDER && 'left',
    moved.right > 1 - BORDER && 'right',
    moved.top < BORDER && 'top',
    moved.bottom > 1 - BORDER && 'bottom',
  ].filter((side) => side !== false);
  const tall = moved.bottom - moved.top;
  if (cut.length > 0) {
    return {
      about,
      verdict: 'poor',
      says: `Something moves out of the picture at the ${cut.join(' and the ')}.`,
      so: 'What leaves the picture cannot be measured. Step back, or turn the camera.',
    };
  }
  if (tall < LOW) {
    return {
      about,
      verdict: 'careful',
      says: `What moves fills ${percent(tall)} of the picture’s height.`,
      so: 'A small student gives large errors. Step closer until head and feet just fit.',
    };
  }
  return {
    about,
    verdict: 'good',
    says: 'Everything that moves stays inside the picture.',
    so: '',
  };
}

function checkShake({ shake, height }: Footage): CheckLine {
  const about = 'shake';
  if (!shake) {
    return {
      about,
      verdict: 'unknown',
      says: 'Whether the camera stood still cannot be told: the background is too plain.',
      so: '',
    };
  }
  const { jitter, drift } = shake;
  if (jitter < 0.002 * height && drift < 0.006 * height) {
    return { about, verdict: 'good', says: 'The camera stood still.', so: '' };
  }
  const isPoor = jitter > 0.006 * height || drift > 0.03 * height;
  return {
    about,
    verdict: isPoor ? 'poor' : 'careful',
    says: `The camera moved: by ${round(drift)} pixels in all, shaking by ${round(jitter, 1)}.`,
    so: 'Scale, target line and speeds hold only while it stands still. Put it on a stand or a bench.',
  };
}

function checkSound({ hasSound }: Footage): CheckLine {
  return hasSound
    ? { about: 'sound', verdict: 'good', says: 'There is sound: contacts can be heard.', so: '' }
    : {
        about: 'sound',
        verdict: 'careful',
        says: 'There is no sound.',
        so: 'Contacts cannot be heard and a second camera cannot be joined by them; mark them by eye.',
      };
}
