// Sharing out a page's bytes, against every combination.
import { describe, expect, test } from '@jest/globals';
import { chance, type Chance } from '../chance/chance.ts';
import { frontOf, lowerHull, type RatePoint } from './hull.ts';
import { allocatePage, type PagePicture } from './page-budget.ts';

/** Least Σ importance × D within the limit by trying all combinations; Infinity when nothing fits. */
function leastByTrying(pictures: readonly PagePicture[], limit: number): number {
  const [first, ...rest] = pictures;
  if (!first) return limit >= 0 ? 0 : Infinity;
  const points = first.pinned ? [first.pinned] : first.points;
  return Math.min(
    ...points.map((p) => first.importance * p.difference + leastByTrying(rest, limit - p.bytes)),
  );
}

/** Files of one picture at falling quality: bytes and difference as encoders give them, with their bumps. */
function ladder(luck: Chance): RatePoint[] {
  const size = luck.whole(5, 80) * 1000;
  const hard = 0.5 + luck.next() * 2;
  return Array.from({ length: luck.whole(2, 7) }, (_, i) => ({
    bytes: Math.round(size * 0.75 ** i * (0.95 + luck.next() / 10)),
    difference: hard * 1.35 ** i * (0.97 + luck.next() * 0.06),
  }));
}

const page = (luck: Chance, most = 5): PagePicture[] =>
  Array.from({ length: luck.whole(1, most) }, (_, i) => {
    const points = ladder(luck);
    const picture = { id: `p${i}`, importance: luck.pick([1, 1, 2, 4]), points };
    return luck.next() < 0.2 ? { ...picture, pinned: luck.pick(points) } : picture;
  });

describe('hulls', () => {
  test('by hand', () => {
    const points = [
      [10, 5],
      [20, 3],
      [30, 2.9],
      [40, 1],
      [45, 1.5],
      [50, 0.9],
    ].map(([bytes, difference]) => ({ bytes: bytes!, difference: difference! }));
    expect(frontOf(points).map((p) => p.bytes)).toEqual([10, 20, 30, 40, 50]);
    expect(lowerHull(points).map((p) => p.bytes)).toEqual([10, 20, 40, 50]);
    expect(lowerHull([])).toEqual([]);
  });
  test('no point lies below, and slopes only get flatter', () => {
    const luck = chance(31);
    for (let i = 0; i < 200; i++) {
      const points = Array.from({ length: luck.whole(1, 12) }, () => ({
        bytes: luck.whole(1, 40),
        difference: luck.whole(1, 40),
      }));
      const hull = lowerHull(points);
      const slopes = hull
        .slice(1)
        .map((p, k) => (hull[k]!.difference - p.difference) / (p.bytes - hull[k]!.bytes));
      expect([...slopes].sort((a, b) => b - a)).toEqual(slopes);
      for (const { bytes, difference } of points) {
        const k = hull.findLastIndex((p) => p.bytes <= bytes);
        const [a, b] = [hull[k]!, hull[k + 1]];
        const line = b
          ? a.difference - ((a.difference - b.difference) * (bytes - a.bytes)) / (b.bytes - a.bytes)
          : a.difference;
        expect(difference).toBeGreaterThanOrEqual(line - 1e-9);
      }
    }
  });
});

describe('a page’s bytes', () => {
  test('within the limit and at most 2 % above the best of all combinations', () => {
    const luck = chance(32);
    let worst = 0;
    for (let round = 0; round < 400; round++) {
      const pictures = page(luck);
      const all = pictures.flatMap(({ points, pinned }) =>
        pinned ? [pinned.bytes] : points.map((p) => p.bytes),
      );
      const limit = luck.whole(
        Math.min(...all),
        all.reduce((a, b) => a + b, 0),
      );
      const least = leastByTrying(pictures, limit);
      const plan = allocatePage(pictures, limit);
      if (least === Infinity) {
        expect(plan.over).toBeGreaterThan(0);
        continue;
      }
      expect(plan.over).toBe(0);
      expect(plan.bytes).toBeLessThanOrEqual(limit);
      expect(plan.difference).toBeGreaterThanOrEqual(least - 1e-9);
      worst = Math.max(worst, plan.difference / least - 1);
    }
    expect(worst).toBeLessThanOrEqual(0.02);
  });
  test('what is pinned stays, and what does not fit is told', () => {
    const points = [
      { bytes: 50, difference: 1 },
      { bytes: 20, difference: 3 },
    ];
    const pictures: PagePicture[] = [
      { id: 'hero', importance: 4, points, pinned: points[0]! },
      { id: 'thumb', importance: 1, points },
    ];
    const tight = allocatePage(pictures, 70);
    expect([tight.chosen.get('hero'), tight.chosen.get('thumb'), tight.over]).toEqual([
      points[0],
      points[1],
      0,
    ]);
    expect(allocatePage(pictures, 100).difference).toBe(5);
    expect(allocatePage(pictures, 60)).toMatchObject({ bytes: 70, over: 10 });
  });
  test('importance decides who gets the bytes', () => {
    const points = [
      { bytes: 10, difference: 3 },
      { bytes: 30, difference: 1 },
    ];
    const plan = allocatePage(
      [
        { id: 'a', importance: 1, points },
        { id: 'b', importance: 2, points },
      ],
      40,
    );
    expect([plan.chosen.get('a')!.bytes, plan.chosen.get('b')!.bytes]).toEqual([10, 30]);
  });
  test('more bytes never make a page worse by more than the 2 % it may miss', () => {
    const luck = chance(33);
    for (let round = 0; round < 40; round++) {
      const pictures = page(luck, 30);
      let before = Infinity;
      for (const limit of [100_000, 300_000, 600_000, 1_200_000, 5_000_000]) {
        const plan = allocatePage(pictures, limit);
        if (plan.over > 0) continue;
        expect(plan.difference).toBeLessThanOrEqual(before * 1.02);
        before = plan.difference;
      }
    }
  });
  test('no pictures, no points, no importance', () => {
    expect(allocatePage([], 10)).toMatchObject({ bytes: 0, difference: 0, over: 0 });
    expect(() => allocatePage([{ id: 'x', importance: 1, points: [] }], 10)).toThrow('“x” has no file');
    const point = { bytes: 1, difference: 1 };
    expect(() => allocatePage([{ id: 'x', importance: 0, points: [point] }], 10)).toThrow('above 0');
  });
});
