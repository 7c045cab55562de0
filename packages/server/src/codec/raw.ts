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
