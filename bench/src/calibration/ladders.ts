// Where the quality search begins: the typical curve of ln D by quality, and what tells a picture's offset from it. Prints
// the numbers that packages/core/src/weight/curves.ts and prediction.ts hold, and how far they miss on photographs that
// they were not fitted to.
// node bench/dist/calibration/ladders.js FOLDER… (HALF=calibration: nothing but what is fitted; CURVES=avif,webp: those alone)
import { join } from 'node:path';
import { DifferenceReference } from '@dusky-otter/core/difference';
import { featureVector, type Curve } from '@dusky-otter/core/weight';
import { ROOT } from '../report.ts';
import { cropAt, findPhotos, knownPhotos, LADDERS, ofEach, throughRecipe, type Half } from './photos.ts';
import { leastSquares } from './statistics.ts';

/** The ladders of the pairs, and one step more at the top. */
const STEPS: Record<Curve, number[]> = {
  jpeg: [...LADDERS.jpeg, 97],
  jpegFull: [...LADDERS.jpeg, 98],
  webp: [...LADDERS.webp, 98],
  avif: [...LADDERS.avif, 93],
};
const CURVES = (process.env.CURVES?.split(',') ?? Object.keys(STEPS)) as Curve[];
/** The more there is of a picture, the worse its worst place. */
const LADDER_WIDTHS = [400, 1200];
const DENSITIES = [1, 1.5, 2];
/** Curves run nearly parallel, but not quite: offsets are read off where the default target is met. */
const AT = Math.log(2);

interface Ladder {
  half: Half;
  density: number;
  features: number[];
  /** ln D by step. */
  logs: Record<Curve, number[]>;
}

async function laddersOf(path: string, half: Half, width: number): Promise<Ladder[]> {
  const crop = await cropAt(path, width);
  const references = DENSITIES.map((density) => new DifferenceReference(crop, density));
  const ladders = references.map(({ density, known }): Ladder => {
    const features = featureVector({ ...known, width: crop.width, height: crop.height, density });
    return { half, density, features, logs: { jpeg: [], jpegFull: [], webp: [], avif: [] } };
  });
  for (const curve of CURVES) {
    for (const quality of STEPS[curve]) {
      const { pixels } = await throughRecipe(crop, curve, quality);
      references.forEach((reference, i) =>
        ladders[i]!.logs[curve].push(Math.log(Math.max(1e-3, reference.differenceOf(pixels)))),
      );
    }
  }
  return ladders;
}

const paths = await findPhotos([join(ROOT, 'demo/photos'), ...process.argv.slice(2)]);
const halves = new Map(
  (await knownPhotos())
    .filter(({ id, half }) => paths.has(id) && half === (process.env.HALF ?? half))
    .map(({ id, half }) => [id, half]),
);
const known = new Map([...paths].filter(([id]) => halves.has(id)));
const all = await ofEach(known, async (id, path) => {
  const ladders: Ladder[] = [];
  for (const width of LADDER_WIDTHS) ladders.push(...(await laddersOf(path, halves.get(id)!, width)));
  return ladders;
});
const fitted = all.filter(({ half }) => half === 'calibration');
const plain = fitted.filter(({ density }) => density === 1);
const mean = (values: number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
const places = (value: number): string => value.toFixed(3);

for (const curve of CURVES) {
  const typical = STEPS[curve].map(
    (quality, i) => [quality, mean(plain.map((l) => l.logs[curve][i]!))] as const,
  );
  /** How far the picture's own curve lies above the typical one where it passes D = 2. */
  const offsetOf = ({ logs }: Ladder): number => {
    const own = logs[curve];
    let i = 1;
    while (i < own.length - 1 && own[i]! > AT) i++;
    const part = Math.min(1, Math.max(0, (AT - own[i - 1]!) / (own[i]! - own[i - 1]! || 1)));
    return AT - (typical[i - 1]![1] + part * (typical[i]![1] - typical[i - 1]![1]));
  };
  const coefficients = leastSquares(
    fitted.map((l) => l.features),
    fitted.map(offsetOf),
  );
  const miss = (half: Half): string => {
    const own = all.filter((l) => l.half === half);
    const errors = own.map(
      (l) => offsetOf(l) - l.features.reduce((sum, x, i) => sum + x * coefficients[i]!, 0),
    );
    return own.length > 0 ? places(Math.sqrt(mean(errors.map((e) => e * e)))) : 'none';
  };
  console.log(`${curve}: [${typical.map(([q, log]) => `[${q}, ${places(log)}]`).join(', ')}],`);
  console.log(`${curve}: [${coefficients.map(places).join(', ')}],`);
  console.log(
    `  rms of what is missed: calibration ${miss('calibration')}, reporting ${miss('reporting')}, demo ${miss('demo')}`,
  );
}
