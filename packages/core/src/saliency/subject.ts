// From a saliency map to the first guess of the focal point.
import type { Extent } from '../contract/index.ts';
import { roundHalfUp } from '../geometry/geometry.ts';
import type { Pixels } from '../difference/opponent.ts';
import { saliencyOf, type SaliencyMap } from './saliency.ts';

/** The threshold that parts values best into two classes (N. Otsu, 1979), over 64 bins of 0 to 1. */
export function otsu(values: Float32Array): number {
  const bins = new Float64Array(64);
  for (const value of values) bins[Math.min(63, Math.floor(value * 64))]! += 1;
  let total = 0;
  bins.forEach((count, i) => (total += count * i));
  let below = 0;
  let sumBelow = 0;
  let best = 0;
  let threshold = 0;
  for (let i = 0; i < 63; i++) {
    below += bins[i]!;
    sumBelow += bins[i]! * i;
    const above = values.length - below;
    if (below === 0 || above === 0) continue;
    const between = below * above * (sumBelow / below - (total - sumBelow) / above) ** 2;
    if (between > best) [best, threshold] = [between, (i + 1) / 64];
  }
  return threshold;
}

/** Areas lighter than this share of the heaviest are specks beside the subject. */
const SPECK = 0.2;

/** Connected areas above the threshold (four neighbours): the area of each pixel, −1 for none, and their weights. */
function areasOf({ width, height, values }: SaliencyMap, threshold: number) {
  const areas = new Int32Array(values.length).fill(-1);
  const weights: number[] = [];
  const open: number[] = [];
  const visit = (at: number, area: number): void => {
    if (values[at]! < threshold || areas[at]! >= 0) return;
    areas[at] = area;
    open.push(at);
  };
  for (let seed = 0; seed < values.length; seed++) {
    if (values[seed]! < threshold || areas[seed]! >= 0) continue;
    const area = weights.push(0) - 1;
    visit(seed, area);
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      weights[area]! += values[at]!;
      const x = at % width;
      if (x > 0) visit(at - 1, area);
      if (x < width - 1) visit(at + 1, area);
      if (at >= width) visit(at - width, area);
      if (at < width * (height - 1)) visit(at + width, area);
    }
  }
  return { areas, weights };
}

/** Sums of a map's values by column and by row, over the areas that count. */
function profiles(map: SaliencyMap, threshold: number) {
  const { areas, weights } = areasOf(map, threshold);
  const least = SPECK * Math.max(0, ...weights);
  const columns = new Float64Array(map.width);
  const rows = new Float64Array(map.height);
  map.values.forEach((value, i) => {
    const area = areas[i]!;
    if (area < 0 || weights[area]! < least) return;
    columns[i % map.width]! += value;
    rows[Math.floor(i / map.width)]! += value;
  });
  return { columns, rows };
}

/** The stretch that holds all but a part of the weight at either end, as fractions of the length. */
function stretchOf(weights: Float64Array, leftOut: number): [number, number] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  if (total === 0) return [0, 1];
  const reach = (share: number): number => {
    let sum = 0;
    for (let i = 0; i < weights.length; i++) {
      if (sum + weights[i]! >= share * total) return i + (share * total - sum) / Math.max(1e-9, weights[i]!);
      sum += weights[i]!;
    }
    return weights.length;
  };
  return [reach(leftOut) / weights.length, reach(1 - leftOut) / weights.length];
}

/** Weight that is left out at either end: what reaches far out is seldom the subject. */
const LEFT_OUT = 0.1;
/** How far a guess goes from the picture's middle towards what was found: subjects are seldom at the edge. */
const TRUST = 0.85;

const thousandth = (value: number): number => roundHalfUp(value * 1000) / 1000;

/**
 * The first guess of the focal point, as fractions: the middle of the salient area, in each direction by itself, so
 * that a window centred there keeps as much of the subject as it can, wide or tall. A guess until confirmed. With it
 * the box that holds the inner 80 % of the salient area's weight in each direction.
 * @param pixels the whole picture at about 200 px on the long side.
 */
export function guessFocalPoint(pixels: Pixels): { x: number; y: number; extent: Extent } {
  const map = saliencyOf(pixels);
  const { columns, rows } = profiles(map, otsu(map.values));
  const [[left, right], [top, bottom]] = [stretchOf(columns, LEFT_OUT), stretchOf(rows, LEFT_OUT)];
  const guess = (from: number, to: number): number => thousandth(0.5 + ((from + to) / 2 - 0.5) * TRUST);
  return {
    x: guess(left, right),
    y: guess(top, bottom),
    extent: {
      left: thousandth(left),
      top: thousandth(top),
      right: thousandth(right),
      bottom: thousandth(bottom),
    },
  };
}
