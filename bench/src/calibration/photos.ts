// The photographs that the visible difference was calibrated and judged with: known by their hashes, not shipped.
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { cpus } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';
import sharp from 'sharp';
import type { Recipe } from '@dusky-otter/core/contract';
import { halved, type Pixels } from '@dusky-otter/core/difference';
import { QUICK, type Curve, type LossyFormat } from '@dusky-otter/core/weight';
import { decode, encode } from '../../../packages/server/dist/codec/encode.js';
import { inputIn } from '../../../packages/server/dist/codec/gamut.js';
import { ROOT } from '../report.ts';

/** calibration: seen by the fit; reporting: kept apart from it; demo: the made-up photos that ship. */
export type Half = 'calibration' | 'reporting' | 'demo';

export interface KnownPhoto {
  id: string;
  half: Half;
  sha256: string;
}

export interface Pair {
  photo: string;
  width: number;
  format: LossyFormat;
  quality: number;
  bytes: number;
  /** Score of the reference program. */
  reference: number;
}

/** One more pair: of the region of a photograph where errors hide least, or of all of it. */
export interface RegionPair extends Omit<Pair, 'width' | 'format'> {
  region: Region;
  /** 1: compared as it is; 2: both pictures halved, as they are looked at on a dense screen. */
  density: 1 | 2;
  curve: Curve;
}

/** One more pair, by the recipe that it names; the file is of the whole photograph, `REGION_WIDTH` px wide as it is seen. */
export interface RecipePair extends Omit<RegionPair, 'region'> {
  recipe: string;
}

export type Region = 'whole' | 'plainest';

export const FOLDER = join(ROOT, 'bench/calibration');
export const WIDTHS = [480, 900];
export const LADDERS: Record<LossyFormat, number[]> = {
  jpeg: [25, 42, 58, 70, 80, 88, 94],
  webp: [20, 45, 62, 75, 86, 94],
  avif: [22, 36, 48, 58, 70, 84],
};

/** What the application makes for a target of 2, and some steps around it. */
export const REGION_LADDERS: Record<Curve, number[]> = {
  jpeg: [35, 55, 68, 78, 86, 92],
  jpegFull: [55, 72, 84, 90, 95],
  webp: [45, 68, 82, 92],
  avif: [36, 50, 62, 76],
};

/** What the application makes with its recipes for targets of 1.3 to 3, roughly. */
export const RECIPE_LADDERS: Record<Curve, number[]> = {
  jpeg: [50, 66, 78, 87],
  jpegFull: [62, 78, 88, 94],
  webp: [50, 68, 80, 92],
  avif: [40, 50, 60, 72],
};

/** Width of what is compared in the pairs of regions, in px. */
export const REGION_WIDTH = 600;

async function table<T>(name: string): Promise<T[]> {
  const text = await readFile(join(FOLDER, name), 'utf8');
  return Papa.parse<T>(text.trim(), { header: true, dynamicTyping: (column) => column !== 'sha256' }).data;
}

export const knownPhotos = (): Promise<KnownPhoto[]> => table('photos.csv');
export const knownPairs = (): Promise<Pair[]> => table('pairs.csv');
export const knownRecipePairs = (): Promise<RecipePair[]> => table('recipes.csv');
export const knownRegionPairs = (): Promise<RegionPair[]> => table('regions.csv');

/** The known photographs that lie in these folders, at any depth: id → path. */
export async function findPhotos(folders: readonly string[]): Promise<Map<string, string>> {
  const ids = new Map((await knownPhotos()).map(({ sha256, id }) => [sha256, id]));
  const found = new Map<string, string>();
  for (const folder of folders) {
    for (const entry of await readdir(folder, { recursive: true, withFileTypes: true })) {
      if (!entry.isFile() || !/\.jpe?g$/i.test(entry.name)) continue;
      const path = join(entry.parentPath, entry.name);
      const id = ids.get(
        createHash('sha256')
          .update(await readFile(path))
          .digest('hex'),
      );
      if (id) found.set(id, path);
    }
  }
  return found;
}

/** What comes of each photograph, as many at a time as there are processors; in no order. */
export async function ofEach<T>(
  photos: ReadonlyMap<string, string>,
  of: (photo: string, path: string) => Promise<T[]>,
): Promise<T[]> {
  const queue = [...photos].sort();
  const all: T[] = [];
  await Promise.all(
    cpus().map(async () => {
      for (let next = queue.shift(); next; next = queue.shift()) {
        all.push(...(await of(...next)));
        console.error(`${next[0]} done, ${queue.length} to go`);
      }
    }),
  );
  return all;
}

