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
  jpeg: [1.327, -0.331, 0.523, 0.188, 0.1, 0.021, -0.487, -0.66],
  jpegFull: [0.172, -0.11, 0.024, 0.262, 0.009, 0.041, -0.68, -0.342],
  webp: [1.17, -0.165, 0.392, 0.23, 0.079, 0.026, -0.45, -0.604],
  avif: [0.519, 0.034, -0.485, 0.704, 0.046, 0.051, -0.556, -0.717],
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
