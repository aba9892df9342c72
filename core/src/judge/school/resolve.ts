/** Which school judges a strike: the gym's, the student's, the strike's own, and what its situation decides. */
import { choiceName, SCHOOLS, type School } from './schools';

/** In what a strike was thrown; it settles choices that are left to the situation. */
export const SITUATIONS = {
  'not-said': 'not said',
  combination: 'inside a combination',
  'front-foot': 'on the front foot',
  'coming-in': 'the opponent comes in',
  'off-the-jab': 'straight off a jab',
  'lined-up': 'a single strike on a lined-up target',
} as const;
export type Situation = keyof typeof SITUATIONS;

export const RANGES = ['close', 'middle', 'long'] as const;
export type Range = (typeof RANGES)[number];

export interface SchoolLayers {
  readonly gym: School;
  readonly student: School;
  readonly strike: School;
  readonly situation: Situation;
  /** Null when the coach has not said it. */
  readonly range: Range | null;
}

export const NO_SCHOOL: SchoolLayers = {
  gym: {},
  student: {},
  strike: {},
  situation: 'not-said',
  range: null,
};

/** A choice in force, and why. */
export interface InForce {
  readonly choice: string;
  readonly because: string;
}

export type SchoolInForce = Readonly<Record<string, InForce>>;

/** What a situation decides (common practice, no source). */
const BY_SITUATION: Record<Situation, School> = {
  'not-said': { finish: 'snap' },
  combination: { hookFoot: 'plant', finish: 'snap' },
  'front-foot': { hookFoot: 'plant', finish: 'snap' },
  'coming-in': { hookFoot: 'pivot', finish: 'snap' },
  'off-the-jab': { hookFoot: 'pivot', finish: 'snap' },
  'lined-up': { hookFoot: 'pivot', finish: 'dig' },
};

/** Thumb up close in, palm down at middle range and beyond. */
const FIST_BY_RANGE: Record<Range, string> = {
  close: 'thumb-up',
  middle: 'palm-down',
  long: 'palm-down',
};

const LAYERS = ['gym', 'student', 'strike'] as const;
const BECAUSE: Record<(typeof LAYERS)[number], string> = {
  gym: 'the gym’s choice',
  student: 'the student’s own',
  strike: 'said of this strike',
};

/**
 * The last layer that has chosen wins; what is then left to situation or range is settled by them,
 * and stays open where they have not been said. Beside the schools, `range` is what the strike was
 * thrown for.
 */
export function resolve(layers: SchoolLayers): SchoolInForce {
  const own = Object.fromEntries(
    Object.entries(SCHOOLS).map(([key, { usual }]) => {
      const layer = [...LAYERS].reverse().find((one) => layers[one][key] !== undefined);
      const chosen: InForce = layer
        ? { choice: layers[layer][key]!, because: BECAUSE[layer] }
        : { choice: usual, because: 'what is usual' };
      return [key, settled(key, chosen, layers)];
    }),
  );
  const { range } = layers;
  const said = range ? `${range} range` : 'range not said';
  return { ...own, range: { choice: range ?? 'not-said', because: said } };
}

function settled(key: string, chosen: InForce, { situation, range }: SchoolLayers): InForce {
  if (chosen.choice === 'by-situation') {
    const choice = BY_SITUATION[situation][key];
    const because = situation === 'not-said' ? 'what is usual' : SITUATIONS[situation];
    return choice ? { choice, because } : chosen;
  }
  if (key === 'hookFist' && chosen.choice === 'by-range' && range) {
    return { choice: FIST_BY_RANGE[range], because: `${range} range` };
  }
  return chosen;
}

/** Choices that something depends on: those of a way of a leak, in `when`. */
export const choicesIn = (whens: readonly (Readonly<Record<string, unknown>> | undefined)[]) =>
  new Set(whens.flatMap((when) => Object.keys(when ?? {})));

/** Whether what a way of a leak depends on is so; see `when` of a case. */
export function isInForce(
  when: Readonly<Partial<Record<string, readonly string[]>>> = {},
  school: SchoolInForce,
): boolean {
  return Object.entries(when).every(([key, choices]) =>
    choices!.includes(school[key]?.choice ?? ''),
  );
}

/** What a way of a leak depends on, as "lead foot in the hook: pivot the foot"; see `when` of a case. */
export function whenInWords(when: Readonly<Partial<Record<string, readonly string[]>>>): string {
  return Object.entries(when)
    .map(([key, choices]) => {
      const name = key === 'range' ? 'range' : SCHOOLS[key]!.name.toLowerCase();
      return `${name}: ${choices!.map((id) => nameOf(key, id)).join(' or ')}`;
    })
    .join('; ');
}

const nameOf = (key: string, choice: string) =>
  choice === 'not-said' ? 'not said' : choiceName(key, choice);

/** "plant the foot, because inside a combination". */
export function inWords(key: string, { choice, because }: InForce): string {
  if (key === 'range') return because;
  return `${choiceName(key, choice)} (${because})`;
}
