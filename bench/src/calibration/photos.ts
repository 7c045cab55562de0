// The photographs that the visible difference was calibrated and judged with: known by their hashes, not shipped.
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import Papa from 'papaparse';
import sharp from 'sharp';
import type { LossyFormat, Pixels } from '@dusky-otter/core';
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

export const FOLDER = join(ROOT, 'bench/calibration');
export const WIDTHS = [480, 900];
export const LADDERS: Record<LossyFormat, number[]> = {
  jpeg: [25, 42, 58, 70, 80, 88, 94],
  webp: [20, 45, 62, 75, 86, 94],
  avif: [22, 36, 48, 58, 70, 84],
};

async function table<T>(name: string): Promise<T[]> {
  const text = await readFile(join(FOLDER, name), 'utf8');
  return Papa.parse<T>(text.trim(), { header: true, dynamicTyping: (column) => column !== 'sha256' }).data;
}

export const knownPhotos = (): Promise<KnownPhoto[]> => table('photos.csv');
export const knownPairs = (): Promise<Pair[]> => table('pairs.csv');

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

/** Encodes as the application does, and decodes again. `fullChroma`: a JPEG that keeps colour at full size. */
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
