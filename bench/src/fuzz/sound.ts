// Sound files of all kinds by several encoders, from the demo's photos: none of them may be marked.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { chance } from '@dusky-otter/core/chance';
import sharp, { type Sharp } from 'sharp';
import type { SoundFile } from './files.js';

type Make = (photo: () => Sharp, folder: string) => Promise<Buffer | null>;

/** A program of Debian's on a PNG of the photo; null where it is not installed. */
const by =
  (program: string, args: (from: string, to: string) => string[], ending: string): Make =>
  async (photo, folder) => {
    if (!existsSync(`/usr/bin/${program}`)) return null;
    const [from, to] = [join(folder, 'sound.png'), join(folder, `sound.${ending}`)];
    await writeFile(from, await photo().png({ compressionLevel: 1 }).toBuffer());
    const { status } = spawnSync(program, args(from, to), { stdio: 'ignore' });
    return status === 0 ? readFile(to) : null;
  };

const KINDS: Record<string, Make> = {
  'jpeg 30': (photo) => photo().jpeg({ quality: 30 }).toBuffer(),
  'jpeg 92': (photo) => photo().jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
  'jpeg plain': (photo) => photo().jpeg({ quality: 80, optimiseCoding: false }).toBuffer(),
  'jpeg progressive': (photo) => photo().jpeg({ progressive: true }).toBuffer(),
  'jpeg grey': (photo) => photo().greyscale().jpeg().toBuffer(),
  png: (photo) => photo().png({ compressionLevel: 3 }).toBuffer(),
  'png interlaced': (photo) => photo().png({ progressive: true }).toBuffer(),
  'png palette': (photo) => photo().png({ palette: true, colours: 64 }).toBuffer(),
  'png 16 bit': (photo) => photo().toColourspace('rgb16').png().toBuffer(),
  'webp 20': (photo) => photo().webp({ quality: 20 }).toBuffer(),
  'webp 75': (photo) => photo().webp({ quality: 75, effort: 6 }).toBuffer(),
  'webp 95': (photo) => photo().webp({ quality: 95, smartSubsample: true }).toBuffer(),
  'webp lossless': (photo) => photo().webp({ lossless: true, effort: 1 }).toBuffer(),
  'webp alpha': (photo) => photo().ensureAlpha(0.6).webp({ quality: 60 }).toBuffer(),
  'webp eight partitions': by(
    'cwebp',
    (from, to) => [
      '-quiet',
      '-partition_limit',
      '40',
      '-segments',
      '2',
      '-mt',
      '-low_memory',
      from,
      '-o',
      to,
    ],
    'webp',
  ),
  'webp near lossless': by('cwebp', (from, to) => ['-quiet', '-near_lossless', '60', from, '-o', to], 'webp'),
  'tiff deflate': (photo) => photo().tiff({ compression: 'deflate', predictor: 'horizontal' }).toBuffer(),
  'tiff tiles': (photo) =>
    photo().tiff({ compression: 'deflate', tile: true, tileWidth: 128, tileHeight: 128 }).toBuffer(),
  'tiff lzw': (photo) => photo().tiff({ compression: 'lzw' }).toBuffer(),
  'tiff jpeg': (photo) => photo().tiff({ compression: 'jpeg' }).toBuffer(),
  gif: (photo) => photo().gif({ colours: 64 }).toBuffer(),
  'heic 40': by('heif-enc', (from, to) => ['-q', '40', from, '-o', to], 'heic'),
  'heic 80': by('heif-enc', (from, to) => ['-q', '80', '-p', 'chroma=444', from, '-o', to], 'heic'),
  'heic 10 bit': by('heif-enc', (from, to) => ['-q', '60', '-b', '10', from, '-o', to], 'heic'),
};

/** Windows of the demo's photos in every kind, until there are so many; the same seed brings the same files. */
export async function* soundCorpus(
  demo: string,
  folder: string,
  count: number,
  seed: number,
): AsyncGenerator<SoundFile> {
  const { whole } = chance(seed);
  const names = (await readdir(join(demo, 'photos'))).sort();
  for (let made = 0, n = 0; made < count; n++) {
    const path = join(demo, 'photos', names[n % names.length]!);
    const { width, height } = await sharp(path).metadata();
    const side = Math.min(width, height);
    const window = whole(Math.min(side, 400), side);
    const box = {
      left: whole(0, width - window),
      top: whole(0, height - window),
      width: window,
      height: window,
    };
    const size = whole(120, Math.min(window, 1100));
    const raw = await sharp(path)
      .extract(box)
      .resize(size, Math.max(90, Math.round(size * 0.7)))
      .png()
      .toBuffer();
    for (const [kind, make] of Object.entries(KINDS)) {
      const bytes = await make(() => sharp(raw), folder);
      if (bytes && made++ < count) yield { kind, bytes };
    }
  }
}
