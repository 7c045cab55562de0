// Optimal widths against all subsets, and against what must hold for any demands.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { bestWidths, fewestWidths, surplusOf, type WidthDemand } from './optimal-widths.ts';

/** Least surplus with k widths by trying every subset of the demands that holds the largest. */
function leastByTrying(demands: readonly WidthDemand[], k: number): number {
  const pixels = [...new Set(demands.map((d) => d.pixels))].sort((a, b) => a - b);
  let least = Infinity;
  for (let mask = 0; mask < 2 ** pixels.length; mask++) {
    const widths = pixels.filter((_, i) => mask & (1 << i));
    if (widths.length !== k || widths.at(-1) !== pixels.at(-1)) continue;
    least = Math.min(least, surplusOf(widths, demands));
  }
  return least;
}

const someDemands = (luck: ReturnType<typeof chance>): WidthDemand[] =>
  Array.from({ length: luck.whole(1, 9) }, () => ({
    pixels: luck.whole(100, 3000),
    share: luck.whole(1, 50) / 50,
  }));

describe('optimal widths', () => {
  test('by hand: 100 and 200 for halves, one file wastes three quarters of the small one', () => {
    const demands = [
      { pixels: 100, share: 0.5 },
      { pixels: 200, share: 0.5 },
    ];
    const plans = bestWidths(demands, 6);
    expect(plans.map((plan) => plan.widths)).toEqual([[200], [100, 200]]);
    // 0.5 × (40 000 − 10 000) sent too much for 0.5 × 10 000 + 0.5 × 40 000 asked.
    expect(plans[0]!.surplus).toBeCloseTo(15_000 / 25_000, 12);
    expect(plans[1]!.surplus).toBe(0);
    expect(fewestWidths(demands)).toEqual(plans[1]);
    expect(fewestWidths(demands, 0.6 + 1e-9)).toEqual(plans[0]);
  });
  test('as good as the best of all subsets, for every count', () => {
    const luck = chance(21);
    for (let round = 0; round < 120; round++) {
      const demands = someDemands(luck);
      for (const [i, plan] of bestWidths(demands, 6).entries()) {
        expect(plan.widths.length).toBe(i + 1);
        expect(plan.surplus).toBeCloseTo(leastByTrying(demands, i + 1), 9);
        expect(surplusOf(plan.widths, demands)).toBeCloseTo(plan.surplus, 9);
      }
    }
  });
  test('no demand is left unmet, more files never waste more, equal demands count as one', () => {
    const luck = chance(22);
    for (let round = 0; round < 200; round++) {
      const demands = someDemands(luck);
      const plans = bestWidths(demands, 6);
      const most = Math.max(...demands.map((d) => d.pixels));
      plans.forEach((plan, i) => {
        expect(plan.widths.at(-1)).toBe(most);
        if (i > 0) expect(plan.surplus).toBeLessThanOrEqual(plans[i - 1]!.surplus + 1e-12);
      });
      const halves = demands.flatMap(({ pixels, share }) => [
        { pixels, share: share / 2 },
        { pixels, share: share / 2 },
      ]);
      expect(fewestWidths(halves).widths).toEqual(fewestWidths(demands).widths);
    }
  });
  test('too many different demands: the best six, and the surplus is told', () => {
    const demands = Array.from({ length: 40 }, (_, i) => ({ pixels: 20 * 1.2 ** i, share: 1 / 1.44 ** i }));
    const plan = fewestWidths(demands);
    expect(plan.widths.length).toBe(6);
    expect(plan.surplus).toBeGreaterThan(0.1);
  });
  test('without a demand there is nothing to plan', () => {
    expect(bestWidths([], 6)).toEqual([]);
    expect(() => fewestWidths([])).toThrow('without a demand');
  });
});
