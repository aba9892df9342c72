/** Ninety-six films as one phone takes them: eight places, bands, tape or neither, six techniques, leads of 0 to 60 ms. */
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import type { BandKind } from '@sinew/core/observe/band/band';
import { CAMERA_PLACES, viewAt } from '@sinew/core/foundation/technique/views';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { durationOf } from '@sinew/fighters/fighter/pose';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { CAMERAS, type Camera } from '@sinew/fighters/film/camera';
import type { Look } from '@sinew/fighters/film/clips';
import { FAMILIES } from '@sinew/fighters/trials/families';

export interface PhoneFilm {
  readonly id: string;
  readonly recipe: Recipe;
  /** Radians: see `Calibration.azimuth`. */
  readonly azimuth: number;
  readonly view: View;
  readonly camera: Camera;
  readonly look: Look;
  /** Frames a second. */
  readonly rate: number;
  /** When its first frame is taken, seconds of the strike; and how many there are. */
  readonly starts: number;
  readonly frames: number;
  /** x264's constant rate factor. */
  readonly crf: number;
}

/** Bands go round bodies of usual girth: a stout one would come through them. */
const LOOKS: readonly Look[] = [
  {
    skin: '#d9a37c',
    hair: '#33241b',
    shirt: '#4a5a66',
    shorts: '#2f3338',
    belt: '#c9b48a',
    style: 'tied',
    girth: 0.94,
  },
  {
    skin: '#5e3b29',
    hair: '#120e0c',
    shirt: '#c9c2b2',
    shorts: '#39465a',
    belt: '#3a332b',
    style: 'shaved',
    hands: 'bare',
  },
  {
    skin: '#efcfb8',
    hair: '#a8683a',
    shirt: '#23262c',
    shorts: '#6d3b34',
    belt: '#f4efe2',
    hands: 'gloves',
    handsColor: '#2d4a3e',
    girth: 0.97,
  },
  {
    skin: '#99653f',
    hair: '#1b1512',
    shirt: '#8a9a72',
    shorts: '#ded6c4',
    belt: '#4a3b2c',
    style: 'curls',
    shoes: '#8d9196',
  },
];

const WORN: readonly (BandKind | null)[] = ['printed', 'tape', null];
const STRUCK = [
  'cross',
  'rear-hook',
  'lead-hook',
  'rear-uppercut',
  'elbow-round',
  'round-kick',
] as const;
/** Seconds. */
const LEADS = [0, 0.01, 0.02, 0.03, 0.045, 0.06] as const;
const TIMES = 4;

/** Of the strike: the student stands before the hips start, and has touched, seconds. */
const BEFORE = 0.25;
const AFTER = 0.12;

/** From farther round than this the bag would stand between, radians. */
const FRONT = (60 * Math.PI) / 180;

/** Is the strike thrown into the air, with no bag before the student? */
export const isInTheAir = ({ azimuth }: Pick<PhoneFilm, 'azimuth'>) => Math.abs(azimuth) < FRONT;

/** Any that are made first are as balanced as they can be. */
export const PHONE_FILMS: readonly PhoneFilm[] = Array.from({ length: TIMES }, (_, time) =>
  WORN.flatMap((bands, worn) =>
    CAMERA_PLACES.map(({ azimuth }, place) => {
      const number = 24 * time + 8 * worn + place;
      const random = seeded(1000 + number);
      const between = (low: number, high: number) => low + (high - low) * random();
      const stance = random() < 0.5 ? ('orthodox' as const) : ('southpaw' as const);
      const technique = STRUCK[(time + 2 * worn + place) % STRUCK.length]!;
      const hipsToTrunk = LEADS[Math.floor(random() * LEADS.length)]!;
      const family = FAMILIES[(time + worn + place) % FAMILIES.length]!;
      const thrown = clean(technique, { stance, height: between(1.62, 1.9), hipsToTrunk });
      const recipe = family.of(thrown, number + 1);
      // Half of the last round, and of the second, is filmed at twice the rate.
      const rate = time % 2 === 1 && (place + worn) % 2 === 0 ? 240 : 120;
      const { times } = truthOfStrike(recipe);
      const starts = Math.max(0, times.hips! - BEFORE);
      const until = Math.min(durationOf(recipe), times.contact! + AFTER);
      const where = azimuth + between(-0.1, 0.1);
      const sideways = (stance === 'southpaw' ? -1 : 1) * Math.sin(where);
      const far = between(3.2, 4);
      const belt = 0.55 * recipe.height;
      const look = LOOKS[(number + time) % LOOKS.length]!;
      return {
        id: `${String(number + 1).padStart(2, '0')}-${technique}`,
        recipe,
        azimuth,
        view: viewAt(azimuth),
        camera: {
          ...CAMERAS.side,
          position: [far * Math.cos(where), between(0.9, 1.4), far * sideways] as const,
          lookAt: [0, belt, 0] as const,
          fieldOfView: (40.6 * Math.PI) / 180,
        },
        look: bands ? { ...look, bands } : look,
        rate,
        starts,
        frames: Math.floor((until - starts) * rate),
        crf: [21, 24, 28][number % 3]!,
      };
    }),
  ),
).flat();

/** Of the strike, seconds. */
export const timesIn = ({ starts, frames, rate }: PhoneFilm): number[] =>
  Array.from({ length: frames }, (_, i) => starts + i / rate);
