// Opens an original as oriented sRGB pixels, whatever kind of file it is.
import { readFile } from 'node:fs/promises';
import type { InputFormat, OriginalFacts, Rect, Size, Turning } from '@dusky-otter/core/contract';
import { frameSpace, isTurned, NO_TURNING } from '@dusky-otter/core/geometry';
import sharp, { type Sharp, type SharpOptions } from 'sharp';
import { ORIGINAL_LOST } from '../problems.ts';
import { hashOfFile } from '../vault/vault.ts';
import { keptIn, type Gamut } from './gamut.ts';
import { fromRaw, rawOf, type RawPicture } from './raw.ts';

export interface Opening {
  format: InputFormat;
  /** All frames of an animation, instead of the first. */
  animated?: boolean;
  /** One frame of it alone. */
  frame?: number;
  /** The pixel size of a drawing, where it is known. */
  size?: Size;
  /** Goes on where the data is damaged: for files that were taken in with a mark. */
  lenient?: boolean;
}

/** Kinds that move. Pages of a TIFF are pictures of their own. */
export const isMoving = (format: InputFormat): boolean => format === 'gif' || format === 'webp';

/** sharp on a file, on the cleaned copy of a drawing, or on what another decoder made of it. */
export async function openFile(path: string, opening: Opening): Promise<Sharp> {
  const { format, animated = false, frame, size, lenient = false } = opening;
  const options: SharpOptions = {
    // The limit is checked before, by name; a second limit here would answer with another sentence.
    limitInputPixels: false,
    failOn: lenient ? 'none' : 'warning',
  };
  // Loaded only for phones' photos: a decoder of two megabytes.
  if (format === 'heic') return sharp(await (await import('./heic.ts')).heicAsTiff(path, lenient), options);
  if (format !== 'svg')
    return sharp(path, {
      ...options,
      ...(frame === undefined ? { animated: animated && isMoving(format) } : { page: frame, pages: 1 }),
    });
  // Loaded only for drawings: the cleaner brings a whole document model along.
  const { cleanSvg, sizedSvg } = await import('./svg.ts');
  const { svg } = cleanSvg(await readFile(path, 'utf8'));
  if (!size) return sharp(Buffer.from(svg), options);
  const natural = await sharp(Buffer.from(svg), options).metadata();
  return sharp(Buffer.from(sizedSvg(svg, natural, size)), options).resize(size.width, size.height, {
    fit: 'fill',
  });
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

/** How the original of these facts is opened. */
export const openingOf = (facts: OriginalFacts): Opening => ({
  format: facts.format,
  lenient: facts.damage !== null,
  ...(facts.format === 'svg' && { size: { width: facts.width, height: facts.height } }),
});

/** A picture laid into a box about the middle: cut where it is larger, extended where it is smaller. */
async function laidInto(picture: RawPicture, box: Size, background: object): Promise<RawPicture> {
  const [x, y] = [Math.max(0, box.width - picture.width), Math.max(0, box.height - picture.height)];
  const [left, top] = [x >> 1, y >> 1];
  const wide = { width: picture.width + x, height: picture.height + y };
  if (x + y > 0)
    picture = await rawOf(
      fromRaw(picture).extend({ left, right: x - left, top, bottom: y - top, background }),
    );
  return rawOf(
    fromRaw(picture).extract({
      left: (wide.width - box.width) >> 1,
      top: (wide.height - box.height) >> 1,
      ...box,
    }),
  );
}

/**
 * An upright picture as its frame turns it: mirrored, turned by right angles, then by the angle about its centre (the
 * order of the contract). The result has the size of `frameSpace`; libvips may make the box a pixel larger or smaller.
 */
export async function framed(upright: RawPicture, turning: Turning): Promise<RawPicture> {
  const { mirrored, turns, angle } = turning;
  // sharp turns before it mirrors, and once a pipeline: each step is a picture of its own.
  let picture = mirrored ? await rawOf(fromRaw(upright).flop()) : upright;
  if (turns > 0) picture = await rawOf(fromRaw(picture).rotate(90 * turns));
  if (angle === 0) return picture;
  // What lies beside the straightened picture is in no crop.
  const background = { r: 0, g: 0, b: 0, alpha: picture.channels % 2 === 0 ? 0 : 1 };
  const tilted = await rawOf(fromRaw(picture).rotate(angle, { background }));
  const { width, height } = frameSpace(upright, turning);
  return laidInto(tilted, { width, height }, background);
}

/** @throws Error where the file of an original is not what was taken in */
export async function checkOriginal(path: string, { hash }: Pick<OriginalFacts, 'hash'>): Promise<void> {
  if ((await hashOfFile(path).catch(() => null)) !== hash) throw new Error(ORIGINAL_LOST);
}

/** What of an original is decoded, beside its crop. */
export interface Chosen {
  turning?: Turning;
  /** Of an animation, from 0. */
  frame?: number;
  /** What a transparent picture is laid on, as #rrggbb. */
  background?: string | null;
  /** The colour space of its pixels: of a picture in Display P3 its own, else sRGB. */
  gamut?: Gamut;
}

/** The crop of a still picture: decoded, turned upright and as its frame says, 8 bits a channel. */
export async function decodeCrop(
  path: string,
  facts: OriginalFacts,
  crop: Rect,
  { turning = NO_TURNING, frame = 0, background = null, gamut }: Chosen = {},
): Promise<RawPicture> {
  const cut = await cropOf(path, facts, crop, { turning, frame, gamut });
  return background === null ? cut : rawOf(fromRaw(cut).flatten({ background }));
}

async function cropOf(
  path: string,
  facts: OriginalFacts,
  crop: Rect,
  { turning, frame, gamut }: { turning: Turning; frame: number; gamut: Gamut },
): Promise<RawPicture> {
  const region = { left: crop.x, top: crop.y, width: crop.width, height: crop.height };
  const opening = { ...openingOf(facts), ...(frame > 0 && isMoving(facts.format) && { frame }) };
  const source = keptIn((await openFile(path, opening)).autoOrient(), gamut);
  if (!isTurned(turning)) return rawOf(source.extract(region).toColourspace('srgb'));
  const picture = await framed(await rawOf(source.toColourspace('srgb')), turning);
  return rawOf(fromRaw(picture).extract(region));
}

/** Scaled to exactly this size, in px; the picture itself when it has it already. */
export async function resized(source: RawPicture, width: number, height: number): Promise<RawPicture> {
  if (source.width === width && source.height === height) return source;
  return rawOf(fromRaw(source).resize(width, height, { fit: 'fill' }));
}
