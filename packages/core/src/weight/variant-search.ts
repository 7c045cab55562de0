// The search for one variant: along the curve of its format, with another recipe where the first one won't do.
import type { Recipe } from '../contract/index.ts';
import { QUALITY_RANGE, typicalLog, type Curve, type LossyFormat } from './curves.ts';
import { predictedOffset, type Features } from './prediction.ts';
import { quickRecipe } from './recipes.ts';
import { bestOf, MOST_ENCODES, offsetOf, QualitySearch, type Attempt } from './search.ts';

/** What to encode next. */
export interface Trial extends Recipe {
  quality: number;
}

export type VariantAttempt = Attempt & Trial;

/**
 * From this quality on a JPEG buys more with colour at full size: what stays visible then is mostly the colour that
 * was thrown away (measured, docs/methods/quality-search.md).
 */
const FULL_CHROMA_FROM = 90;
/** How much a picture's offset with the other recipe follows that with the plain one, of what it has more than expected. */
const FOLLOWS = 0.2;

/** In ln D along the typical curve: what is more than a bump. */
const CLEARLY = 0.1;
/** A picture that gains less than this of what is typical is not at fault for want of quality. */
const STUCK = 0.1;

/** Driven as `QualitySearch` is; at most `MOST_ENCODES` encodes in all. */
export class VariantSearch {
  readonly attempts: VariantAttempt[] = [];
  private curve: Curve;
  private sharp = false;
  private search: QualitySearch;

  constructor(
    format: LossyFormat,
    private readonly target: number,
    private readonly features: Features,
  ) {
    this.curve = format;
    this.search = this.along(format);
    this.change(0);
  }

  get next(): Trial | null {
    const { next } = this.search;
    if (next === null) return null;
    // What didn't go as is typical may not now either: the last of its encodes must not fail.
    const last =
      this.sharp && this.attempts.length === MOST_ENCODES - 1 && this.best!.difference > this.target;
    const quality = last ? QUALITY_RANGE.webp[1] : next;
    const { width, height } = this.features;
    const recipe = quickRecipe(this.curve, width * height);
    return { ...recipe, quality, ...(this.sharp && { sharpChroma: true }) };
  }

  /** The smallest file within the target, or the one with the least difference when none is; null before any. */
  get best(): VariantAttempt | null {
    return bestOf(this.attempts, this.target);
  }

  take(attempt: VariantAttempt): void {
    this.attempts.push(attempt);
    this.search.take(attempt);
    if (attempt.difference <= this.target) return;
    const surprise = offsetOf(this.curve, attempt) - predictedOffset(this.curve, this.features);
    if (this.curve === 'jpeg') this.change(surprise);
    if (this.curve === 'webp') this.sharpen(attempt, surprise);
  }

  /** Goes over to full colour where plain JPEG would need a quality at which that is the cheaper way. */
  private change(surprise: number): void {
    const { next } = this.search;
    if (this.curve !== 'jpeg' || next === null || next < FULL_CHROMA_FROM) return;
    this.curve = 'jpegFull';
    this.search = this.along(this.curve, surprise);
  }

  /**
   * WebP always halves colour; where a higher quality doesn't help, halving it so that edges between colours stay sharp
   * mostly does. It takes twice the time, so it is the last resort here.
   */
  private sharpen(attempt: VariantAttempt, surprise: number): void {
    if (this.sharp || !this.isStuck(attempt)) return;
    this.sharp = true;
    this.search = this.along(this.curve, surprise);
  }

  /** At the highest quality, or seen hardly less of than what was tried before at a clearly lower one. */
  private isStuck({ quality, difference }: VariantAttempt): boolean {
    if (quality >= QUALITY_RANGE[this.curve][1]) return true;
    return this.attempts.some((before) => {
      const expected = typicalLog(this.curve, before.quality) - typicalLog(this.curve, quality);
      return expected > CLEARLY && Math.log(before.difference / difference) < STUCK * expected;
    });
  }

  /** @param surprise how much more was seen with the recipe before than was expected, in ln D */
  private along(curve: Curve, surprise = 0): QualitySearch {
    return new QualitySearch({
      curve,
      target: this.target,
      offset: predictedOffset(curve, this.features) + FOLLOWS * surprise,
      most: MOST_ENCODES - this.attempts.length,
    });
  }
}
