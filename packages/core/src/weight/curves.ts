// How visible difference goes with encoder quality: typical curves, and a picture's offset from them.
import type { OutputFormat } from '../contract/index.ts';

/** Formats that have a quality to search. */
export type LossyFormat = Extract<OutputFormat, 'jpeg' | 'webp' | 'avif'>;

export const isLossy = (format: OutputFormat): format is LossyFormat =>
  format === 'jpeg' || format === 'webp' || format === 'avif';

/** A JPEG that keeps colour at full size (4:4:4) has a curve of its own; the plain one keeps a quarter (4:2:0). */
export type Curve = LossyFormat | 'jpegFull';

/** Qualities that are ever tried: below nobody wants a picture, above files grow without a visible gain. */
export const QUALITY_RANGE: Record<Curve, readonly [number, number]> = {
  jpeg: [20, 97],
  jpegFull: [20, 98],
  webp: [15, 98],
  avif: [15, 95],
};

/**
 * ln D by quality, averaged over the photographs of the calibration half (docs/methods/quality-search.md). A picture's
 * own curve runs nearly parallel: how much it lies above or below is its "offset".
 */
const TYPICAL: Record<Curve, readonly (readonly [quality: number, logD: number])[]> = {
  jpeg: [
    [25, 1.669],
    [42, 1.39],
    [58, 1.205],
    [70, 1.051],
    [80, 0.847],
    [88, 0.625],
    [94, 0.354],
    [97, 0.153],
  ],
  jpegFull: [
    [25, 1.611],
    [42, 1.3],
    [58, 1.104],
    [70, 0.924],
    [80, 0.703],
    [88, 0.458],
    [94, 0.122],
    [98, -0.297],
  ],
  webp: [
    [20, 1.829],
    [45, 1.487],
    [62, 1.307],
    [75, 1.172],
    [86, 0.818],
    [94, 0.461],
    [98, 0.326],
  ],
  avif: [
    [22, 1.979],
    [36, 1.619],
    [48, 1.26],
    [58, 0.955],
    [70, 0.635],
    [84, 0.233],
    [93, -0.279],
  ],
};

/** The typical ln D at a quality, by straight lines between the knots and beyond them. */
export function typicalLog(curve: Curve, quality: number): number {
  const knots = TYPICAL[curve];
  let i = 1;
  while (i < knots.length - 1 && knots[i]![0] < quality) i++;
  const [[q0, d0], [q1, d1]] = [knots[i - 1]!, knots[i]!];
  return d0 + ((d1 - d0) * (quality - q0)) / (q1 - q0);
}

/** The quality at which the typical ln D is this, not rounded. Inverse of `typicalLog`. */
export function typicalQuality(curve: Curve, logD: number): number {
  const knots = TYPICAL[curve];
  let i = 1;
  while (i < knots.length - 1 && knots[i]![1] > logD) i++;
  const [[q0, d0], [q1, d1]] = [knots[i - 1]!, knots[i]!];
  return q0 + ((q1 - q0) * (logD - d0)) / (d1 - d0);
}
