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
  jpeg: [0.149, 0.016, -0.343, 0.844, 0.039, -0.562, -0.426],
  jpegFull: [0.121, -0.112, 0.055, 0.275, 0.044, -0.782, -0.02],
  webp: [0.204, 0.097, -0.308, 0.716, 0.028, -0.525, -0.514],
  avif: [0.017, 0.034, -0.495, 0.722, 0.054, -0.543, -0.72],
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
