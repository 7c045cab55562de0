// How far a picture is tilted, from its own straight edges: horizons, shelves, posts. What it finds is a proposal.
import { clamp } from './geometry.ts';

/** Lightness of a picture, 0 to 1, in rows from the top. About 640 px on the long side. */
export interface LightnessMap {
  width: number;
  height: number;
  values: Float32Array;
}

export interface TiltProposal {
  /** Degrees clockwise that would straighten it, to a tenth: the angle of a frame. */
  angle: number;
  /** Length of the longest straight edge that says so, as a part of the picture's side, 0 to 1. */
  longest: number;
  /** How much better this angle explains the edges than the others do; 1 is not at all. */
  clearness: number;
}

/** Edges within this of level or upright may be meant to be so. Degrees. */
const MOST_TILT = 12;
const STEP = 0.1;
const ANGLES = Math.round((2 * MOST_TILT) / STEP) + 1;
/** An edge's own direction is known to about this from a few pixels. Degrees. */
const SPREAD = 2.5;
/** Edges that are shorter are texture; as a part of the picture's side. */
const LEAST_LENGTH = 0.1;
/** Uprights beside level edges: as good a witness (bench/results/straighten.json). */
const UPRIGHTS = 1;
/** A proposal needs one edge of this part of the side, and an angle that is clearer than the others by this much. */
const LEAST_LONGEST = 0.22;
const LEAST_CLEARNESS = 2.2;
/** Less than this is as straight as hands and eyes can tell. Degrees. */
const STRAIGHT = 0.25;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Mean of 3 × 3 px, twice: close to a Gaussian of σ ≈ 1.2, against grain and stairs. */
function smoothed({ width, height, values }: LightnessMap): Float32Array {
  let from = values;
  for (let pass = 0; pass < 2; pass++) {
    const to = new Float32Array(values.length);
    for (let y = 0; y < height; y++) {
      const [above, below] = [Math.max(0, y - 1) * width, Math.min(height - 1, y + 1) * width];
      const row = y * width;
      for (let x = 0; x < width; x++) {
        const [left, right] = [Math.max(0, x - 1), Math.min(width - 1, x + 1)];
        to[row + x] =
          (from[above + left]! + from[above + x]! + from[above + right]! +
            from[row + left]! + from[row + x]! + from[row + right]! +
            from[below + left]! + from[below + x]! + from[below + right]!) / 9; // prettier-ignore
      }
    }
    from = to;
  }
  return from;
}

/** Half as wide and high: what is out of focus has its edges there. */
function halved({ width, height, values }: LightnessMap): LightnessMap {
  const [w, h] = [width >> 1, height >> 1];
  const small = new Float32Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const i = 2 * y * width + 2 * x;
      small[y * w + x] = (values[i]! + values[i + 1]! + values[i + width]! + values[i + width + 1]!) / 4;
    }
  }
  return { width: w, height: h, values: small };
}

interface Edge {
  x: number;
  y: number;
  /** Direction off level (or off upright), in degrees; clockwise is positive. */
  tilt: number;
  weight: number;
}

/** Thin edges that are nearly level, and nearly upright. Gradient of Scharr (1999), ridge kept as Canny (1986) does. */
function edgesOf(map: LightnessMap): { level: Edge[]; upright: Edge[] } {
  const { width, height } = map;
  const v = smoothed(map);
  const [gx, gy, strength] = [
    new Float32Array(v.length),
    new Float32Array(v.length),
    new Float32Array(v.length),
  ];
  const strengths: number[] = [];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const [a, b, c] = [v[i - width - 1]!, v[i - width]!, v[i - width + 1]!];
      const [d, e] = [v[i - 1]!, v[i + 1]!];
      const [f, g, h] = [v[i + width - 1]!, v[i + width]!, v[i + width + 1]!];
      gx[i] = (3 * (c - a) + 10 * (e - d) + 3 * (h - f)) / 32;
      gy[i] = (3 * (f - a) + 10 * (g - b) + 3 * (h - c)) / 32;
      strength[i] = Math.hypot(gx[i], gy[i]);
      if ((x + y) % 3 === 0) strengths.push(strength[i]);
    }
  }
  strengths.sort((p, q) => p - q);
  const at = (part: number) => strengths[Math.floor(part * (strengths.length - 1))] ?? 0;
  const [least, full] = [Math.max(0.006, at(0.75)), Math.max(0.03, at(0.95))];
  const [level, upright]: [Edge[], Edge[]] = [[], []];
  // The frame's own border is no edge of the picture.
  for (let y = 3; y < height - 3; y++) {
    for (let x = 3; x < width - 3; x++) {
      const i = y * width + x;
      const s = strength[i]!;
      if (s < least) continue;
      const [dx, dy] = [gx[i]!, gy[i]!];
      const steep = Math.abs(dy) > Math.abs(dx);
      const [one, other] = steep ? [i - width, i + width] : [i - 1, i + 1];
      if (s < strength[one]! || s <= strength[other]!) continue;
      // A level edge has a gradient that points up or down; tilted clockwise by t it points along (−sin t, cos t).
      const tilt = steep ? (Math.atan(-dx / dy) * 180) / Math.PI : (Math.atan(dy / dx) * 180) / Math.PI;
      if (Math.abs(tilt) > MOST_TILT + SPREAD) continue;
      // Between the pixels the ridge lies at the top of a parabola.
      const [p, q] = [strength[one]!, strength[other]!];
      const off = clamp((p - q) / (2 * (p + q - 2 * s) || -1), -0.5, 0.5);
      const at = steep ? { x, y: y + off } : { x: x + off, y };
      (steep ? level : upright).push({ ...at, tilt, weight: Math.min(1, 0.4 + s / full) });
    }
  }
  return { level, upright };
}

