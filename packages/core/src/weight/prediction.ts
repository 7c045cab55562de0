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
  jpeg: [1.707, -0.34, 0.619, 0.154, 0.128, 0.025, -0.552, -0.408],
  jpegFull: [0.467, -0.221, 0.361, 0.039, 0.027, 0.048, -0.782, 0.018],
  webp: [1.149, -0.14, 0.316, 0.262, 0.079, 0.023, -0.465, -0.557],
  avif: [0.459, -0.078, -0.186, 0.484, 0.036, 0.055, -0.538, -0.726],
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
