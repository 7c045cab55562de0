// The recipes of both passes beside those of the pipeline's version before: bytes exactly at the target, and what the
// reference program says of both.
import type { Recipe } from '@dusky-otter/core/contract';
import { DifferenceReference, type Pixels } from '@dusky-otter/core/difference';
import {
  FORMER,
  predictedOffset,
  quickRecipe,
  thoroughRecipes,
  type LossyFormat,
} from '@dusky-otter/core/weight';
import { searchedTo } from './at-target.ts';
import { seenAt } from './calibration/photos.ts';
import type { Referee } from './calibration/referee.ts';
import { geometricMean } from './calibration/statistics.ts';
import { median, rounded, type Figures } from './report.ts';

/** A file of the quick pass in so many is looked at, and of the thorough one of AVIF: that takes seconds an encode. */
const EVERY = { quick: 3, thorough: 9 };

/** What the thorough pass of the version before used for AVIF. */
const formerThorough = (pixels: number): Recipe => ({ fullChroma: true, effort: pixels <= 500_000 ? 6 : 4 });

interface Looked {
  picture: Pixels;
  density: number;
}

/** Geometric mean of bytes now ÷ before, and medians of the reference's scores of both. */
async function beside(
  target: number,
  looked: readonly Looked[],
  format: LossyFormat,
  recipes: (pixels: number) => { before: Recipe; now: Recipe },
  referee: Referee,
): Promise<{ files: number; ratio: number; before: number; now: number }> {
  const ratios: number[] = [];
  const scores = { before: [] as number[], now: [] as number[] };
  for (const { picture, density } of looked) {
    const own = new DifferenceReference(picture, density);
    const { width, height } = picture;
    const offset = predictedOffset(format, { ...own.known, width, height, density });
    const both = recipes(width * height);
    const before = await searchedTo(target, own, { curve: format, recipe: both.before }, offset);
    const now = await searchedTo(target, own, { curve: format, recipe: both.now }, offset);
    if (before.bytes && now.bytes) ratios.push(now.bytes / before.bytes);
    // The reference has no distances between those.
    if (density !== 1 && density !== 2) continue;
    const original = await referee.file(seenAt(picture, density));
    for (const [when, { pixels, attempt }] of [
      ['before', before],
      ['now', now],
    ] as const) {
      const score = await referee.score(original, seenAt(pixels, density));
      scores[when].push((score * target) / attempt.difference);
    }
  }
  return {
    ...{ files: ratios.length, ratio: geometricMean(ratios) },
    ...{ before: median(scores.before), now: median(scores.now) },
  };
}

/** Figures of a format; `looked` are solid photographs as they are served. */
export async function besideBefore(
  target: number,
  looked: readonly Looked[],
  format: LossyFormat,
  referee: Referee,
): Promise<Figures> {
  const some = (every: number): Looked[] => looked.filter((_, i) => i % every === 0);
  const quick = await beside(
    target,
    some(EVERY.quick),
    format,
    (pixels) => {
      const now = quickRecipe(format, pixels);
      return { before: { fullChroma: now.fullChroma, ...FORMER[format] }, now };
    },
    referee,
  );
  const figures: Figures = {
    'files beside before': quick.files,
    'quick ÷ before, at the target': rounded(quick.ratio),
    'reference before': rounded(quick.before, 2),
    'reference now': rounded(quick.now, 2),
  };
  if (format !== 'avif') return figures;
  const thorough = await beside(
    target,
    some(EVERY.thorough),
    format,
    (pixels) => ({ before: formerThorough(pixels), now: thoroughRecipes(format, pixels)[0]!.recipe }),
    referee,
  );
  return {
    ...figures,
    'thorough ÷ before, at the target': rounded(thorough.ratio),
    'reference before, thorough': rounded(thorough.before, 2),
    'reference now, thorough': rounded(thorough.now, 2),
  };
}
