// Quality search: the smallest file whose visible difference stays within the target, in few encodes.
import type { OutputFormat } from '../contract/index.ts';

/** Formats that have a quality to search. */
export type LossyFormat = Extract<OutputFormat, 'jpeg' | 'webp' | 'avif'>;

export const isLossy = (format: OutputFormat): format is LossyFormat =>
  format === 'jpeg' || format === 'webp' || format === 'avif';

/** One encode that was measured. */
export interface Attempt {
  /** Encoder quality, a whole number. */
  quality: number;
  bytes: number;
  /** Visible difference D of the decoded file. */
  difference: number;
}

/** Qualities that are ever tried: below nobody wants a picture, above files grow without a visible gain. */
export const QUALITY_RANGE: Record<LossyFormat, readonly [number, number]> = {
  jpeg: [20, 97],
  webp: [15, 98],
  avif: [15, 95],
};

/**
 * ln D by quality, averaged over the photographs of the calibration half (docs/quality-search.md). A picture's
 * own curve runs nearly parallel: how much it lies above or below is its "offset".
 */
const TYPICAL: Record<LossyFormat, readonly (readonly [quality: number, logD: number])[]> = {
  jpeg: [],
  webp: [],
  avif: [],
};

/** The typical ln D at a quality, by straight lines between the knots and beyond them. */
export function typicalLog(format: LossyFormat, quality: number): number {
  const knots = TYPICAL[format];
  let i = 1;
  while (i < knots.length - 1 && knots[i]![0] < quality) i++;
  const [[q0, d0], [q1, d1]] = [knots[i - 1]!, knots[i]!];
  return d0 + ((d1 - d0) * (quality - q0)) / (q1 - q0);
}

/** The quality at which the typical ln D is this, not rounded. Inverse of `typicalLog`. */
export function typicalQuality(format: LossyFormat, logD: number): number {
  const knots = TYPICAL[format];
  let i = 1;
  while (i < knots.length - 1 && knots[i]![1] > logD) i++;
  const [[q0, d0], [q1, d1]] = [knots[i - 1]!, knots[i]!];
  return q0 + ((q1 - q0) * (logD - d0)) / (d1 - d0);
}

/** How far a measured attempt lies above the typical curve, in ln D. */
export const offsetOf = (format: LossyFormat, attempt: Pick<Attempt, 'quality' | 'difference'>): number =>
  Math.log(Math.max(attempt.difference, 1e-3)) - typicalLog(format, attempt.quality);

/** Aimed at below the target, so that a curve's small bumps don't lift it above. */
const AIM = 0.965;
/** A file this near below the target is not searched further: one more encode saves a few per cent at best. */
const NEAR = 0.93;
/** Encodes that one search may cost. */
export const MOST_ENCODES = 5;

export interface SearchStart {
  format: LossyFormat;
  /** Largest visible difference wanted. */
  target: number;
  /** Expected offset from the typical curve, in ln D. */
  offset: number;
  /** The expectation comes from a measured neighbour: it is rarely far off. */
  sure?: boolean;
}

/**
 * One search, driven from outside: `next` is the quality to encode at, or null when it is over; `take` takes what
 * came out. Steps run on the measured curve: first parallel to the typical curve through the measured point, then
 * along the secant through the two points that enclose the target, in the typical curve's own scale, where
 * pictures are nearly straight. No more than `MOST_ENCODES` steps.
 */
export class QualitySearch {
  private readonly attempts: Attempt[] = [];
  private readonly low: number;
  private readonly high: number;
  next: number | null;

  constructor(private readonly start: SearchStart) {
    [this.low, this.high] = QUALITY_RANGE[start.format];
    this.next = this.within(typicalQuality(start.format, Math.log(start.target * AIM) - start.offset));
  }

  get encodes(): number {
    return this.attempts.length;
  }

  /** The smallest file within the target, or the one with the least difference when none is; null before any. */
  get best(): Attempt | null {
    const good = this.attempts.filter((a) => a.difference <= this.start.target);
    if (good.length > 0) return good.reduce((a, b) => (b.bytes < a.bytes ? b : a));
    if (this.attempts.length === 0) return null;
    return this.attempts.reduce((a, b) => (b.difference < a.difference ? b : a));
  }

  take(attempt: Attempt): void {
    this.attempts.push(attempt);
    this.next = this.over() ? null : this.step();
  }

  private within(quality: number): number {
    return Math.min(this.high, Math.max(this.low, Math.round(quality)));
  }

  private tried(quality: number): boolean {
    return this.attempts.some((a) => a.quality === quality);
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
    if (this.attempts.length >= MOST_ENCODES) return true;
    const { met, failed } = this.bracket();
    if (!met) return failed?.quality === this.high;
    if (met.difference >= NEAR * this.start.target || met.quality === this.low) return true;
    // A bump in the curve may put a failure above a success: nothing lies between them to look for.
    return failed !== null && failed.quality >= met.quality - 1;
  }

  private step(): number {
    const { format, target } = this.start;
    const { met, failed } = this.bracket();
    const goal = Math.log(target * AIM);
    // The last step must not fail: it gives up some bytes to be within the target.
    const last = this.attempts.length === MOST_ENCODES - 1 && !met;
    let quality: number;
    if (met && failed) {
      const [x0, y0] = [typicalLog(format, failed.quality), Math.log(failed.difference)];
      const [x1, y1] = [typicalLog(format, met.quality), Math.log(met.difference)];
      const x = y0 === y1 ? (x0 + x1) / 2 : x0 + ((x1 - x0) * (goal - y0)) / (y1 - y0);
      quality = typicalQuality(format, x);
      quality = Math.min(met.quality - 1, Math.max(failed.quality + 1, Math.round(quality)));
    } else {
      const nearest = (met ?? failed)!;
      const margin = last ? -0.1 : 0;
      quality = this.within(typicalQuality(format, goal + margin - offsetOf(format, nearest)));
      // Always at least one step towards the target.
      if (met && quality >= met.quality) quality = met.quality - 1;
      if (failed && quality <= failed.quality) quality = failed.quality + 1;
      quality = this.within(quality);
    }
    while (this.tried(quality) && quality < this.high) quality++;
    return quality;
  }
}
