// Pixels as they are: what every decoder ends in, and every encoder begins with.
import sharp, { type Sharp } from 'sharp';

export interface RawPicture {
  data: Buffer;
  width: number;
  height: number;
  channels: 1 | 2 | 3 | 4;
}

/** The pixels that a sharp pipeline ends in. */
export async function rawOf(picture: Sharp): Promise<RawPicture> {
  const { data, info } = await picture.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

/** A raw picture as a sharp input. */
export const fromRaw = ({
  data,
  width,
  height,
  channels,
}: Omit<RawPicture, 'data'> & { data: Buffer | Uint16Array }): Sharp =>
  sharp(data, { raw: { width, height, channels }, limitInputPixels: false });

/** The most that 8, 10 and 16 bits hold. */
const [WHITE_8, WHITE_10, WHITE] = [255, 1023, 65_535];

/** Every code of 8 bits at its place among 10, in the upper bits of 16: the library shifts, and white would be grey. */
const DEEP = Uint16Array.from({ length: 256 }, (_, code) => Math.round((code * WHITE_10) / WHITE_8) << 6);

/** The pixels with 16 bits a sample, as an encoder of 10 bits wants them. */
export function deepened({ data }: RawPicture): Uint16Array {
  const deep = new Uint16Array(data.length);
  // Not `Uint16Array.from`: it goes by an iterator, and takes a hundred times as long.
  for (let i = 0; i < deep.length; i++) deep[i] = DEEP[data[i]!]!;
  return deep;
}

/**
 * The pixels of a picture of more than 8 bits a sample, rounded to 8 as browsers draw them; the library cuts the rest off.
 * Not for 8 bits, whose white is less than 16 bits hold.
 */
export async function roundedOf(picture: Sharp): Promise<RawPicture> {
  const deep = picture.toColourspace('rgb16').raw({ depth: 'ushort' });
  const { data, info } = await deep.toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const codes = new Uint16Array(data.buffer, data.byteOffset, width * height * channels);
  const rounded = Buffer.allocUnsafe(codes.length);
  for (let i = 0; i < codes.length; i++) rounded[i] = (codes[i]! * WHITE_8 + (WHITE >> 1)) / WHITE;
  return { data: rounded, width, height, channels };
}
