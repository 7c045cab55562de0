// Counts a picture's colours: what tells a flat graphic from a photograph.
import type { PictureContent } from '../contract/index.ts';
import type { Pixels } from '../difference/opponent.ts';

/** Beyond this many colours the exact number tells nothing more. */
const MOST_COLOURS = 65_536;
/** Whatever lies under a clear pixel is not seen: all of them count as one colour. */
const CLEAR = 0;

/** Each pixel as one number, alpha in the highest byte. */
function packed({ data, channels }: Pixels): Uint32Array {
  const colours = new Uint32Array(data.length / channels);
  const grey = channels < 3;
  const alpha = channels === 2 || channels === 4;
  for (let i = 0, at = 0; i < colours.length; i++, at += channels) {
    const cover = alpha ? data[at + channels - 1]! : 255;
    const [r, g, b] = grey ? [data[at]!, data[at]!, data[at]!] : [data[at]!, data[at + 1]!, data[at + 2]!];
    colours[i] = cover === 0 ? CLEAR : ((cover << 24) | (r << 16) | (g << 8) | b) >>> 0;
  }
  return colours;
}

/** What a picture's pixels are like. Samples must not mix neighbours: soft scaling invents colours. */
export function contentOf(pixels: Pixels): PictureContent {
  const sorted = packed(pixels).sort();
  const counts: number[] = [];
  for (let from = 0, i = 1; i <= sorted.length; i++) {
    if (i < sorted.length && sorted[i] === sorted[from]) continue;
    counts.push(i - from);
    from = i;
  }
  counts.sort((a, b) => b - a);
  const share = (count: number): number => count / sorted.length;
  return {
    colours: Math.min(counts.length, MOST_COLOURS),
    commonest: share(counts[0] ?? 0),
    common: share(counts.slice(0, 64).reduce((sum, count) => sum + count, 0)),
  };
}
