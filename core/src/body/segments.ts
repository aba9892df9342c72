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
