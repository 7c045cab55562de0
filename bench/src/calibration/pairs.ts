// Makes bench/calibration/pairs.csv: every known photograph found in the given folders, at two widths, through every
// step of the three ladders, scored by the reference program. Wants Debian's package butteraugli; takes an hour.
// node bench/dist/calibration/pairs.js FOLDER…
import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import Papa from 'papaparse';
import sharp from 'sharp';
import type { LossyFormat, Pixels } from '@dusky-otter/core';
import { ROOT } from '../report.ts';
import { cropAt, findPhotos, FOLDER, LADDERS, throughCodec, WIDTHS, type Pair } from './photos.ts';

const run = promisify(execFile);
const work = await mkdtemp(join(tmpdir(), 'otter-pairs-'));

async function asPng({ data, width, height }: Pixels, name: string): Promise<string> {
  const path = join(work, name);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .png({ compressionLevel: 1 })
    .toFile(path);
  return path;
}

async function pairsOf(photo: string, path: string): Promise<Pair[]> {
  const pairs: Pair[] = [];
  for (const width of WIDTHS) {
    const crop = await cropAt(path, width);
    const original = await asPng(crop, `${photo}.png`);
    for (const [format, qualities] of Object.entries(LADDERS) as [LossyFormat, number[]][]) {
      for (const quality of qualities) {
        const { file, pixels } = await throughCodec(crop, format, quality);
        const { stdout } = await run('butteraugli', [original, await asPng(pixels, `${photo}-variant.png`)]);
        const reference = Number(stdout.trim().split(/\s+/)[0]);
        pairs.push({ photo, width, format, quality, bytes: file.length, reference });
      }
    }
  }
  return pairs;
}

const folders = process.argv.slice(2);
const queue = [...(await findPhotos([join(ROOT, 'demo/photos'), ...folders]))].sort();
const pairs: Pair[] = [];
await Promise.all(
  cpus().map(async () => {
    for (let next = queue.shift(); next; next = queue.shift()) {
      pairs.push(...(await pairsOf(...next)));
      console.log(`${next[0]} done, ${queue.length} to go`);
    }
  }),
);
await rm(work, { recursive: true });
pairs.sort((a, b) => (a.photo < b.photo ? -1 : a.photo > b.photo ? 1 : 0));
await writeFile(join(FOLDER, 'pairs.csv'), `${Papa.unparse(pairs, { newline: '\n' })}\n`);
