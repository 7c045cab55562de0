// The map of a difference and its spots: errors that were planted are found where they were planted.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { Pixels } from './opponent.ts';
import { spotsOf, type DifferenceMap, type Spot } from './spots.ts';
import { DifferenceReference } from './visible-difference.ts';

const SIZE = { width: 320, height: 240 };

function plain(): Pixels {
  const data = new Uint8Array(SIZE.width * SIZE.height * 3);
  for (let i = 0; i < data.length; i++) data[i] = 110 + 30 * Math.sin(i / 3000);
  return { ...SIZE, channels: 3, data };
}

/** Noise of some strength in squares of 40 px. */
function damaged(pixels: Pixels, squares: { x: number; y: number; most: number }[]): Pixels {
  const data = Uint8Array.from(pixels.data);
  const random = chance(4);
  for (const { x, y, most } of squares)
    for (let dy = 0; dy < 40; dy++)
      for (let dx = 0; dx < 40; dx++)
        for (let c = 0; c < 3; c++) {
          const at = ((y + dy) * SIZE.width + x + dx) * 3 + c;
          data[at] = Math.min(255, Math.max(0, data[at]! + random.whole(-most, most)));
        }
  return { ...pixels, data };
}

const overlap = (a: Spot, b: Spot): boolean =>
  Math.abs(a.x - b.x) < Math.min(a.side, b.side) && Math.abs(a.y - b.y) < Math.min(a.side, b.side);

describe('the map', () => {
  const reference = new DifferenceReference(plain());
  test('is empty where nothing differs, and has no spots', () => {
    const { difference, map } = reference.look(plain());
    expect(difference).toBe(0);
    expect(map).toMatchObject({ step: 4, width: 79, height: 59 });
    expect(map.energies.every((energy) => energy === 0)).toBe(true);
    expect(spotsOf(map, 4, 56)).toEqual([]);
  });
  test('says the same D as the difference alone, at every density', () => {
    const variant = damaged(plain(), [{ x: 100, y: 60, most: 30 }]);
    for (const density of [1, 1.5, 2, 3]) {
      const one = new DifferenceReference(plain(), density);
      const { difference, map } = one.look(variant);
      expect(difference).toBe(one.differenceOf(variant));
      expect(map.step).toBe(density >= 2 ? 8 : 4);
    }
  });
  test('of a see-through picture is that of the worse ground', () => {
    const see = (colour: number): Pixels => ({
      width: 64,
      height: 64,
      channels: 4,
      data: Uint8Array.from({ length: 64 * 64 * 4 }, (_, i) =>
        i % 4 === 3 ? 20 : i % 7 === 0 ? colour : 128,
      ),
    });
    const one = new DifferenceReference(see(128));
    const { difference, map } = one.look(see(255));
    expect(difference).toBeGreaterThan(0);
    expect(spotsOf(map, 1, 64)[0]!.difference).toBeCloseTo(difference, 0);
  });
});

describe('spots', () => {
  test('lie where the errors are, the worst first, beside each other', () => {
    const squares = [
      { x: 20, y: 150, most: 14 },
      { x: 240, y: 30, most: 60 },
      { x: 140, y: 100, most: 30 },
    ];
    const { difference, map } = new DifferenceReference(plain()).look(damaged(plain(), squares));
    const spots = spotsOf(map, 3, 56);
    const worstFirst = [...squares].sort((a, b) => b.most - a.most);
    spots.forEach((spot, n) => {
      // The middle of the square lies in the spot.
      const { x, y } = worstFirst[n]!;
      expect(x + 20).toBeGreaterThan(spot.x);
      expect(x + 20).toBeLessThan(spot.x + spot.side);
      expect(y + 20).toBeGreaterThan(spot.y);
      expect(y + 20).toBeLessThan(spot.y + spot.side);
      expect(spot.difference).toBeLessThanOrEqual(difference + 1e-9);
      for (const other of spots.slice(n + 1)) {
        expect(other.difference).toBeLessThanOrEqual(spot.difference);
        expect(overlap(spot, other)).toBe(false);
      }
    });
    expect(spots).toHaveLength(3);
  });
  test('the first is the best that brute force finds, on random maps', () => {
    const random = chance(12);
    for (let n = 0; n < 40; n++) {
      const [width, height] = [random.whole(1, 14), random.whole(1, 14)];
      const energies = Float32Array.from({ length: width * height }, () => random.next() ** 4);
      const map: DifferenceMap = { width, height, step: 4, energies };
      const [first] = spotsOf(map, 1, 16);
      const across = Math.min(3, width, height);
      let best = -1;
      for (let y = 0; y + across <= height; y++)
        for (let x = 0; x + across <= width; x++) {
          let sum = 0;
          for (let dy = 0; dy < across; dy++)
            for (let dx = 0; dx < across; dx++) sum += energies[(y + dy) * width + x + dx]!;
          best = Math.max(best, sum);
        }
      let own = 0;
      for (let dy = 0; dy < across; dy++)
        for (let dx = 0; dx < across; dx++) own += energies[(first!.y / 4 + dy) * width + first!.x / 4 + dx]!;
      expect(own).toBeCloseTo(best, 5);
      expect(first!.side).toBe((across + 1) * 4);
    }
  });
  test('there are no more than there is room for', () => {
    const map: DifferenceMap = { width: 3, height: 3, step: 4, energies: new Float32Array(9).fill(1) };
    expect(spotsOf(map, 5, 16)).toHaveLength(1);
    expect(spotsOf(map, 0, 16)).toEqual([]);
  });
});
