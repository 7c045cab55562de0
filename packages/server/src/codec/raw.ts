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
export const fromRaw = ({ data, width, height, channels }: RawPicture): Sharp =>
  sharp(data, { raw: { width, height, channels }, limitInputPixels: false });

/** The most that 16 bits hold. */
const WHITE = 65_535;

/**
 * The pixels of a file of more than 8 bits a sample, rounded to 8 as browsers draw them; the library cuts the rest off,
 * which makes everything darker by half a code.
 */
export async function roundedOf(picture: Sharp): Promise<RawPicture> {
  const deep = picture.toColourspace('rgb16').raw({ depth: 'ushort' });
  const { data, info } = await deep.toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const codes = new Uint16Array(data.buffer, data.byteOffset, width * height * channels);
  const rounded = Buffer.allocUnsafe(codes.length);
  for (let i = 0; i < codes.length; i++) rounded[i] = (codes[i]! * 255 + (WHITE >> 1)) / WHITE;
  return { data: rounded, width, height, channels };
}
