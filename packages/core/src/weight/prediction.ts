// Where a quality search begins: how far a picture lies above or below the typical curve, told before encoding.
import type { Curve } from './curves.ts';

/** What is cheaply known of a picture. */
export interface Features {
  /** `DifferenceReference.exposure`. */
  exposure: readonly [number, number, number];
  /** Pixels. */
  width: number;
  height: number;
  /** File px per CSS px. */
  density: number;
}

type Coefficients = readonly [number, number, number, number, number, number, number];

/**
 * Least squares over the calibration half (docs/methods/quality-search.md): constant, three exposures, ln of megapixels, ln of
 * the density and its square.
 */
const COEFFICIENTS: Record<Curve, Coefficients> = {
  jpeg: [0.089, 0.067, -0.644, 1.13, 0.028, -0.561, -0.459],
  jpegFull: [0.073, -0.035, -0.194, 0.501, 0.035, -0.767, -0.096],
  webp: [0.175, 0.089, -0.292, 0.64, 0.024, -0.526, -0.537],
  avif: [-0.015, 0.039, -0.632, 0.782, 0.051, -0.517, -0.787],
};

/** What the coefficients are for, in their order; the fit is made with the same. */
export function featureVector({ exposure, width, height, density }: Features): number[] {
  const dense = Math.log(density);
  return [1, ...exposure, Math.log((width * height) / 1e6), dense, dense * dense];
}

/** Offset from the typical curve, in ln D, expected for a picture. */
export function predictedOffset(curve: Curve, known: Features): number {
  const features = featureVector(known);
  return COEFFICIENTS[curve].reduce((sum, factor, i) => sum + factor * features[i]!, 0);
}
