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
  jpeg: [0.144, 0.024, -0.291, 0.753, 0.034, -0.623, -0.299],
  jpegFull: [0.099, -0.077, 0.075, 0.21, 0.045, -0.737, 0.035],
  webp: [0.153, 0.09, -0.241, 0.564, 0.032, -0.442, -0.602],
  avif: [-0.025, 0.02, -0.57, 0.721, 0.054, -0.559, -0.692],
};

/** Offset from the typical curve, in ln D, expected for a picture. */
export function predictedOffset(curve: Curve, { exposure, width, height, density }: Features): number {
  const dense = Math.log(density);
  const features = [1, ...exposure, Math.log((width * height) / 1e6), dense, dense * dense];
  return COEFFICIENTS[curve].reduce((sum, factor, i) => sum + factor * features[i]!, 0);
}
