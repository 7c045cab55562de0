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
  jpeg: [1.521, -0.313, 0.476, 0.366, 0.113, 0.028, -0.542, -0.386],
  jpegFull: [0.427, -0.213, 0.312, 0.13, 0.027, 0.045, -0.742, 0.016],
  webp: [1, -0.134, 0.273, 0.327, 0.068, 0.036, -0.454, -0.559],
  avif: [0.355, -0.076, -0.228, 0.543, 0.03, 0.057, -0.491, -0.776],
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