/** The middle of a photograph, 3:2, at a width: what its variants are compared with. */
export async function cropAt(path: string, width: number): Promise<Pixels> {
  const { data, info } = await sharp(path)
    .autoOrient()
    .resize(width, Math.round(width / 1.5), { fit: 'cover' })
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: 3 };
}

/** Half of a photograph's width and of its height, where it is darkest and has least detail. */
async function plainestCrop(path: string, width: number): Promise<Pixels> {
  const whole = await cropAt(path, 2 * width);
  const height = Math.round(width / 1.5);
  const small = sharp(whole.data, { raw: { width: whole.width, height: whole.height, channels: 3 } })
    .greyscale()
    .resize(96, 64, { fit: 'fill' });
  const { data } = await small.raw().toBuffer({ resolveWithObject: true });
  let best = { cost: Infinity, x: 0, y: 0 };
  for (let y = 0; y <= 32; y += 8) {
    for (let x = 0; x <= 48; x += 8) {
      let light = 0;
      let detail = 0;
      for (let row = y; row < y + 31; row++) {
        for (let column = x; column < x + 47; column++) {
          const at = row * 96 + column;
          light += data[at]!;
          detail += Math.abs(data[at]! - data[at + 1]!) + Math.abs(data[at]! - data[at + 96]!);
        }
      }
      // Light of 0 to 255 and detail of some codes: both count alike.
      const cost = light / (31 * 47) / 8 + detail / (31 * 47);
      if (cost < best.cost) best = { cost, x, y };
    }
  }
  const left = Math.min(whole.width - width, Math.round((best.x / 96) * whole.width));
  const top = Math.min(whole.height - height, Math.round((best.y / 64) * whole.height));
  const cut = await sharp(whole.data, { raw: { width: whole.width, height: whole.height, channels: 3 } })
    .extract({ left, top, width, height })
    .raw()
    .toBuffer();
  return { data: cut, width, height, channels: 3 };
}

/** What is encoded for a pair of a region: twice as wide where both are halved afterwards. */
export const regionAt = (path: string, region: Region, density: 1 | 2): Promise<Pixels> =>
  (region === 'whole' ? cropAt : plainestCrop)(path, REGION_WIDTH * density);

/** As it is looked at: halved where the screen is dense. */
export const seenAt = (pixels: Pixels, density: 1 | 2): Pixels => (density === 2 ? halved(pixels) : pixels);

/**
 * Encodes as the application did when the first pairs were scored, and decodes again. `fullChroma`: a JPEG that keeps
 * colour at full size.
 */
export async function throughCodec(
  { data, width, height }: Pixels,
  format: LossyFormat,
  quality: number,
  fullChroma = false,
): Promise<{ file: Buffer; pixels: Pixels }> {
  const source = sharp(data, { raw: { width, height, channels: 3 } });
  const file = await (
    format === 'jpeg'
      ? source.jpeg({ quality, progressive: true, chromaSubsampling: fullChroma ? '4:4:4' : '4:2:0' })
      : format === 'webp'
        ? source.webp({ quality, effort: 4 })
        : source.avif({ quality, effort: 1 })
  ).toBuffer();
  const decoded = await sharp(file).removeAlpha().raw().toBuffer();
  return { file, pixels: { data: decoded, width, height, channels: 3 } };
}

/** The same by curve: a JPEG with full colour has one of its own. */
export const throughCurve = (crop: Pixels, curve: Curve, quality: number): ReturnType<typeof throughCodec> =>
  curve === 'jpegFull' ? throughCodec(crop, 'jpeg', quality, true) : throughCodec(crop, curve, quality);

export const formatOf = (curve: Curve): LossyFormat => (curve === 'jpegFull' ? 'jpeg' : curve);

/** Encodes with a recipe, by default as the application does, and decodes again. */
export async function throughRecipe(
  crop: Pixels,
  curve: Curve,
  quality: number,
  recipe: Recipe = QUICK[curve],
): Promise<{ file: Buffer; pixels: Pixels }> {
  const picture = { ...crop, data: Buffer.from(crop.data), channels: 3 as const };
  const input = await inputIn(picture, undefined, recipe.bitDepth);
  const file = await encode(input, formatOf(curve), { quality, ...recipe });
  return { file, pixels: await decode(file) };
}
