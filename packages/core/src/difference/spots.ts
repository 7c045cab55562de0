// Where a variant differs: a map of what is seen in every window, and the spots of it that are seen most.
import { CALIBRATED, type DifferenceModel } from './model.ts';
import { pooled } from './pooling.ts';

/** What is seen of a difference, window by window. */
export interface DifferenceMap {
  /** Windows across and down; each begins `step` px behind the one before and is two steps wide. */
  width: number;
  height: number;
  /** In px of the variant. */
  step: number;
  /** Energy that is seen, by window; its square root is in proportion to what an eye sees. */
  energies: Float32Array;
}

/** A square of a picture that differs more than what lies around it. In px of the variant. */
export interface Spot {
  x: number;
  y: number;
  side: number;
  /** D of the picture if nothing but this spot differed. */
  difference: number;
}

/** Sums of a grid from its upper left corner on, a row and a column of zeros before it (F. Crow, 1984). */
function summed({ width, height, energies }: DifferenceMap): Float64Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += energies[y * width + x]!;
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row;
    }
  }
  return sums;
}

/**
 * The squares that are seen most, the worst first; they do not overlap, and each is seen. Squares are chosen by all that is
 * seen in them, and stand in the order of the difference that each makes.
 * @param most how many at most. @param side of a spot in px of the variant; it is made as small as the map where that is smaller
 */
export function spotsOf(
  map: DifferenceMap,
  most: number,
  side: number,
  model: DifferenceModel = CALIBRATED,
): Spot[] {
  const left: DifferenceMap = { ...map, energies: Float32Array.from(map.energies) };
  const windows = map.width * map.height;
  const across = Math.max(1, Math.min(Math.round(side / map.step) - 1, map.width, map.height));
  const spots: Spot[] = [];
  while (spots.length < most) {
    const sums = summed(left);
    const at = (x: number, y: number) => sums[y * (map.width + 1) + x]!;
    let best = { energy: 0, x: 0, y: 0 };
    for (let y = 0; y + across <= map.height; y++)
      for (let x = 0; x + across <= map.width; x++) {
        const energy = at(x + across, y + across) - at(x, y + across) - at(x + across, y) + at(x, y);
        if (energy > best.energy) best = { energy, x, y };
      }
    if (best.energy <= 0) break;
    const own = new Float32Array(across * across);
    for (let y = 0; y < across; y++)
      for (let x = 0; x < across; x++) {
        const i = (best.y + y) * map.width + best.x + x;
        own[y * across + x] = map.energies[i]!;
        left.energies[i] = 0;
      }
    // Windows reach into their neighbours: one all around is taken along.
    for (let y = Math.max(0, best.y - 1); y < Math.min(map.height, best.y + across + 1); y++)
      left.energies.fill(
        0,
        y * map.width + Math.max(0, best.x - 1),
        y * map.width + Math.min(map.width, best.x + across + 1),
      );
    spots.push({
      x: best.x * map.step,
      y: best.y * map.step,
      side: (across + 1) * map.step,
      difference: pooled(own, model, windows),
    });
  }
  return spots.sort((a, b) => b.difference - a.difference);
}
