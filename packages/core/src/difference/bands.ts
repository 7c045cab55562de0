// A plane split into frequency bands an octave apart, and the energy of each band on a grid of 4 px cells.

/** Side of a grid cell in px of the full picture. */
export const CELL = 4;
/** Bands from fine to coarse: five octaves and what is left below them, down to a change of the whole field. */
export const BANDS = 6;

/** Halves a plane by the binomial filter 1 3 3 1 in both directions. Sides must be even. */
export function halve(plane: Float32Array, width: number, height: number): Float32Array {
  const w = width >> 1;
  const h = height >> 1;
  const half = new Float32Array(w * h);
  const last = w - 1;
  for (let y = 0; y < h; y++) {
    // Beyond the edge its row or column stands once more.
    const r1 = 2 * y * width;
    const r2 = r1 + width;
    const r0 = y > 0 ? r1 - width : r1;
    const r3 = y < h - 1 ? r2 + width : r2;
    const out = y * w;
    // Columns filtered down, each once: the two beside each other, the one before and the one after them.
    let left = plane[r0]! + 3 * (plane[r1]! + plane[r2]!) + plane[r3]!;
    let right = plane[r0 + 1]! + 3 * (plane[r1 + 1]! + plane[r2 + 1]!) + plane[r3 + 1]!;
    let before = left;
    for (let x = 0; x < last; x++) {
      const at = 2 * x + 2;
      const after = plane[r0 + at]! + 3 * (plane[r1 + at]! + plane[r2 + at]!) + plane[r3 + at]!;
      half[out + x] = (before + 3 * (left + right) + after) / 64;
      before = right;
      left = after;
      right = plane[r0 + at + 1]! + 3 * (plane[r1 + at + 1]! + plane[r2 + at + 1]!) + plane[r3 + at + 1]!;
    }
    half[out + last] = (before + 3 * left + 4 * right) / 64;
  }
  return half;
}

/** Weights of the doubling, bilinear in both directions: what is near counts three times as much as what is far. */
const NEAR = 0.1875;
const FAR = 0.0625;

/**
 * Mean square of what the halving has lost (plane − half, doubled bilinearly) in cells of `side` px (1, 2 or 4), as a
 * grid of (width/side) × (height/side).
 */
function lostEnergy(
  plane: Float32Array,
  half: Float32Array,
  width: number,
  height: number,
  side: number,
): Float32Array {
  const w = width >> 1;
  const h = height >> 1;
  const cells = width / side;
  const grid = new Float32Array(cells * (height / side));
  const share = 1 / (side * side);
  const last = w - 1;
  for (let y = 0; y < h; y++) {
    const middle = y * w;
    const above = Math.max(0, y - 1) * w;
    const below = Math.min(h - 1, y + 1) * w;
    const top = 2 * y * width;
    const bottom = top + width;
    const out = Math.floor((2 * y) / side) * cells;
    // The doubled rows above and below the middle of a half row, before their far share across.
    let upper = NEAR * half[middle]! + FAR * half[above]!;
    let lower = NEAR * half[middle]! + FAR * half[below]!;
    let upperBefore = upper;
    let lowerBefore = lower;
    let sum = 0;
    for (let x = 0; x < w; x++) {
      const next = x < last ? x + 1 : last;
      const upperNext = NEAR * half[middle + next]! + FAR * half[above + next]!;
      const lowerNext = NEAR * half[middle + next]! + FAR * half[below + next]!;
      const a = plane[top + 2 * x]! - 3 * upper - upperBefore;
      const b = plane[top + 2 * x + 1]! - 3 * upper - upperNext;
      const c = plane[bottom + 2 * x]! - 3 * lower - lowerBefore;
      const d = plane[bottom + 2 * x + 1]! - 3 * lower - lowerNext;
      upperBefore = upper;
      lowerBefore = lower;
      upper = upperNext;
      lower = lowerNext;
      if (side === 4) {
        sum += a * a + b * b + c * c + d * d;
        if (x & 1) {
          grid[out + (x >> 1)]! += sum * share;
          sum = 0;
        }
      } else if (side === 2) grid[out + x] = (a * a + b * b + c * c + d * d) * share;
      else {
        const at = out + 2 * x;
        grid[at] = a * a;
        grid[at + 1] = b * b;
        grid[at + cells] = c * c;
        grid[at + cells + 1] = d * d;
      }
    }
  }
  return grid;
}

/** A band's energies in cells of its own size: 4 px in the finer bands, more in the coarser ones. */
export interface BandGrid {
  energies: Float32Array;
  /** Cells across. */
  width: number;
  /** Cells of 4 px along a side of one of these: a power of two. */
  times: number;
}

/**
 * Energy (mean square) of the bands from `first` on: full size (0), half (1), quarter (2), an eighth (3), a sixteenth
 * (4), and the rest at a half of that (5). Laplacian pyramid after P. Burt and E. Adelson, "The Laplacian pyramid as
 * a compact image code", 1983, with the kernel 1 3 3 1.
 * @param plane at the size of band `first`. @param width,height of the plane; multiples of 32 >> first.
 */
export function bandEnergies(plane: Float32Array, width: number, height: number, first: number): BandGrid[] {
  const grids: BandGrid[] = [];
  let current = plane;
  let w = width;
  let h = height;
  for (let band = first; band < BANDS - 1; band++) {
    const half = halve(current, w, h);
    const side = Math.max(1, CELL >> band);
    const energies = lostEnergy(current, half, w, h, side);
    grids.push({ energies, width: w / side, times: Math.max(1, (1 << band) / CELL) });
    current = half;
    w >>= 1;
    h >>= 1;
  }
  const rest = current.map((value) => value * value);
  grids.push({ energies: rest, width: w, times: (1 << (BANDS - 1)) / CELL });
  return grids;
}
