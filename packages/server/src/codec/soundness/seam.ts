// A seam in a JPEG: means of blocks are kept as differences, so one that was garbled shifts the brightness or colour of
// everything behind it, in reading order. It shows as a step that runs along a row of blocks to the right, and along the
// row below to the left: a stair one block high, which no picture has across its whole width.

/** Means of blocks in a grid, in levels of 0 to 255 around the middle, row by row. */
export interface Means {
  columns: number;
  rows: number;
  values: Float32Array;
  /** The step in which means are kept, in levels. */
  quantum: number;
}

/** The least steps that are looked for, in levels. */
const STEPS = [4, 10];
/** So many quanta at least: what slopes gently has steps of one or two all along a row. */
const QUANTA = 3;
/** Part of the seam that has such a step, at least; how much more of it than of what lies beside it. */
const ALONG = 0.7;
const MORE = 0.35;
/** Part of the width on both sides of the stair: edges of things run along the whole of it. */
const LEAST_SIDE = 0.2;
/** Part of the width around the stair in which it must be as high as everywhere: what is tilted rises slowly. */
const NEAR = 0.12;
const FEWEST_COLUMNS = 12;

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** Sums of how many cells before each column fulfil a condition. */
function counted(columns: number, holds: (x: number) => boolean): Uint32Array {
  const sums = new Uint32Array(columns + 1);
  for (let x = 0; x < columns; x++) sums[x + 1] = sums[x]! + Number(holds(x));
  return sums;
}

/** Whether everything steps by the same on the seam, from end to end and around the stair, and by nothing beside it. */
function isStair(
  columns: number,
  at: number,
  seam: (x: number) => number,
  beside: (x: number) => number,
): boolean {
  const all = Array.from({ length: columns }, (_, x) => x);
  const height = median(all.map(seam));
  const near = Math.max(2, Math.round(NEAR * columns));
  // The block that was garbled, and the one before it, may be anything.
  const parts = [
    all.slice(0, at - 1),
    all.slice(at + 1),
    all.slice(at - 1 - near, at - 1),
    all.slice(at + 1, at + 1 + near),
  ];
  const spread = median(all.map((x) => Math.abs(seam(x) - height)));
  return (
    spread <= 0.35 * Math.abs(height) &&
    parts.every(
      (part) =>
        median(part.map(seam)) / height >= 0.7 &&
        median(part.map(seam)) / height <= 1.4 &&
        Math.abs(median(part.map(beside)) / height) <= 0.3,
    )
  );
}

/** Whether there is a seam from a row on, of steps of one sign that are at least so high. */
function seamAt({ columns, values }: Means, row: number, sign: number, least: number): boolean {
  /** What changes from the row above. */
  const step = (y: number, x: number): number => values[y * columns + x]! - values[(y - 1) * columns + x]!;
  const [upper, lower] = [row, row + 1].map((y) => counted(columns, (x) => step(y, x) * sign >= least));
  const [upperAny, lowerAny] = [row, row + 1].map((y) =>
    counted(columns, (x) => Math.abs(step(y, x)) >= 0.6 * least),
  );
  const side = Math.ceil(LEAST_SIDE * columns);
  for (let at = side; at <= columns - side; at++) {
    const along = upper![columns]! - upper![at]! + lower![at]!;
    const beside = upperAny![at]! + lowerAny![columns]! - lowerAny![at]!;
    if (along < ALONG * columns || along - beside < MORE * columns) continue;
    const onSeam = (x: number) => step(x >= at ? row : row + 1, x);
    const besideIt = (x: number) => step(x >= at ? row + 1 : row, x);
    if (isStair(columns, at, onSeam, besideIt)) return true;
  }
  return false;
}

/** The row of blocks in which everything begins to be shifted, or null. Of a small picture too little is known. */
export function seamIn(means: Means): number | null {
  if (means.columns < FEWEST_COLUMNS) return null;
  // Where means are kept coarsely, both are the same.
  const steps = new Set(STEPS.map((step) => Math.max(step, QUANTA * means.quantum)));
  for (let row = 1; row < means.rows - 1; row++)
    for (const least of steps) if (seamAt(means, row, 1, least) || seamAt(means, row, -1, least)) return row;
  return null;
}
