// Bands and windows are computed in passes that save work: beside each other with the plain way, place by place.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { BANDS, bandEnergies, CELL, halve, type BandGrid } from './bands.ts';
import { gridOf, windowEnergies } from './windows.ts';

interface Plane {
  values: Float32Array;
  width: number;
  height: number;
}

const between = (at: number, side: number): number => Math.min(side - 1, Math.max(0, at));
const at = ({ values, width, height }: Plane, x: number, y: number): number =>
  values[between(y, height) * width + between(x, width)]!;

function noise(width: number, height: number): Plane {
  const luck = chance(width * 1000 + height);
  return { values: Float32Array.from({ length: width * height }, () => 2 * luck.next() - 1), width, height };
}

/** One value for each place of a plane. */
const planeOf = (width: number, height: number, value: (x: number, y: number) => number): Plane => ({
  values: Float32Array.from({ length: width * height }, (_, i) => value(i % width, Math.floor(i / width))),
  width,
  height,
});

const KERNEL = [1, 3, 3, 1];
const plainlyHalved = (plane: Plane): Plane =>
  planeOf(plane.width / 2, plane.height / 2, (x, y) => {
    let sum = 0;
    KERNEL.forEach((down, j) =>
      KERNEL.forEach((across, i) => (sum += down * across * at(plane, 2 * x + i - 1, 2 * y + j - 1))),
    );
    return sum / 64;
  });

/** What is lost at each place: the plane less its half, doubled bilinearly. */
const plainlyLost = (plane: Plane, half: Plane): Plane =>
  planeOf(plane.width, plane.height, (x, y) => {
    const [near, far] = [(n: number) => n >> 1, (n: number) => (n >> 1) + (n & 1 ? 1 : -1)];
    const doubled =
      9 * at(half, near(x), near(y)) +
      3 * at(half, far(x), near(y)) +
      3 * at(half, near(x), far(y)) +
      at(half, far(x), far(y));
    return at(plane, x, y) - doubled / 16;
  });

const meanSquare = (plane: Plane, x: number, y: number, side: number): number => {
  let sum = 0;
  for (let j = 0; j < side; j++) for (let i = 0; i < side; i++) sum += at(plane, x + i, y + j) ** 2;
  return sum / side ** 2;
};

const farthest = (found: Float32Array, wanted: (i: number) => number): number =>
  found.reduce((most, value, i) => Math.max(most, Math.abs(value - wanted(i))), 0);

describe('bands', () => {
  test('halving is the kernel at every place, also at the edges', () => {
    for (const [width, height] of [
      [32, 32],
      [96, 64],
      [2, 2],
      [2, 8],
    ] as const) {
      const plane = noise(width, height);
      const wanted = plainlyHalved(plane).values;
      const found = halve(plane.values, width, height);
      expect(found).toHaveLength(wanted.length);
      expect(farthest(found, (i) => wanted[i]!)).toBeLessThan(1e-6);
    }
  });
  test('a cell of a band holds the mean square of what was lost there', () => {
    let plane = noise(96, 64);
    const grids = bandEnergies(plane.values, plane.width, plane.height, 0);
    expect(grids).toHaveLength(BANDS);
    for (const [band, { energies, width, times }] of grids.entries()) {
      const half = band < BANDS - 1 ? plainlyHalved(plane) : null;
      const lost = half ? plainlyLost(plane, half) : plane;
      const side = Math.max(1, CELL >> band);
      expect([width, times]).toEqual([plane.width / side, Math.max(1, 2 ** band / CELL)]);
      expect(energies).toHaveLength((plane.width * plane.height) / side ** 2);
      const wanted = (i: number) => meanSquare(lost, side * (i % width), side * Math.floor(i / width), side);
      expect(farthest(energies, wanted)).toBeLessThan(1e-6);
      if (half) plane = half;
    }
  });
});

describe('windows', () => {
  test('hold the mean of their four cells, however large the cells of a band are', () => {
    const planes = {
      ...{ width: 96, height: 64, lightness: noise(96, 64).values },
      ...{ greenRed: noise(48, 32).values, blueYellow: noise(48, 32).values },
    };
    // Less than the planes: what lies beyond the picture is in no window.
    const inner = gridOf(83, 51);
    const energies = windowEnergies(planes, inner);
    const grids: (BandGrid | null)[][] = [
      bandEnergies(planes.lightness, 96, 64, 0),
      [null, ...bandEnergies(planes.greenRed, 48, 32, 1)],
      [null, ...bandEnergies(planes.blueYellow, 48, 32, 1)],
    ];
    for (const [channel, bands] of grids.entries()) {
      for (const [band, grid] of bands.entries()) {
        const found = energies[channel]![band]!;
        expect(found).toHaveLength(grid ? inner.width * inner.height : 0);
        if (!grid) continue;
        const cell = (x: number, y: number): number =>
          grid.energies[Math.floor(y / grid.times) * grid.width + Math.floor(x / grid.times)]!;
        const wanted = (i: number): number => {
          const [x, y] = [i % inner.width, Math.floor(i / inner.width)];
          return (cell(x, y) + cell(x + 1, y) + cell(x, y + 1) + cell(x + 1, y + 1)) / 4;
        };
        expect(farthest(found, wanted)).toBeLessThan(1e-6);
      }
    }
  });
});
