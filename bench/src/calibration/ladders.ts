// Where the quality search begins: the typical curve of ln D by quality and what tells a picture's offset from it.
// Prints the numbers that packages/core/src/weight/prediction.ts holds, and how far they miss on the reporting half.
// node bench/dist/calibration/ladders.js FOLDER…
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DifferenceReference, type LossyFormat } from '@dusky-otter/core';
import { ROOT } from '../report.ts';
import { cropAt, findPhotos, knownPhotos, LADDERS, throughCodec, type Half } from './photos.ts';

/** A JPEG that keeps colour at full size has a curve of its own. */
export type Curve = LossyFormat | 'jpegFull';

const CURVES: [Curve, LossyFormat][] = [
  ['jpeg', 'jpeg'],
  ['jpegFull', 'jpeg'],
  ['webp', 'webp'],
  ['avif', 'avif'],
];

export interface Ladder {
  photo: string;
  half: Half;
  width: number;
  density: number;
  exposure: number[];
  /** D and bytes by format, in the order of the ladder's qualities. */
  steps: Record<Curve, { quality: number; bytes: number; difference: number }[]>;
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
      steps: { jpeg: [], jpegFull: [], webp: [], avif: [] },
    }));
    for (const [curve, format] of CURVES) {
      for (const quality of LADDERS[format]) {
        const { file, pixels } = await throughCodec(crop, format, quality, curve === 'jpegFull');
        references.forEach((reference, i) =>
          own[i]!.steps[curve].push({
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
