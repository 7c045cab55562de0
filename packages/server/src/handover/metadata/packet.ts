// A packet of words put into a file of any format that takes one; its pixels stay byte for byte.
import type { OutputFormat } from '@dusky-otter/core/contract';
import { takesPacket } from '@dusky-otter/core/words';
import { packetIntoAvif } from './avif.ts';
import { packetIntoJpeg } from './jpeg.ts';
import { packetIntoPng } from './png.ts';
import { packetIntoWebp } from './webp.ts';

const INTO: Partial<Record<OutputFormat, (file: Buffer, packet: Buffer) => Buffer>> = {
  avif: packetIntoAvif,
  jpeg: packetIntoJpeg,
  png: packetIntoPng,
  webp: packetIntoWebp,
};

/** @param packet as `wordsPacket` writes it; "" leaves the file as it is */
export function withPacket(file: Buffer, format: OutputFormat, packet: string): Buffer {
  const into = INTO[format];
  return packet === '' || !takesPacket(format) || !into ? file : into(file, Buffer.from(packet, 'utf8'));
}
