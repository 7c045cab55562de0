// Judges what was decoded: where a decoder ran out of data, it leaves what its memory began with. Blocks of all zeros in
// luma and chroma are a green that no camera and no brush makes over a large part of a picture; see damaged-files.md.
import type { RawPicture } from '../raw.ts';

/** Zeros in luma and chroma as RGB: by BT.601 or BT.709, in full or limited range. */
const EMPTY: readonly (readonly [number, number, number])[] = [
  [0, 135, 0],
  [0, 136, 0],
  [0, 154, 0],
  [0, 77, 0],
  [0, 76, 0],
  [0, 84, 0],
];
const NEAR = 2;

/** Part of the picture that nobody decoded, 0 to 1. */
export function inventedPart({
  data,
  width,
  height,
  channels,
}: Pick<RawPicture, 'data' | 'width' | 'height' | 'channels'>): number {
  if (channels < 3) return 0;
  let count = 0;
  for (let at = 0; at < data.length; at += channels) {
    if (data[at]! > NEAR || data[at + 2]! > NEAR) continue;
    const green = data[at + 1]!;
    if (EMPTY.some(([, g]) => Math.abs(green - g) <= NEAR)) count += 1;
  }
  return count / (width * height);
}
