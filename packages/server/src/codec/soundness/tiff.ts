// Walks through the strips or tiles of a TIFF (TIFF 6.0; Adobe Photoshop TIFF Technical Notes): what they are packed in
// has checksums or a length of its own, which its decoder does not look at.
import { inflateSync } from 'node:zlib';
import { isBeyondEnd, type Complaint } from './complaint.ts';
import { jpegComplaint } from './jpeg.ts';

const TAG = {
  width: 256,
  height: 257,
  bits: 258,
  compression: 259,
  stripOffsets: 273,
  samples: 277,
  rowsPerStrip: 278,
  stripBytes: 279,
  planes: 284,
  tileWidth: 322,
  tileHeight: 323,
  tileOffsets: 324,
  tileBytes: 325,
  jpegTables: 347,
} as const;
const [LZW, JPEG, DEFLATE, OLD_DEFLATE] = [5, 7, 8, 32946];
/** Bytes of each field type (TIFF 6.0, section 2). */
const SIZES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
/** Strips and tiles of a picture; more are no photo's. */
const MOST_PARTS = 200_000;

interface Directory {
  numbers: (tag: number) => number[];
  bytes: (tag: number) => Buffer;
}

/** The first directory of a file; null where there is none that can be read. */
function directoryOf(file: Buffer): Directory | null {
  const little = file.toString('latin1', 0, 2) === 'II';
  const word = (at: number) => (little ? file.readUInt16LE(at) : file.readUInt16BE(at));
  const long = (at: number) => (little ? file.readUInt32LE(at) : file.readUInt32BE(at));
  if (word(2) !== 42) return null;
  const at = long(4);
  const fields = new Map<number, { type: number; count: number; from: number }>();
  for (let n = 0; n < word(at); n++) {
    const field = at + 2 + 12 * n;
    const [type, count] = [word(field + 2), long(field + 4)];
    const length = (SIZES[type] ?? 0) * count;
    fields.set(word(field), { type, count, from: length > 4 ? long(field + 8) : field + 8 });
  }
  return {
    numbers: (tag) => {
      const field = fields.get(tag);
      if (!field || field.count > MOST_PARTS) return [];
      const { type, count, from } = field;
      return Array.from({ length: count }, (_, n) =>
        type === 3 ? word(from + 2 * n) : type === 4 ? long(from + 4 * n) : file.readUInt8(from + n),
      );
    },
    bytes: (tag) => {
      const field = fields.get(tag);
      return field ? file.subarray(field.from, field.from + field.count) : Buffer.alloc(0);
    },
  };
}

/** Bytes that LZW data holds (TIFF 6.0, section 13) up to its end or its first fault. */
function lzwBytes(data: Buffer): number {
  const lengths = new Uint32Array(4097).fill(1);
  let [size, next, before, bytes] = [9, 258, -1, 0];
  let [held, count] = [0, 0];
  for (let at = 0; ;) {
    while (count < size) {
      if (at >= data.length) return bytes;
      held = ((held << 8) | data[at++]!) & 0xffffff;
      count += 8;
    }
    const code = (held >> (count - size)) & ((1 << size) - 1);
    count -= size;
    if (code === 257) return bytes;
    if (code === 256) {
      [size, next, before] = [9, 258, -1];
      continue;
    }
    if (code > next || (before < 0 && code > 255) || next > 4096) return bytes;
    bytes += code === next ? lengths[before]! + 1 : lengths[code]!;
    if (before >= 0) {
      lengths[next] = lengths[before]! + 1;
      next += 1;
      // Codes grow a code early.
      if (next === (1 << size) - 1 && size < 12) size += 1;
    }
    before = code;
  }
}

/** A strip as a JPEG of its own: the tables that all strips share stand before its data. */
const wholeJpeg = (tables: Buffer, strip: Buffer): Buffer =>
  tables.length < 4 ? strip : Buffer.concat([tables.subarray(0, -2), strip.subarray(2)]);

/** What is wrong with the data of its first picture, or null: nothing found, or packed in a way that is not looked through. */
export function tiffComplaint(file: Buffer): Complaint | null {
  try {
    const found = directoryOf(file);
    return found && partsComplaint(file, found);
  } catch (error) {
    // It points beyond its own end.
    if (isBeyondEnd(error)) return { sentence: 'its data ends early', share: 0 };
    throw error;
  }
}

function partsComplaint(file: Buffer, found: Directory): Complaint | null {
  const { numbers, bytes } = found;
  const [compression = 1] = numbers(TAG.compression);
  const [width = 0] = numbers(TAG.width);
  const [height = 0] = numbers(TAG.height);
  const tiled = numbers(TAG.tileOffsets).length > 0;
  const offsets = numbers(tiled ? TAG.tileOffsets : TAG.stripOffsets);
  const sizes = numbers(tiled ? TAG.tileBytes : TAG.stripBytes);
  const [rowsPerStrip = height] = numbers(TAG.rowsPerStrip);
  const [planes = 1] = numbers(TAG.planes);
  const bits = numbers(TAG.bits);
  const samples = planes === 2 ? 1 : (numbers(TAG.samples)[0] ?? 1);
  const tables = bytes(TAG.jpegTables);
  const inPlane = planes === 2 ? offsets.length / samples : offsets.length;
  /** Bytes that a part holds once it is unpacked. */
  const wanted = (n: number): number => {
    const [across, down] = tiled
      ? [numbers(TAG.tileWidth)[0] ?? 0, numbers(TAG.tileHeight)[0] ?? 0]
      : [width, Math.min(rowsPerStrip, height - (n % inPlane) * rowsPerStrip)];
    return Math.ceil((across * samples * (bits[0] ?? 8)) / 8) * down;
  };
  for (const [n, from] of offsets.entries()) {
    const data = file.subarray(from, from + (sizes[n] ?? 0));
    const garbled: Complaint = { sentence: 'a part of its data is garbled', share: n / offsets.length };
    if (compression === DEFLATE || compression === OLD_DEFLATE) {
      try {
        if (inflateSync(data, { maxOutputLength: Math.max(1, wanted(n)) + 1 }).length < wanted(n))
          return garbled;
      } catch {
        return garbled;
      }
    } else if (compression === LZW) {
      if (planes !== 1) continue;
      const [held, all] = [lzwBytes(data), wanted(n)];
      // Some writers fill the last strip up.
      if (held < all || (held > all && n < offsets.length - 1)) return garbled;
    } else if (compression === JPEG) {
      if (jpegComplaint(wholeJpeg(tables, data))) return garbled;
    } else return null;
  }
  return null;
}
