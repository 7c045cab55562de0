// Is the data of a WebP used up by its picture? It has no checksum, and decoders make a picture of anything. But what is
// garbled rarely ends where the data ends. Lossy data: a decoder that asks for more than there is complains by itself, and
// one that needs less does not miss the last bytes when they are taken away. Lossless data is read bit by bit: its last
// byte must show, and nothing behind it may.
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { Complaint } from './complaint.ts';

/** A chunk with a picture in it: its kind, and where its data lies in the file. */
export interface PictureChunk {
  name: string;
  from: number;
  to: number;
}

/**
 * Bytes that are taken away from lossy data. Arithmetic coding adds up to two, and its decoder reads as many ahead. An
 * even number: chunks of an odd size have a byte more.
 */
const TAKEN = 8;
/** Bits of the last byte of lossless data that are turned over; of a sound one at least the lowest says something. */
const TURNED = [0xff, 0x01];
/** More than one code of lossless data has bytes. */
const BEHIND = Buffer.alloc(12, 0xff);
/** In shorter data a decoder may have read ahead to the end at once. */
const LEAST = 64;
/** Frames of an animation that are looked at, evenly chosen. */
const MOST_FRAMES = 24;

/** Bytes before the first partition of a lossy picture (RFC 6386, 9.1): its tag, a start code, width and height. */
const VP8_HEAD = 10;

/** A still picture of one chunk (WebP Container Specification, simple file format). */
function stillOf(name: string, data: Buffer): Buffer {
  const padded = data.length % 2 === 0 ? data : Buffer.concat([data, Buffer.alloc(1)]);
  const head = Buffer.alloc(20);
  head.write('RIFF', 0, 'latin1');
  head.writeUInt32LE(12 + padded.length, 4);
  head.write('WEBP', 8, 'latin1');
  head.write(name, 12, 'latin1');
  head.writeUInt32LE(data.length, 16);
  return Buffer.concat([head, padded]);
}

/** Lossy data without its last bytes, and without the last ones of what says how blocks are predicted. */
function shortened(data: Buffer): Buffer[] {
  const tag = data.readUIntLE(0, 3);
  const first = tag >> 5;
  const parts = [first, data.length - VP8_HEAD - first];
  const found: Buffer[] = [];
  if (parts[1]! >= LEAST) found.push(data.subarray(0, -TAKEN));
  if (first >= LEAST) {
    const less = Buffer.concat([data.subarray(0, VP8_HEAD + first - TAKEN), data.subarray(VP8_HEAD + first)]);
    less.writeUIntLE((tag & 31) | ((first - TAKEN) << 5), 0, 3);
    found.push(less);
  }
  return found;
}

/** A digest of its pixels, or null where they can't be decoded whole. */
const pixelsOf = (file: Buffer): Promise<string | null> =>
  sharp(file, { failOn: 'warning', limitInputPixels: false })
    .raw()
    .toBuffer()
    .then(
      (pixels) => createHash('sha1').update(pixels).digest('hex'),
      () => null,
    );

async function isLossyUsedUp(data: Buffer): Promise<boolean> {
  for (const less of shortened(data)) if ((await pixelsOf(stillOf('VP8 ', less))) !== null) return false;
  return true;
}

async function isLosslessUsedUp(data: Buffer): Promise<boolean> {
  if (data.length < LEAST) return true;
  const look = (other: Buffer) => pixelsOf(stillOf('VP8L', other));
  const pixels = await look(data);
  if ((await look(Buffer.concat([data, BEHIND]))) !== pixels) return false;
  for (const bits of TURNED) {
    const other = Buffer.from(data);
    other[other.length - 1]! ^= bits;
    if ((await look(other)) !== pixels) return true;
  }
  return false;
}

/** What is wrong with the data of a file whose container is sound, or null. */
export async function webpDataComplaint(
  file: Buffer,
  chunks: readonly PictureChunk[],
): Promise<Complaint | null> {
  const step = Math.max(1, Math.ceil(chunks.length / MOST_FRAMES));
  for (let n = 0; n < chunks.length; n += step) {
    const { name, from, to } = chunks[n]!;
    const data = file.subarray(from, to);
    const isUsedUp = name === 'VP8 ' ? isLossyUsedUp : isLosslessUsedUp;
    if (!(await isUsedUp(data))) return { sentence: 'a part of its data is garbled', share: 1 };
  }
  return null;
}
