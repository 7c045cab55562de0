// How much of a PNG is there: its checksums tell that something is wrong, the deflated rows how much can be read.
import { createInflate } from 'node:zlib';
import type { Complaint } from './complaint.ts';

const CHANNELS: Partial<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** Bytes that can be inflated before data ends or makes no sense. */
async function inflated(parts: readonly Uint8Array[], most: number): Promise<number> {
  const inflate = createInflate();
  let bytes = 0;
  await new Promise<void>((done) => {
    inflate.on('data', (chunk: Buffer) => {
      bytes += chunk.length;
      if (bytes > most) inflate.destroy();
    });
    // Data that ends early or is garbled ends the count; that is what is asked.
    for (const event of ['error', 'end', 'close']) inflate.once(event, () => done());
    for (const part of parts) inflate.write(part);
    inflate.end();
  });
  return bytes;
}

/** First column and row of each pass of an interlaced PNG, and its steps (PNG 3, 8.1, Adam7). */
const PASSES = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
] as const;

interface Header {
  width: number;
  height: number;
  depth: number;
  colour: number;
  interlaced: boolean;
}

/** Bytes of all rows, each with the byte that names its filter. */
function bytesOf({ width, height, depth, colour, interlaced }: Header): number {
  const rows = (across: number, down: number) =>
    across <= 0 || down <= 0 ? 0 : (1 + Math.ceil((across * depth * (CHANNELS[colour] ?? 4)) / 8)) * down;
  if (!interlaced) return rows(width, height);
  return PASSES.reduce(
    (sum, [x, y, dx, dy]) => sum + rows(Math.ceil((width - x) / dx), Math.ceil((height - y) / dy)),
    0,
  );
}

/**
 * What is wrong with a PNG, or null. Interlaced ones are whole only with their last pass.
 * @param decoded whether its decoder let it pass: then its data can still be that of a larger picture
 */
export async function pngComplaint(file: Buffer, decoded = false): Promise<Complaint | null> {
  const parts: Buffer[] = [];
  let header: Header = { width: 0, height: 0, depth: 8, colour: 6, interlaced: false };
  for (let at = 8; at + 8 <= file.length;) {
    const length = file.readUInt32BE(at);
    const kind = file.toString('latin1', at + 4, at + 8);
    const body = file.subarray(at + 8, at + 8 + length);
    if (kind === 'IHDR' && body.length >= 13) {
      header = {
        width: body.readUInt32BE(0),
        height: body.readUInt32BE(4),
        depth: body[8]!,
        colour: body[9]!,
        interlaced: body[12] === 1,
      };
    } else if (kind === 'IDAT') parts.push(body);
    at += 12 + length;
  }
  const whole = bytesOf(header);
  const found = await inflated(parts, whole);
  if (decoded)
    return found > whole ? { sentence: 'there is more data than the picture has place for', share: 1 } : null;
  const share = whole > 0 ? Math.min(1, found / whole) : 0;
  return {
    sentence: share < 1 ? 'its data ends early or is garbled' : 'a checksum does not fit its data',
    share,
  };
}
