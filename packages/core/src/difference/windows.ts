// What happens in each window of a picture, band by band: windows of 8 px, every 4 px.
import { bandEnergies, CELL } from './bands.ts';
import type { OpponentPlanes } from './opponent.ts';

/** Energies by channel (lightness, green–red, blue–yellow), band (fine to coarse) and window; empty where unseen. */
export type WindowEnergies = Float32Array[][];

/** Windows across and down. */
export interface Grid {
  width: number;
  height: number;
}

/** Means of 2 × 2 cells around every inner corner: windows of 8 px, every 4 px, that lie inside the picture. */
function windowMeans(cells: Float32Array, stride: number, inner: Grid): Float32Array {
  const result = new Float32Array(inner.width * inner.height);
  for (let y = 0; y < inner.height; y++) {
    let from = y * stride;
    let to = y * inner.width;
    for (let x = 0; x < inner.width; x++, from++, to++) {
      result[to] = (cells[from]! + cells[from + 1]! + cells[from + stride]! + cells[from + stride + 1]!) / 4;
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
  const none = new Float32Array(0);
  const cells = [
    bandEnergies(planes.lightness, width, height, 0),
    [none, ...bandEnergies(planes.greenRed, width >> 1, height >> 1, 1)],
    [none, ...bandEnergies(planes.blueYellow, width >> 1, height >> 1, 1)],
  ];
  return cells.map((bands) =>
    bands.map((grid) => (grid.length > 0 ? windowMeans(grid, width / CELL, inner) : grid)),
  );
}
