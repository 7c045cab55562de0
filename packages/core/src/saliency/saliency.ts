// Where a picture's subject is likely to be: a map at low resolution, from colour, detail and the border.
import { toOpponent, type Pixels } from '../difference/opponent.ts';
import { barrierDistance } from './barrier.ts';

/** A map of 0 to 1 in rows from the top. */
export interface SaliencyMap {
  width: number;
  height: number;
  values: Float32Array;
}

type Channels = [Float32Array, Float32Array, Float32Array];

/** Three opponent channels of equal size, cut back from the padded planes: half the picture's size. */
function channelsOf(pixels: Pixels): {
  width: number;
  height: number;
  channels: Channels;
  detail: Float32Array;
} {
  const planes = toOpponent(pixels);
  const width = Math.max(1, pixels.width >> 1);
  const height = Math.max(1, pixels.height >> 1);
  const size = width * height;
  const channels: Channels = [new Float32Array(size), new Float32Array(size), new Float32Array(size)];
  const detail = new Float32Array(size);
  const half = planes.width >> 1;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const full = 2 * y * planes.width + 2 * x;
      const L = planes.lightness;
      const [a, b, c, d] = [L[full]!, L[full + 1]!, L[full + planes.width]!, L[full + planes.width + 1]!];
      channels[0][at] = (a + b + c + d) / 4;
      // Opponent colours span about a third of what lightness spans.
      channels[1][at] = 2 * planes.greenRed[y * half + x]!;
      channels[2][at] = 2 * planes.blueYellow[y * half + x]!;
      detail[at] = Math.abs(a - d) + Math.abs(b - c);
    }
  }
  return { width, height, channels, detail };
}

/** Box mean with a half-width of `radius` px, in one direction after the other. */
export function blurred(values: Float32Array, width: number, height: number, radius: number): Float32Array {
  const across = new Float32Array(values.length);
  const result = new Float32Array(values.length);
  const pass = (
    from: Float32Array,
    to: Float32Array,
    lines: number,
    length: number,
    step: number,
    jump: number,
  ) => {
    for (let line = 0; line < lines; line++) {
      let sum = 0;
      const start = line * jump;
      for (let i = -radius; i < length; i++) {
        if (i + radius < length) sum += from[start + (i + radius) * step]!;
        if (i - radius - 1 >= 0) sum -= from[start + (i - radius - 1) * step]!;
        if (i >= 0)
          to[start + i * step] = sum / (Math.min(length - 1, i + radius) - Math.max(0, i - radius) + 1);
      }
    }
  };
  pass(values, across, height, width, 1, width);
  pass(across, result, width, height, width, 1);
  return result;
}

function normalised(values: Float32Array): Float32Array {
  // The top hundredth counts as 1: one bright speck must not make the rest look dark.
  const sorted = Float32Array.from(values).sort();
  const top = sorted[Math.floor(0.99 * (sorted.length - 1))]!;
  return top > 0 ? values.map((value) => Math.min(1, value / top)) : values;
}

/** How far each pixel's colour is from that of the nearest of the four borders, in their own spread. */
function unlikeBorders(channels: Channels, width: number, height: number): Float32Array {
  const band = Math.max(1, Math.round(Math.min(width, height) * 0.08));
  const borders = [
    (_: number, y: number) => y < band,
    (_: number, y: number) => y >= height - band,
    (x: number) => x < band,
    (x: number) => x >= width - band,
  ].map((inside) => {
    const sums = channels.map((channel) => {
      let count = 0;
      let sum = 0;
      let squares = 0;
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          if (!inside(x, y)) continue;
          const value = channel[y * width + x]!;
          count++;
          sum += value;
          squares += value * value;
        }
      }
      const mean = sum / count;
      return { mean, spread: Math.max(0, squares / count - mean * mean) + 4e-4 };
    });
    return sums;
  });
  return channels[0].map((_, at) => {
    const distances = borders.map((border) =>
      Math.sqrt(
        border.reduce((sum, { mean, spread }, c) => sum + (channels[c]![at]! - mean) ** 2 / spread, 0),
      ),
    );
    return Math.min(...distances, 6);
  });
}

/**
 * Saliency of a picture, 0 to 1: what differs from the border on every way out (minimum barrier distance) and in
 * colour from all four borders, raised where there is sharp detail, and a little towards the middle.
 * @param pixels about 200 px on the long side; more is only slower.
 */
export function saliencyOf(pixels: Pixels): SaliencyMap {
  const { width, height, channels, detail } = channelsOf(pixels);
  const radius = Math.max(1, Math.round(Math.max(width, height) / 50));
  const barrier = new Float32Array(width * height);
  for (const channel of channels) {
    const smooth = blurred(channel, width, height, 1);
    const distance = barrierDistance(smooth, width, height);
    for (let i = 0; i < barrier.length; i++) barrier[i]! += distance[i]!;
  }
  const b = normalised(blurred(barrier, width, height, radius));
  const u = normalised(blurred(unlikeBorders(channels, width, height), width, height, radius));
  const d = normalised(blurred(detail, width, height, radius * 2));
  const values = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const fromMiddle = Math.hypot((x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5);
      const middle = 1 - 0.5 * fromMiddle;
      values[i] = (b[i]! + 0.5 * u[i]!) * (0.5 + d[i]!) * middle;
    }
  }
  return { width, height, values: normalised(values) };
}
