// Makes bench/calibration/pairs.csv: every known photograph found in the given folders, at two widths, through every
// step of the three ladders, scored by the reference program. Wants Debian's package butteraugli; takes an hour.
// And regions.csv: all of them again, whole and where they are plainest, as they are and halved.
// node bench/dist/calibration/pairs.js FOLDER… (ONLY=regions or ONLY=pairs for one of the two)
import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import Papa from 'papaparse';
import sharp from 'sharp';
import type { Curve, LossyFormat, Pixels } from '@dusky-otter/core';
import { ROOT } from '../report.ts';
import {
  cropAt,
  findPhotos,
  FOLDER,
  LADDERS,
  REGION_LADDERS,
  regionAt,
  seenAt,
  throughCodec,
  throughCurve,
  WIDTHS,
  type Pair,
  type RegionPair,
} from './photos.ts';

const run = promisify(execFile);
const work = await mkdtemp(join(tmpdir(), 'otter-pairs-'));

async function asPng({ data, width, height }: Pixels, name: string): Promise<string> {
  const path = join(work, name);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .png({ compressionLevel: 1 })
    .toFile(path);
  return path;
}

async function scored(original: string, variant: Pixels, name: string): Promise<number> {
  const { stdout } = await run('butteraugli', [original, await asPng(variant, `${name}-variant.png`)]);
  return Number(stdout.trim().split(/\s+/)[0]);
}

async function pairsOf(photo: string, path: string): Promise<Pair[]> {
  const pairs: Pair[] = [];
  for (const width of WIDTHS) {
    const crop = await cropAt(path, width);
    const original = await asPng(crop, `${photo}.png`);
    for (const [format, qualities] of Object.entries(LADDERS) as [LossyFormat, number[]][]) {
      for (const quality of qualities) {
        const { file, pixels } = await throughCodec(crop, format, quality);
        const reference = await scored(original, pixels, photo);
        pairs.push({ photo, width, format, quality, bytes: file.length, reference });
      }
    }
  }
  return pairs;
}

async function regionPairsOf(photo: string, path: string): Promise<RegionPair[]> {
  const pairs: RegionPair[] = [];
  for (const region of ['whole', 'plainest'] as const) {
    for (const density of [1, 2] as const) {
      const crop = await regionAt(path, region, density);
      const original = await asPng(seenAt(crop, density), `${photo}.png`);
      for (const [curve, qualities] of Object.entries(REGION_LADDERS) as [Curve, number[]][]) {
        for (const quality of qualities) {
          const { file, pixels } = await throughCurve(crop, curve, quality);
          const reference = await scored(original, seenAt(pixels, density), photo);
          pairs.push({ photo, region, density, curve, quality, bytes: file.length, reference });
        }
      }
    }
  }
  return pairs;
}

/** All pairs of some photographs, as many photographs at a time as there are processors; written as a table. */
async function write<T extends { photo: string }>(
  name: string,
  photos: ReadonlyMap<string, string>,
  of: (photo: string, path: string) => Promise<T[]>,
): Promise<void> {
  const queue = [...photos].sort();
  const pairs: T[] = [];
  await Promise.all(
    cpus().map(async () => {
      for (let next = queue.shift(); next; next = queue.shift()) {
        pairs.push(...(await of(...next)));
        console.log(`${next[0]} done, ${queue.length} to go`);
      }
    }),
  );
  pairs.sort((a, b) => (a.photo < b.photo ? -1 : a.photo > b.photo ? 1 : 0));
  await writeFile(join(FOLDER, name), `${Papa.unparse(pairs, { newline: '\n' })}\n`);
}

const found = await findPhotos([join(ROOT, 'demo/photos'), ...process.argv.slice(2)]);
const { ONLY } = process.env;
if (ONLY !== 'regions') await write('pairs.csv', found, pairsOf);
if (ONLY !== 'pairs') await write('regions.csv', found, regionPairsOf);
await rm(work, { recursive: true });
