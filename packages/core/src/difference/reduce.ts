// A picture seen from twice as far: half as many pixels each way.
import type { Pixels } from './opponent.ts';

/** Means of 2 × 2 pixels, rounded half up; a last column or row that stands alone is taken as it is. */
export function halved({ data, width, height, channels }: Pixels): Pixels {
  const w = Math.ceil(width / 2);
  const h = Math.ceil(height / 2);
  // One kind of array, so that the loops are compiled for it alone.
  const from = new Uint8Array(data.buffer, data.byteOffset, data.length);
  const result = new Uint8Array(w * h * channels);
  const clear = channels === 2 || channels === 4;
  for (let y = 0, to = 0; y < h; y++) {
    const top = 2 * y * width * channels;
    const bottom = 2 * y + 1 < height ? top + width * channels : top;
    for (let x = 0; x < w; x++, to += channels) {
      const left = 2 * x * channels;
      const right = 2 * x + 1 < width ? left + channels : left;
      const [a, b, c, d] = [top + left, top + right, bottom + left, bottom + right];
      if (clear) meanByCover(from, [a, b, c, d], result, to, channels);
      else result[to] = mean(from, a, b, c, d);
      if (channels === 3) {
        result[to + 1] = mean(from, a + 1, b + 1, c + 1, d + 1);
        result[to + 2] = mean(from, a + 2, b + 2, c + 2, d + 2);
      }
    }
  }
  return { data: result, width: w, height: h, channels };
}

const mean = (from: Uint8Array, a: number, b: number, c: number, d: number): number =>
  (from[a]! + from[b]! + from[c]! + from[d]! + 2) >> 2;

/** The mean of four pixels with alpha. A clear pixel has no colour to give: colours count by their cover. */
function meanByCover(
  from: Uint8Array,
  places: readonly number[],
  result: Uint8Array,
  to: number,
  channels: number,
): void {
  const alpha = channels - 1;
  const cover = places.reduce((sum, place) => sum + from[place + alpha]!, 0);
  result[to + alpha] = (cover + 2) >> 2;
  if (cover === 0) return;
  for (let i = 0; i < alpha; i++) {
    const sum = places.reduce((sofar, place) => sofar + from[place + i]! * from[place + alpha]!, 0);
    result[to + i] = Math.floor(sum / cover + 0.5);
  }
}
