// Is the data of a HEIC used up by its picture? It has no checksum, and its decoder makes a picture of anything. So it is
// decoded again with other bytes at the end of each slice, and with more bytes behind it: the first must show, the second
// must not. A slice that was garbled rarely ends where its data ends.
import { codedPicture, slicesOf, type CodedPicture, type ItemData, type Slice } from './heif-items.ts';

export interface DecodedHeif {
  data: Uint8Array;
  width: number;
  height: number;
  channels: number;
}

/** Bytes at the end of a slice that are changed: before those that only close it. */
const CHANGED = { from: 7, to: 3 };
/** In shorter slices the end of the data may be all of it. */
const LEAST = 64;
/** Bytes that are added: the decoder reads ahead by two. */
const ADDED = 12;

/** Where a slice's own data ends: encoders may add words of zeros (H.265, 9.3.2.5). */
function endOf(file: Buffer, { from, to }: Slice): number {
  let end = to;
  while (end - from > LEAST && file[end - 1] === 3 && file[end - 2] === 0 && file[end - 3] === 0) end -= 3;
  return end;
}

/** The file with other bytes at the end of each slice; null where it has slices that are too short to tell. */
function changedEnds(file: Buffer, items: readonly ItemData[]): Buffer | null {
  const copy = Buffer.from(file);
  for (const item of items) {
    const slices = slicesOf(file, item);
    if (slices.length === 0) return null;
    for (const slice of slices) {
      const end = endOf(file, slice);
      if (end - slice.from < LEAST) return null;
      for (let at = end - CHANGED.from; at < end - CHANGED.to; at++) copy[at] = copy[at]! ^ 0x55;
    }
  }
  return copy;
}

/** The file with bytes behind each slice: its items lie anew at the end of the file. */
function longerSlices(file: Buffer, items: readonly ItemData[]): Buffer {
  const head = Buffer.from(file);
  const more: Buffer[] = [Buffer.from([0, 0, 0, 0, 0x6d, 0x64, 0x61, 0x74])];
  let at = file.length + 8;
  for (const item of items) {
    const parts: Buffer[] = [];
    let taken = item.from;
    for (const { from, to } of slicesOf(file, item)) {
      const length = Buffer.alloc(4);
      length.writeUInt32BE(to - from + ADDED);
      parts.push(file.subarray(taken, from - 4), length, file.subarray(from, to), Buffer.alloc(ADDED, 0xa5));
      taken = to;
    }
    const whole = Buffer.concat([...parts, file.subarray(taken, item.to)]);
    const { offset, offsetBytes, base, length, lengthBytes } = item.said;
    write(head, offset, offsetBytes, at - base);
    write(head, length, lengthBytes, whole.length);
    more.push(whole);
    at += whole.length;
  }
  more[0]!.writeUInt32BE(at - file.length, 0);
  return Buffer.concat([head, ...more]);
}

function write(file: Buffer, at: number, bytes: number, value: number): void {
  if (bytes === 8) file.writeBigUInt64BE(BigInt(value), at);
  else if (bytes > 0) file.writeUIntBE(value, at, bytes);
}

/** How often each value stands in each channel: the same however the picture is turned. */
function histogram({ data, channels }: DecodedHeif): Uint32Array {
  const counts = new Uint32Array(256 * channels);
  for (let at = 0; at < data.length; at++) counts[256 * (at % channels) + data[at]!]! += 1;
  return counts;
}

const same = (a: Uint32Array, b: Uint32Array): boolean =>
  a.length === b.length && a.every((n, at) => n === b[at]);

/** Whether two pictures differ anywhere in a rectangle. */
function differIn(
  a: DecodedHeif,
  b: DecodedHeif,
  left: number,
  top: number,
  right: number,
  bottom: number,
): boolean {
  const { width, channels } = a;
  for (let y = top; y < bottom; y++) {
    const [from, to] = [(y * width + left) * channels, (y * width + right) * channels];
    if (Buffer.compare(a.data.subarray(from, to), b.data.subarray(from, to)) !== 0) return true;
  }
  return false;
}

/** Whether every tile shows that its data is another. */
function allDiffer(a: DecodedHeif, b: DecodedHeif, { items, columns }: CodedPicture): boolean {
  if (a.width !== b.width || a.height !== b.height) return true;
  const rows = items.length / columns;
  const [across, down] = [Math.ceil(a.width / columns), Math.ceil(a.height / rows)];
  return items.every((_, n) => {
    const [x, y] = [(n % columns) * across, Math.floor(n / columns) * down];
    return differIn(a, b, x, y, Math.min(a.width, x + across), Math.min(a.height, y + down));
  });
}

/**
 * Whether the data of a HEIC is not what its picture was made of.
 * @param shown the picture as it was decoded, turned as the file says
 * @param decode decodes a file without turning it, as far as it can be; null where it can't
 */
export function isGarbled(
  file: Buffer,
  shown: DecodedHeif,
  decode: (file: Buffer) => DecodedHeif | null,
): boolean {
  const coded = codedPicture(file);
  const changed = coded && changedEnds(file, coded.items);
  if (!changed) return false;
  const longer = decode(longerSlices(file, coded.items));
  if (!longer) return false;
  if (!coded.cut && !same(histogram(longer), histogram(shown))) return true;
  const other = decode(changed);
  return other !== null && !allDiffer(other, longer, coded);
}
