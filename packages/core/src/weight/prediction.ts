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
  jpeg: [1.558, -0.285, 0.372, 0.405, 0.119, 0.028, -0.552, -0.398],
  jpegFull: [0.412, -0.213, 0.251, 0.162, 0.026, 0.037, -0.738, -0.03],
  webp: [1.061, -0.121, 0.191, 0.414, 0.073, 0.02, -0.48, -0.533],
  avif: [0.451, -0.08, -0.209, 0.516, 0.037, 0.048, -0.53, -0.717],
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
