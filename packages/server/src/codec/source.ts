// Opens an original as oriented sRGB pixels, whatever kind of file it is.
import { readFile } from 'node:fs/promises';
import type { OriginalFacts, Rect, Size } from '@dusky-otter/core';
import sharp, { type Sharp } from 'sharp';

// The limit is checked before, by name; a second limit here would answer with another sentence.
const OPTIONS = { limitInputPixels: false, failOn: 'warning' } as const;

/** sharp on a file, or on the cleaned copy of a drawing. `size` is the drawing's pixel size, where it is known. */
export async function openFile(path: string, isSvg: boolean, animated: boolean, size?: Size): Promise<Sharp> {
  if (!isSvg) return sharp(path, { ...OPTIONS, animated });
  // Loaded only for drawings: the cleaner brings a whole document model along.
  const { cleanSvg } = await import('./svg.ts');
  const clean = Buffer.from(cleanSvg(await readFile(path, 'utf8')));
  if (!size) return sharp(clean, OPTIONS);
  const natural = await sharp(clean, OPTIONS).metadata();
  const scale = Math.max(size.width / natural.width, size.height / natural.height);
  return sharp(clean, { ...OPTIONS, density: 72 * scale }).resize(size.width, size.height, { fit: 'fill' });
}

/** A vector drawing has no pixels of its own: it counts as a picture with this long side. */
const SVG_LONG_SIDE = 3200;

/** The pixel size a drawing counts with: its own ratio, 3200 px on the long side. */
export function drawingSize(natural: Size): Size {
  const scale = SVG_LONG_SIDE / Math.max(natural.width, natural.height);
  return {
    width: Math.max(1, Math.round(natural.width * scale)),
    height: Math.max(1, Math.round(natural.height * scale)),
  };
}

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

/** The crop of a still picture: decoded, turned upright, in sRGB, 8 bits a channel. */
export async function decodeCrop(path: string, facts: OriginalFacts, crop: Rect): Promise<RawPicture> {
  const region = { left: crop.x, top: crop.y, width: crop.width, height: crop.height };
  const source = await openFile(path, facts.format === 'svg', false, facts);
  return rawOf(source.autoOrient().extract(region).toColourspace('srgb'));
}

/** A raw picture as a sharp input. */
export const fromRaw = ({ data, width, height, channels }: RawPicture): Sharp =>
  sharp(data, { raw: { width, height, channels }, limitInputPixels: false });

/** Scaled to exactly this size, in px; the picture itself when it has it already. */
export async function resized(source: RawPicture, width: number, height: number): Promise<RawPicture> {
  if (source.width === width && source.height === height) return source;
  return rawOf(fromRaw(source).resize(width, height, { fit: 'fill' }));
}
