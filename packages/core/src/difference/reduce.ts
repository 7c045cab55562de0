// A picture seen from twice as far: half as many pixels each way.
import type { Pixels } from './opponent.ts';

/** Means of 2 × 2 pixels, rounded half up; a last column or row that stands alone is taken as it is. */
export function halved({ data, width, height, channels }: Pixels): Pixels {
  const w = Math.ceil(width / 2);
  const h = Math.ceil(height / 2);
  const result = new Uint8Array(w * h * channels);
  // A clear pixel has no colour to give: colours count by their cover.
  const alpha = channels === 2 || channels === 4 ? channels - 1 : 0;
  for (let y = 0; y < h; y++) {
    const top = 2 * y * width * channels;
    const bottom = 2 * y + 1 < height ? top + width * channels : top;
    for (let x = 0; x < w; x++) {
      const left = 2 * x * channels;
      const right = 2 * x + 1 < width ? left + channels : left;
      const [a, b, c, d] = [top + left, top + right, bottom + left, bottom + right];
      const to = (y * w + x) * channels;
      if (alpha === 0) {
        for (let i = 0; i < channels; i++) {
          result[to + i] = (data[a + i]! + data[b + i]! + data[c + i]! + data[d + i]! + 2) >> 2;
        }
        continue;
      }
      const covers = [a, b, c, d].map((place) => data[place + alpha]!);
      const cover = covers[0]! + covers[1]! + covers[2]! + covers[3]!;
      result[to + alpha] = (cover + 2) >> 2;
      if (cover === 0) continue;
      for (let i = 0; i < alpha; i++) {
        const sum =
          data[a + i]! * covers[0]! +
          data[b + i]! * covers[1]! +
          data[c + i]! * covers[2]! +
          data[d + i]! * covers[3]!;
        result[to + i] = Math.floor(sum / cover + 0.5);
      }
    }
  }
  return { data: result, width: w, height: h, channels };
}
