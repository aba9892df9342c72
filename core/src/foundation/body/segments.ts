/**
 * Segments of the body: length as a share of height, mass as a share of body mass, and where in a
 * segment its mass sits.
 */

/**
 * Segment lengths as a share of standing height.
 *
 * Source: Drillis & Contini (1966), as printed in Winter, Biomechanics and Motor Control of Human
 * Movement, 4th ed. (2009), fig. 4.1.
 */
export const SEGMENT_LENGTH = {
  upperArm: 0.186,
  forearm: 0.146,
  hand: 0.108,
  thigh: 0.245,
  shank: 0.246,
  foot: 0.152,
  shoulderHalfBreadth: 0.129,
  hipHalfBreadth: 0.0955,
} as const;

export const SEGMENTS = [
  'head',
  'trunk',
  'upperArm',
  'forearm',
  'hand',
  'thigh',
  'shank',
  'foot',
] as const;
export type Segment = (typeof SEGMENTS)[number];

export interface Inertia {
  /** Of one segment (one arm, one leg) ÷ body mass. */
  readonly mass: number;
  /** Centre of mass from the proximal end ÷ segment length. */
  readonly centre: number;
  /** Radius of gyration about the centre of mass ÷ segment length. */
  readonly gyration: number;
}

/**
 * Source: Winter (2009), Table 4.1, after Dempster. The head's length runs from C7–T1 to the ear
 * canal, the trunk's from the hips to the shoulders.
 */
export const DEMPSTER: Readonly<Record<Segment, Inertia>> = {
  hand: { mass: 0.006, centre: 0.506, gyration: 0.297 },
  forearm: { mass: 0.016, centre: 0.43, gyration: 0.303 },
  upperArm: { mass: 0.028, centre: 0.436, gyration: 0.322 },
  foot: { mass: 0.0145, centre: 0.5, gyration: 0.475 },
  shank: { mass: 0.0465, centre: 0.433, gyration: 0.302 },
  thigh: { mass: 0.1, centre: 0.433, gyration: 0.323 },
  head: { mass: 0.081, centre: 1, gyration: 0.495 },
  trunk: { mass: 0.497, centre: 0.5, gyration: 0.5 },
};

/**
 * Segment masses ÷ body mass, in per cent. Source: de Leva, J. Biomech. 29 (1996) 1223–1230,
 * adjusted from Zatsiorsky–Seluyanov.
 */
export const DE_LEVA_MASS: Readonly<Record<'man' | 'woman', Readonly<Record<Segment, number>>>> = {
  man: {
    head: 6.94,
    trunk: 43.46,
    upperArm: 2.71,
    forearm: 1.62,
    hand: 0.61,
    thigh: 14.16,
    shank: 4.33,
    foot: 1.37,
  },
  woman: {
    head: 6.68,
    trunk: 42.57,
    upperArm: 2.55,
    forearm: 1.38,
    hand: 0.56,
    thigh: 14.78,
    shank: 4.81,
    foot: 1.29,
  },
};

/** How many of a segment a body has. */
export function countOf(segment: Segment): 1 | 2 {
  return segment === 'head' || segment === 'trunk' ? 1 : 2;
}
