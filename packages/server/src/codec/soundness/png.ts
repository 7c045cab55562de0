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

/** What is missing of a PNG that a decoder complained of. Interlaced ones are whole only with their last pass. */
export async function pngComplaint(file: Buffer): Promise<Complaint> {
  const parts: Buffer[] = [];
  let [width, height, depth, colour] = [0, 0, 8, 6];
  for (let at = 8; at + 8 <= file.length;) {
    const length = file.readUInt32BE(at);
    const kind = file.toString('latin1', at + 4, at + 8);
    const body = file.subarray(at + 8, at + 8 + length);
    if (kind === 'IHDR' && body.length >= 13) {
      [width, height, depth, colour] = [body.readUInt32BE(0), body.readUInt32BE(4), body[8]!, body[9]!];
    } else if (kind === 'IDAT') parts.push(body);
    at += 12 + length;
  }
  const row = 1 + Math.ceil((width * depth * (CHANNELS[colour] ?? 4)) / 8);
  const whole = row * height;
  const share = whole > 0 ? Math.min(1, (await inflated(parts, whole)) / whole) : 0;
  return {
    sentence: share < 1 ? 'its data ends early or is garbled' : 'a checksum does not fit its data',
    share,
  };
}
