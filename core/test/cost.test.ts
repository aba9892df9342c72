/** A cost in words, and which of two is the dearer. */
import { expect, it } from 'vitest';
import { costInShort, costInWords, dearer, isTie, type KnownCost } from '../src/judge/fault/cost';

const cost = (share: number, half: number, whole = 10): KnownCost => ({
  lost: share * whole,
  low: (share - half) * whole,
  high: (share + half) * whole,
  share,
  shareLow: share - half,
  shareHigh: share + half,
});

it.each([
  [
    cost(0.4, 0.1),
    '−40 % momentum',
    /^about 40 % \(30 % to 50 %\) of the momentum .*4\.0 N·s: .* in the chain model$/,
  ],
  [cost(0.14, 0.3), 'up to −44 % momentum', /^about 14 % \(at most 44 %\) of the momentum/],
  [
    { ...cost(0.4, 0.1), lost: null, low: null, high: null },
    '−40 % momentum',
    /target: the same limb/,
  ],
  [cost(-0.05, 0.2), 'up to −15 % momentum', /^hardly any momentum \(at most 15 %\)$/],
  [cost(-0.3, 0.2), 'no momentum lost', /^hardly any momentum \(at most 0 %\)$/],
])('%j is said without a loss below nothing', (one, short, words) => {
  expect(costInShort(one)).toBe(short);
  expect(costInWords(one)).toMatch(words);
});

it('the dearer is told where it is likelier than four in five', () => {
  // Both with σ of 1 N·s: a difference has √2, and Φ⁻¹(0.8) = 0.842 of it is 1.19.
  const sure = (lost: number) => cost(lost / 10, 0.1645);
  expect(isTie(sure(3), sure(4.1))).toBe(true);
  expect(isTie(sure(4.3), sure(3))).toBe(false);
  expect(dearer(sure(4.3), sure(3))).toBeGreaterThan(0);
  // Of the same loss of another whole, only the share can be held against one that has no mass.
  const share = { ...cost(0.3, 0.1645), lost: null, low: null, high: null };
  expect(isTie(share, sure(4.1))).toBe(true);
  expect(dearer(share, cost(0.35, 0.1645, 5))).toBeLessThan(0);
});
