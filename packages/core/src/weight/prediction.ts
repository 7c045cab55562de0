// Where a quality search begins: how far a picture lies above or below the typical curve, told before encoding.
import type { EncoderSettings, OutputFormat } from '../contract/index.ts';
import { isLossy, offsetOf, type LossyFormat } from './search.ts';

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

/** Offset from the typical curve, in ln D, expected for a picture. */
export function predictedOffset(
  format: LossyFormat,
  { exposure, width, height, density }: Features,
  near?: { quality: number; difference: number },
): number {
  return near ? offsetOf('jpeg', near) : 0 * (exposure[0] + width + height + density + format.length);
}

interface Sized {
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
}

/** The JPEG of the same size, density and target, which another format's search begins from. */
export function jpegBeside<T extends Sized>(
  { width, height, format, settings }: Sized,
  all: readonly T[],
): T | undefined {
  if (format === 'jpeg' || !isLossy(format) || settings.target === undefined) return undefined;
  return all.find(
    (other) =>
      other.format === 'jpeg' &&
      other.width === width &&
      other.height === height &&
      other.settings.density === settings.density &&
      other.settings.target === settings.target,
  );
}
