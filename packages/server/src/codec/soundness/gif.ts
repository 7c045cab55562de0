// Walks through a GIF (GIF89a specification) and its LZW data without making pixels: each frame must have all of its
// pixels, and the file its end.
import type { Complaint } from './complaint.ts';

const TRAILER = 0x3b;
const EXTENSION = 0x21;
const IMAGE = 0x2c;

/** The sub-blocks from `at` on, joined; null where the file ends in them. */
function subBlocks(file: Uint8Array, at: number): { data: Uint8Array; end: number } | null {
  const parts: Uint8Array[] = [];
  for (;;) {
    const size = file[at];
    if (size === undefined || at + 1 + size > file.length) return null;
    if (size === 0) break;
    parts.push(file.subarray(at + 1, at + 1 + size));
    at += 1 + size;
  }
  return { data: Buffer.concat(parts), end: at + 1 };
}

/** Pixels that LZW data holds up to its end or its first fault; Infinity where it holds more than asked for. */
function pixelsIn(data: Uint8Array, least: number, wanted: number): number {
  const clear = 1 << least;
  const lengths = new Uint32Array(4096);
  let size = least + 1;
  let next = clear + 2;
  let before = -1;
  let pixels = 0;
  let held = 0;
  let count = 0;
  let at = 0;
  for (;;) {
    while (count < size) {
      if (at >= data.length) return pixels;
      held |= data[at++]! << count;
      count += 8;
    }
    const code = held & ((1 << size) - 1);
    held >>>= size;
    count -= size;
    if (code === clear) {
      size = least + 1;
      next = clear + 2;
      before = -1;
      continue;
    }
    if (code === clear + 1) return pixels;
    if (code > next || (code === next && before < 0) || (before < 0 && code > clear)) return pixels;
    const length = (c: number) => (c < clear ? 1 : lengths[c]!);
    pixels += code === next ? length(before) + 1 : length(code);
    if (before >= 0 && next < 4096) {
      lengths[next] = length(before) + 1;
      next += 1;
      if (next === 1 << size && size < 12) size += 1;
    }
    before = code;
    if (pixels > wanted) return Infinity;
  }
}

/** What is wrong with the file, or null. */
export function gifComplaint(file: Uint8Array): Complaint | null {
  const word = (at: number) => (file[at] ?? 0) | ((file[at + 1] ?? 0) << 8);
  const table = (flags: number) => (flags & 0x80 ? 3 << ((flags & 7) + 1) : 0);
  let at = 13 + table(file[10] ?? 0);
  let frames = 0;
  const ended = (): Complaint => ({
    sentence:
      frames > 0
        ? `it ends after ${frames} whole ${frames === 1 ? 'frame' : 'frames'}`
        : 'its data ends early',
    share: frames > 0 ? 1 : 0,
  });
  for (;;) {
    const kind = file[at];
    if (kind === undefined) return ended();
    if (kind === TRAILER) return frames > 0 ? null : ended();
    if (kind === EXTENSION) {
      const found = subBlocks(file, at + 2);
      if (!found) return ended();
      at = found.end;
    } else if (kind === IMAGE) {
      const wanted = word(at + 5) * word(at + 7);
      const from = at + 10 + table(file[at + 9] ?? 0);
      const found = subBlocks(file, from + 1);
      if (!found) return ended();
      const least = file[from] ?? 0;
      const pixels = least >= 1 && least <= 11 ? pixelsIn(found.data, least, wanted) : 0;
      if (pixels < wanted)
        return {
          sentence: 'a part of its data is garbled',
          share: frames > 0 ? 1 : pixels / Math.max(1, wanted),
        };
      if (pixels > wanted) return { sentence: 'there is more data than the picture has place for', share: 1 };
      frames += 1;
      at = found.end;
    } else return { sentence: 'a part of its data is garbled', share: frames > 0 ? 1 : 0 };
  }
}
