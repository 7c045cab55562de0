// Where the quality search begins: the typical curve of ln D by quality and what tells a picture's offset from it.
// Prints the numbers that packages/core/src/weight/prediction.ts holds, and how far they miss on the reporting half.
// node bench/dist/calibration/ladders.js FOLDER…
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DifferenceReference, type LossyFormat } from '@dusky-otter/core';
import { ROOT } from '../report.ts';
import { cropAt, findPhotos, knownPhotos, LADDERS, throughCodec, type Half } from './photos.ts';

export interface Ladder {
  photo: string;
  half: Half;
  width: number;
  density: number;
  exposure: number[];
  /** D and bytes by format, in the order of the ladder's qualities. */
  steps: Record<LossyFormat, { quality: number; bytes: number; difference: number }[]>;
}

const paths = await findPhotos([join(ROOT, 'demo/photos'), ...process.argv.slice(2)]);
const ladders: Ladder[] = [];
for (const { id, half } of await knownPhotos()) {
  const path = paths.get(id);
  if (!path) continue;
  for (const width of [360, 720, 1280]) {
    const crop = await cropAt(path, width);
    const references = [1, 1.5, 2].map((density) => new DifferenceReference(crop, density));
    const own = references.map(({ density, exposure }): Ladder => ({
      photo: id,
      half,
      width,
      density,
      exposure,
      steps: { jpeg: [], webp: [], avif: [] },
    }));
    for (const [format, qualities] of Object.entries(LADDERS) as [LossyFormat, number[]][]) {
      for (const quality of qualities) {
        const { file, pixels } = await throughCodec(crop, format, quality);
        references.forEach((reference, i) =>
          own[i]!.steps[format].push({
            quality,
            bytes: file.length,
            difference: reference.differenceOf(pixels),
          }),
        );
      }
    }
    ladders.push(...own);
  }
  console.error(id);
}
await writeFile(process.env.OUT ?? '/dev/stdout', JSON.stringify(ladders));
