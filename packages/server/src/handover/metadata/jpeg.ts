// An XMP packet in a JPEG: an APP1 segment (XMP specification, part 3, 1.1.3).
import { u16 } from './bytes.ts';

const NAME = Buffer.from('http://ns.adobe.com/xap/1.0/\0', 'latin1');

/** Behind the JFIF segment, which has to be the first, and before everything else. */
export function packetIntoJpeg(file: Buffer, packet: Buffer): Buffer {
  const behind = file.readUInt16BE(2) === 0xffe0 ? 4 + file.readUInt16BE(4) : 2;
  const segment = [u16(0xffe1), u16(2 + NAME.length + packet.length), NAME, packet];
  return Buffer.concat([file.subarray(0, behind), ...segment, file.subarray(behind)]);
}
