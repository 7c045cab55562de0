// Is the data of a WebP used up by its picture? It has no checksum, and decoders make a picture of anything. But what is
// garbled rarely ends where the data ends: a decoder that asks for more than there is complains by itself, and one that
// needs less does not miss the last bytes when they are taken away.
import sharp from 'sharp';
import type { Complaint } from './complaint.ts';

/** A chunk with a picture in it: its kind, and where its data lies in the file. */
export interface PictureChunk {
  name: string;
  from: number;
  to: number;
}

/**
 * Bytes that are taken away, of lossy and of lossless data. Arithmetic coding adds up to two, and its decoder reads as
 * many ahead; that of lossless data reads ahead by eight, and notices the end a little later. An even number: chunks of
 * an odd size have a byte more.
 */
const TAKEN = { lossy: 8, lossless: 12 };
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

/** The data without its last bytes; of a lossy picture also without the last ones of what says how blocks are predicted. */
function shortened(name: string, data: Buffer): Buffer[] {
  if (name !== 'VP8 ') return data.length < LEAST ? [] : [data.subarray(0, -TAKEN.lossless)];
  const tag = data.readUIntLE(0, 3);
  const first = tag >> 5;
  const parts = [first, data.length - VP8_HEAD - first];
  const found: Buffer[] = [];
  if (parts[1]! >= LEAST) found.push(data.subarray(0, -TAKEN.lossy));
  if (first >= LEAST) {
    const less = Buffer.concat([
      data.subarray(0, VP8_HEAD + first - TAKEN.lossy),
      data.subarray(VP8_HEAD + first),
    ]);
    less.writeUIntLE((tag & 31) | ((first - TAKEN.lossy) << 5), 0, 3);
    found.push(less);
  }
  return found;
}

const decodes = (file: Buffer): Promise<boolean> =>
  sharp(file, { failOn: 'warning', limitInputPixels: false })
    .raw()
    .toBuffer()
    .then(
      () => true,
      () => false,
    );

/** What is wrong with the data of a file whose container is sound, or null. */
export async function webpDataComplaint(
  file: Buffer,
  chunks: readonly PictureChunk[],
): Promise<Complaint | null> {
  const step = Math.max(1, Math.ceil(chunks.length / MOST_FRAMES));
  for (let n = 0; n < chunks.length; n += step) {
    const { name, from, to } = chunks[n]!;
    for (const less of shortened(name, file.subarray(from, to)))
      if (await decodes(stillOf(name, less))) return { sentence: 'a part of its data is garbled', share: 1 };
  }
  return null;
}
