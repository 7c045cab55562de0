// Quality search along one curve: the smallest file whose visible difference stays within the target, in few encodes.
import { QUALITY_RANGE, typicalLog, typicalQuality, type Curve } from './curves.ts';

/** One encode that was measured. */
export interface Attempt {
  /** Encoder quality, a whole number. */
  quality: number;
  bytes: number;
  /** Visible difference D of the decoded file. */
  difference: number;
}

/** ln D, of an identical picture far below what is ever aimed at. */
const logOf = (difference: number): number => Math.log(Math.max(difference, 1e-3));

/** How far a measured attempt lies above the typical curve, in ln D. */
export const offsetOf = (
  curve: Curve,
  { quality, difference }: Pick<Attempt, 'quality' | 'difference'>,
): number => logOf(difference) - typicalLog(curve, quality);

/** Aimed at below the target, so that a curve's small bumps don't lift it above. */
const AIM = 0.925;
/** A file this near below the target is not searched further: one more encode would save a few per cent at best. */
const NEAR = 0.85;
/**
 * After so many encodes a file as near as this will do: the next would cost as much as the first and save less. Where
 * more is asked, the last encode may be bold with such a one at hand.
 */
const FAIR = 0.8;
const FAIR_AFTER = 2;
/** In ln D: aimed lower by this for each failure after the first, and for the last encode. */
const CARE = 0.03;
const LAST_CARE = 0.1;
/** Encodes that one variant may cost. */
export const MOST_ENCODES = 5;

export interface SearchStart {
  curve: Curve;
  /** Largest visible difference wanted. */
  target: number;
  /** Expected offset from the typical curve, in ln D. */
  offset: number;
  /** Encodes that it may cost. */
  most?: number;
  /** How much higher the recipe's quality is than the curve's for the same difference. */
  shift?: number;
  /** Share of the target that is aimed at. */
  aim?: number;
  /** Share of the target from which on a file is near enough, however long it takes. */
  near?: number;
}

/** The smallest file within the target, or the one with the least difference when none is; null before any. */
export function bestOf<T extends Attempt>(attempts: readonly T[], target: number): T | null {
  const good = attempts.filter((a) => a.difference <= target);
  if (good.length > 0) return good.reduce((a, b) => (b.bytes < a.bytes ? b : a));
  if (attempts.length === 0) return null;
  return attempts.reduce((a, b) => (b.difference < a.difference ? b : a));
}

/**
 * One search, driven from outside: `next` is the quality to encode at, or null when it is over; `take` takes what
 * came out. Steps run on the measured curve: first parallel to the typical curve through the measured point, then
 * along the secant through the two points that enclose the target, in the typical curve's own scale, where
 * pictures are nearly straight.
 */
export class QualitySearch {
  readonly attempts: Attempt[] = [];
  private readonly low: number;
  private readonly high: number;
  private readonly most: number;
  /** ln D that is aimed at. */
  private readonly goal: number;
  next: number | null;

  constructor(private readonly start: SearchStart) {
    [this.low, this.high] = QUALITY_RANGE[start.curve];
    this.most = start.most ?? MOST_ENCODES;
    this.goal = Math.log(start.target * (start.aim ?? AIM));
    this.next = this.most > 0 ? this.within(this.qualityAt(this.goal - start.offset)) : null;
  }

  /** The typical ln D at a quality of this recipe. */
  private logAt(quality: number): number {
    return typicalLog(this.start.curve, quality - (this.start.shift ?? 0));
  }

  private qualityAt(logD: number): number {
    return typicalQuality(this.start.curve, logD) + (this.start.shift ?? 0);
  }

  take(attempt: Attempt): void {
    this.attempts.push(attempt);
    this.next = this.over() ? null : this.step();
  }

  /** Share of the target from which on a file is near enough by now. */
  private get near(): number {
    return this.start.near ?? (this.attempts.length < FAIR_AFTER ? NEAR : FAIR);
  }

  private within(quality: number): number {
    return Math.min(this.high, Math.max(this.low, Math.round(quality)));
  }

  /** Lowest quality that met the target, highest that failed: the answer lies between them. */
  private bracket(): { met: Attempt | null; failed: Attempt | null } {
    const { target } = this.start;
    let met: Attempt | null = null;
    let failed: Attempt | null = null;
    for (const attempt of this.attempts) {
      if (attempt.difference <= target) {
        if (!met || attempt.quality < met.quality) met = attempt;
      } else if (!failed || attempt.quality > failed.quality) failed = attempt;
    }
    return { met, failed };
  }

  private over(): boolean {
    if (this.attempts.length >= this.most) return true;
    const { met, failed } = this.bracket();
    if (!met) return failed?.quality === this.high;
    if (met.difference >= this.near * this.start.target || met.quality === this.low) return true;
    // A bump in the curve may put a failure above a success: nothing lies between them to look for.
    return failed !== null && failed.quality >= met.quality - 1;
  }

  private step(): number {
    const { target } = this.start;
    const { met, failed } = this.bracket();
    // Every step that fails makes the next one more careful, and the last one most: it must not fail.
    const failures = this.attempts.filter((a) => a.difference > target).length;
    const last = this.attempts.length === this.most - 1 && !(met && met.difference >= FAIR * target);
    const goal = this.goal - CARE * Math.max(0, failures - 1) - (last ? LAST_CARE : 0);
    if (met && failed) {
      const [x0, y0] = [this.logAt(failed.quality), logOf(failed.difference)];
      const [x1, y1] = [this.logAt(met.quality), logOf(met.difference)];
      const x = y0 === y1 ? (x0 + x1) / 2 : x0 + ((x1 - x0) * (goal - y0)) / (y1 - y0);
      const quality = Math.round(this.qualityAt(x));
      // Encoders give neighbouring qualities the same file: the one right beside a failure is no news.
      const least = Math.min(failed.quality + 2, met.quality - 1);
      return Math.min(met.quality - 1, Math.max(least, quality));
    }
    const nearest = (met ?? failed)!;
    const offset = logOf(nearest.difference) - this.logAt(nearest.quality);
    const quality = this.within(this.qualityAt(goal - offset));
    // Always at least one step towards the target.
    return this.within(met ? Math.min(quality, met.quality - 1) : Math.max(quality, nearest.quality + 1));
  }
}
