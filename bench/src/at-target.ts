// What a recipe's file weighs exactly at a visible difference, so that recipes can be set side by side.
import type { Recipe } from '@dusky-otter/core/contract';
import type { DifferenceReference, Pixels } from '@dusky-otter/core/difference';
import { QualitySearch, type Attempt, type Curve } from '@dusky-otter/core/weight';
import { throughRecipe } from './calibration/photos.ts';

/** Bytes where the difference is the target: along the secant, in logarithms, through the nearest files on both sides. */
function bytesAt(target: number, attempts: readonly Attempt[]): number | null {
  const miss = ({ difference }: Attempt): number => Math.log(difference / target);
  const sorted = [...attempts].sort((a, b) => miss(b) - miss(a));
  const below = sorted.find((a) => miss(a) <= 0);
  const above = sorted.findLast((a) => miss(a) > 0);
  if (!below) return null;
  if (!above) return below.bytes;
  const part = miss(above) / (miss(above) - miss(below));
  return above.bytes ** (1 - part) * below.bytes ** part;
}

export interface AtTarget {
  /** Null where no quality meets the target. */
  bytes: number | null;
  /** The file that came nearest. */
  pixels: Pixels;
  attempt: Attempt;
}

/**
 * The search for one recipe, to within some per cent of the target.
 * @param own of the picture, at its density
 * @param offset where it begins
 */
export async function searchedTo(
  target: number,
  own: DifferenceReference,
  { curve, recipe }: { curve: Curve; recipe: Recipe },
  offset: number,
): Promise<AtTarget> {
  const search = new QualitySearch({ ...{ curve, target, offset }, most: 6, aim: 0.985, near: 0.97 });
  const off = ({ difference }: Attempt): number => Math.abs(Math.log(difference / target));
  let nearest: Omit<AtTarget, 'bytes'> | null = null;
  for (let quality = search.next; quality !== null; quality = search.next) {
    const { file, pixels } = await throughRecipe(own.pixels, curve, quality, recipe);
    const attempt = { quality, bytes: file.length, difference: own.differenceOf(pixels) };
    search.take(attempt);
    if (!nearest || off(attempt) < off(nearest.attempt)) nearest = { pixels, attempt };
  }
  return { ...nearest!, bytes: bytesAt(target, search.attempts) };
}
