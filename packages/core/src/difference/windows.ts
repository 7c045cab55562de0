// What happens in each window of a picture, band by band: windows of 8 px, every 4 px.
import { bandEnergies, CELL, type BandGrid } from './bands.ts';
import type { OpponentPlanes } from './opponent.ts';

/** Energies by channel (lightness, green–red, blue–yellow), band (fine to coarse) and window; empty where unseen. */
export type WindowEnergies = Float32Array[][];

/** Windows across and down. */
export interface Grid {
  width: number;
  height: number;
}

/**
 * Means of the 2 × 2 cells of 4 px around every inner corner: windows of 8 px, every 4 px, that lie inside the picture.
 * Where cells are larger, most rows of windows are as the row above.
 */
function windowMeans({ energies, width, times }: BandGrid, inner: Grid): Float32Array {
  const result = new Float32Array(inner.width * inner.height);
  const step = Math.log2(times);
  for (let y = 0; y < inner.height; y++) {
    const to = y * inner.width;
    const place = y & (times - 1);
    if (place > 0 && place < times - 1) {
      result.copyWithin(to, to - inner.width, to);
      continue;
    }
    const above = (y >> step) * width;
    const below = ((y + 1) >> step) * width;
    let before = energies[above]! + energies[below]!;
    for (let x = 0; x < inner.width; x++) {
      const right = (x + 1) >> step;
      const next = energies[above + right]! + energies[below + right]!;
      result[to + x] = (before + next) / 4;
      before = next;
    }
  }
  return result;
}

/** Windows that lie inside a picture; at least one. */
export const gridOf = (width: number, height: number): Grid => {
  const along = (side: number): number => Math.max(1, Math.floor(side / CELL) - 1);
  return { width: along(width), height: along(height) };
};

/** Energies in every window: lightness in all bands, the colours from the second on (the finest shows none to the eye). */
export function windowEnergies(planes: OpponentPlanes, inner: Grid): WindowEnergies {
  const { width, height } = planes;
  const colour = (plane: Float32Array): BandGrid[] => bandEnergies(plane, width >> 1, height >> 1, 1);
  const means = (grids: BandGrid[]): Float32Array[] => grids.map((grid) => windowMeans(grid, inner));
  const none = new Float32Array(0);
  return [
    means(bandEnergies(planes.lightness, width, height, 0)),
    [none, ...means(colour(planes.greenRed))],
    [none, ...means(colour(planes.blueYellow))],
  ];
}