/**
 * Lines by angle and distance (Hough 1962; Duda and Hart 1972), each edge only near its own direction. What is longer
 * than texture counts with its square: one horizon says more than many short strokes.
 * @param level whether the edges are nearly level; upright ones are seen with the axes swapped
 * @returns for every angle the sum over its lines, and the longest of them in px
 */
function linesAt(
  edges: readonly Edge[],
  { width, height }: LightnessMap,
  level: boolean,
): { sums: Float64Array; longest: Float64Array } {
  const side = level ? width : height;
  const reach = Math.ceil(Math.hypot(width, height)) + 2;
  const bins = 2 * reach;
  const votes = new Float32Array(bins);
  const [sums, longest] = [new Float64Array(ANGLES), new Float64Array(ANGLES)];
  const sorted = [...edges].sort((a, b) => a.tilt - b.tilt);
  let [first, last] = [0, 0];
  for (let n = 0; n < ANGLES; n++) {
    const tilt = -MOST_TILT + n * STEP;
    while (first < sorted.length && sorted[first]!.tilt < tilt - SPREAD) first++;
    while (last < sorted.length && sorted[last]!.tilt <= tilt + SPREAD) last++;
    votes.fill(0);
    const [sin, cos] = [Math.sin(radians(tilt)), Math.cos(radians(tilt))];
    for (let i = first; i < last; i++) {
      const { x, y, weight } = sorted[i]!;
      const rho = (level ? y * cos - x * sin : x * cos + y * sin) + reach / 2;
      const bin = Math.floor(rho);
      const part = rho - bin;
      votes[bin] = votes[bin]! + weight * (1 - part);
      votes[bin + 1] = votes[bin + 1]! + weight * part;
    }
    for (let bin = 1; bin < bins - 1; bin++) {
      const length = votes[bin]!;
      if (length > longest[n]!) longest[n] = length;
      const over = length - LEAST_LENGTH * side;
      if (over > 0) sums[n] = sums[n]! + over * over;
    }
  }
  return { sums, longest };
}

/** Smooth over ± 0.3°, so that one lucky bin does not decide. */
function evened(sums: Float64Array): Float64Array {
  const weights = [0.25, 0.6, 0.9, 1, 0.9, 0.6, 0.25];
  return sums.map(
    (_, n) => weights.reduce((sum, weight, k) => sum + weight * (sums[n + k - 3] ?? 0), 0) / 4.5,
  );
}

/**
 * Proposes by how much to straighten a picture, from edges that are nearly level or upright.
 * @returns null where no straight edge is long and clear enough to say, or where it stands straight already
 */
export function proposeTilt(map: LightnessMap): TiltProposal | null {
  if (map.width < 32 || map.height < 32) return null;
  const scales = [map, halved(map), halved(halved(map))].map((one) => {
    const { level, upright } = edgesOf(one);
    return { one, across: linesAt(level, one, true), down: linesAt(upright, one, false) };
  });
  const all = new Float64Array(ANGLES);
  for (const { one, across, down } of scales) {
    for (let n = 0; n < ANGLES; n++)
      all[n] = all[n]! + across.sums[n]! / one.width ** 2 + (UPRIGHTS * down.sums[n]!) / one.height ** 2;
  }
  const sums = evened(all);
  let best = 0;
  for (let n = 1; n < ANGLES; n++) if (sums[n]! > sums[best]!) best = n;
  if (!(sums[best]! > 0)) return null;
  const window = 12;
  const others = [...sums].filter((_, n) => Math.abs(n - best) > window);
  const mean = others.reduce((sum, value) => sum + value, 0) / others.length;
  const clearness = sums[best]! / Math.max(mean, 1e-9);
  const near = (list: Float64Array) => Math.max(...list.slice(Math.max(0, best - 3), best + 4));
  const longest = Math.max(
    ...scales.flatMap(({ one, across, down }) => [
      near(across.longest) / one.width,
      near(down.longest) / one.height,
    ]),
  );
  if (longest < LEAST_LONGEST || clearness < LEAST_CLEARNESS) return null;
  // The top of the parabola through the best angle and its neighbours.
  const [a, b, c] = [sums[best - 1] ?? 0, sums[best]!, sums[best + 1] ?? 0];
  const shift = a + c < 2 * b ? (a - c) / (2 * (a - 2 * b + c)) : 0;
  const tilt = -MOST_TILT + (best + clamp(shift, -0.5, 0.5)) * STEP;
  const angle = -Math.round(tilt * 10) / 10;
  return Math.abs(angle) < STRAIGHT ? null : { angle, longest: Math.min(1, longest), clearness };
}
