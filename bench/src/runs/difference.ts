// The visible difference: its time a megapixel, and how it agrees with the reference program's scores on photographs
// that the calibration has not seen. The made-up demo photos are always there; real ones in CALIBRATION_PHOTOS.
import { join } from 'node:path';
import { DifferenceReference, type Pixels } from '@dusky-otter/core/difference';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';
import { cropAt, findPhotos, knownPairs, knownPhotos, throughCodec, WIDTHS } from '../calibration/photos.ts';
import { logError, spearman } from '../calibration/statistics.ts';

interface Scored {
  half: string;
  format: string;
  own: number;
  reference: number;
}

/** Steps of a ladder that go up in quality and in difference by more than this are no noise. */
const NOISE = 1.02;
let steps = 0;
let ownRises = 0;
let referenceRises = 0;
let bothRise = 0;
const scored: Scored[] = [];
const folders = (process.env.CALIBRATION_PHOTOS ?? '').split(':').filter(Boolean);
const paths = await findPhotos([join(ROOT, 'demo/photos'), ...folders]);
const pairs = await knownPairs();
for (const { id, half } of await knownPhotos()) {
  const path = paths.get(id);
  if (!path) continue;
  for (const width of WIDTHS) {
    const crop = await cropAt(path, width);
    const reference = new DifferenceReference(crop);
    let before: (Scored & { format: string }) | null = null;
    for (const pair of pairs.filter((p) => p.photo === id && p.width === width)) {
      const { pixels } = await throughCodec(crop, pair.format, pair.quality);
      const score = {
        half,
        format: pair.format,
        own: reference.differenceOf(pixels),
        reference: pair.reference,
      };
      if (before?.format === score.format) {
        const [own, theirs] = [score.own / before.own > NOISE, score.reference / before.reference > NOISE];
        steps += 1;
        ownRises += own ? 1 : 0;
        referenceRises += theirs ? 1 : 0;
        bothRise += own && theirs ? 1 : 0;
      }
      before = score;
      scored.push(score);
    }
  }
}

const rows: Figures[] = [];
for (const half of ['calibration', 'reporting', 'demo']) {
  for (const format of ['all', 'jpeg', 'webp', 'avif']) {
    const own = scored.filter((s) => s.half === half && (format === 'all' || s.format === format));
    if (own.length === 0) continue;
    const [a, b] = [own.map((s) => s.own), own.map((s) => s.reference)];
    rows.push({
      photos: half,
      format,
      pairs: own.length,
      spearman: rounded(spearman(a, b)),
      'rmse of ln D': rounded(logError(a, b)),
    });
  }
}

/** Median of the times of several runs, in ms. */
async function medianTime(times: number, act: () => unknown): Promise<number> {
  const found: number[] = [];
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    await act();
    found.push(performance.now() - from);
  }
  return median(found);
}

const path = paths.get('d04')!;
const large: Pixels = await cropAt(path, 1500);
const megapixels = (large.width * large.height) / 1e6;
const { pixels } = await throughCodec(large, 'jpeg', 70);
const timing: Figures = {};
for (const density of [1, 1.5, 2]) {
  const reference = new DifferenceReference(large, density);
  const prepare = await medianTime(9, () => new DifferenceReference(large, density));
  const compare = await medianTime(9, () => reference.differenceOf(pixels));
  timing[`ms/MP to prepare, density ${density}`] = Math.round(prepare / megapixels);
  timing[`ms/MP to compare, density ${density}`] = Math.round(compare / megapixels);
}
const codec = await medianTime(5, () => throughCodec(large, 'jpeg', 70));
timing['ms/MP of a JPEG there and back'] = Math.round(codec / megapixels);
await report('difference', 'visible difference beside the scores of the reference program', rows, {
  ...timing,
  'ladder steps': steps,
  'steps up by more than 2 %': ownRises,
  'of them in the reference too': bothRise,
  'such steps in the reference': referenceRises,
});
