// Where a quality search begins: how far a picture lies above or below the typical curve, told before encoding.
import type { KnownOfPicture } from '../difference/visible-difference.ts';
import type { Curve } from './curves.ts';

/** What is cheaply known of a picture. */
export interface Features extends KnownOfPicture {
  /** Pixels. */
  width: number;
  height: number;
  /** File px per CSS px. */
  density: number;
}

type Coefficients = readonly [number, number, number, number, number, number, number, number];

/**
 * Least squares over the calibration half (docs/methods/quality-search.md): constant, three exposures, colour, ln of
 * megapixels, ln of the density and its square.
 */
const COEFFICIENTS: Record<Curve, Coefficients> = {
  jpeg: [1.177, -0.327, 0.465, 0.212, 0.087, 0.023, -0.529, -0.603],
  jpegFull: [0.173, -0.115, -0.001, 0.299, 0.01, 0.041, -0.689, -0.325],
  webp: [1.085, -0.133, 0.279, 0.324, 0.071, 0.028, -0.479, -0.566],
  avif: [0.472, 0.038, -0.59, 0.857, 0.043, 0.056, -0.553, -0.708],
};

/** What the coefficients are for, in their order; the fit is made with the same. */
export function featureVector({ exposure, colour, width, height, density }: Features): number[] {
  const dense = Math.log(density);
  return [1, ...exposure, colour, Math.log((width * height) / 1e6), dense, dense * dense];
}

/** Offset from the typical curve, in ln D, expected for a picture. */
export function predictedOffset(curve: Curve, known: Features): number {
  const features = featureVector(known);
  return COEFFICIENTS[curve].reduce((sum, factor, i) => sum + factor * features[i]!, 0);
}
