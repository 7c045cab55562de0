// An XMP packet in a PNG: an iTXt chunk (XMP specification, part 3, 1.1.5; PNG, third edition, 11.3.3.4).
import { crc32 } from 'node:zlib';
import { u32 } from './bytes.ts';

/** Signature and IHDR are 8 and 25 bytes. */
const BEHIND_HEAD = 33;

export function packetIntoPng(file: Buffer, packet: Buffer): Buffer {
  // Keyword; not compressed, no method, no language, no translated keyword.
  const named = Buffer.concat([Buffer.from('iTXtXML:com.adobe.xmp\0\0\0\0\0', 'latin1'), packet]);
  const chunk = [u32(named.length - 4), named, u32(crc32(named))];
  return Buffer.concat([file.subarray(0, BEHIND_HEAD), ...chunk, file.subarray(BEHIND_HEAD)]);
}
