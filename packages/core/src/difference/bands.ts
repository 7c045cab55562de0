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
  // One row of vertical sums at a time, filtered across on the way.
  const column = new Float32Array(width);
  for (let y = 0; y < h; y++) {
    const r1 = 2 * y * width;
    const r0 = y > 0 ? r1 - width : r1;
    const r2 = r1 + width;
    const r3 = y < h - 1 ? r2 + width : r2;
    for (let x = 0; x < width; x++) {
      column[x] = plane[r0 + x]! + 3 * (plane[r1 + x]! + plane[r2 + x]!) + plane[r3 + x]!;
    }
    const out = y * w;
    const last = w - 1;
    half[out] = (4 * column[0]! + 3 * column[1]! + column[Math.min(2, width - 1)]!) / 64;
    for (let x = 1; x < last; x++) {
      const c = 2 * x;
      half[out + x] = (column[c - 1]! + 3 * (column[c]! + column[c + 1]!) + column[c + 2]!) / 64;
    }
    if (last > 0) {
      const c = 2 * last;
      half[out + last] = (column[c - 1]! + 3 * column[c]! + 4 * column[c + 1]!) / 64;
    }
  }
  return half;
}

/**
 * Mean square of what the halving has lost (plane − half, doubled bilinearly) in cells of `side` px, as a grid of
 * (width/side) × (height/side).
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
  const shift = Math.log2(side);
  const grid = new Float32Array(cells * (height / side));
  // One place more on either side: the edge is repeated without asking at every pixel.
  const row = new Float32Array(w + 2);
  for (let y = 0; y < height; y++) {
    const near = (y >> 1) * w;
    const other = Math.min(h - 1, Math.max(0, (y >> 1) + (y & 1 ? 1 : -1))) * w;
    for (let x = 0; x < w; x++) row[x + 1] = 0.75 * half[near + x]! + 0.25 * half[other + x]!;
    row[0] = row[1]!;
    row[w + 1] = row[w]!;
    const from = y * width;
    const out = (y >> shift) * cells;
    for (let x = 0; x < w; x++) {
      const here = 0.75 * row[x + 1]!;
      const left = plane[from + 2 * x]! - here - 0.25 * row[x]!;
      const right = plane[from + 2 * x + 1]! - here - 0.25 * row[x + 2]!;
      if (side > 1) grid[out + ((2 * x) >> shift)]! += left * left + right * right;
      else {
        grid[out + 2 * x] = left * left;
        grid[out + 2 * x + 1] = right * right;
      }
    }
  }
  const scale = 1 / (side * side);
  if (side > 1) for (let i = 0; i < grid.length; i++) grid[i]! *= scale;
  return grid;
}

/** A coarse grid on the finer 4 px grid, by repetition. */
function spread(grid: Float32Array, width: number, height: number, times: number): Float32Array {
  if (times === 1) return grid;
  const w = width * times;
  const result = new Float32Array(w * height * times);
  for (let y = 0; y < height * times; y++) {
    const from = Math.floor(y / times) * width;
    for (let x = 0; x < w; x++) result[y * w + x] = grid[from + Math.floor(x / times)]!;
  }
  return result;
}

/**
 * Energy (mean square) of the bands from `first` on, on the 4 px grid: full size (0), half (1), quarter (2), an
 * eighth (3), a sixteenth (4), and the rest at a half of that (5). Laplacian pyramid after P. Burt and E. Adelson, "The Laplacian pyramid as a compact
 * image code", 1983, with the kernel 1 3 3 1.
 * @param plane at the size of band `first`. @param width,height of the plane; multiples of 32 >> first.
 */
export function bandEnergies(
  plane: Float32Array,
  width: number,
  height: number,
  first: number,
): Float32Array[] {
  const energies: Float32Array[] = [];
  let current = plane;
  let w = width;
  let h = height;
  for (let band = first; band < BANDS - 1; band++) {
    const half = halve(current, w, h);
    const side = Math.max(1, CELL >> band);
    const grid = lostEnergy(current, half, w, h, side);
    energies.push(spread(grid, w / side, h / side, Math.max(1, (1 << band) / CELL)));
    current = half;
    w >>= 1;
    h >>= 1;
  }
  const rest = current.map((value) => value * value);
  energies.push(spread(rest, w, h, (1 << (BANDS - 1)) / CELL));
  return energies;
}
