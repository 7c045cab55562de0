// The fixed qualities that searched quality is compared with.
import { isLossy, type EncoderSettings, type LossyFormat, type OutputFormat } from '@dusky-otter/core';

export const FIXED: Record<LossyFormat, number> = { jpeg: 80, webp: 80, avif: 60 };

/** The same settings, with a fixed quality where one is searched for. */
export function atFixedQuality(
  format: OutputFormat,
  { target, density, ...rest }: EncoderSettings,
): EncoderSettings {
  return target !== undefined && density !== undefined && isLossy(format)
    ? { ...rest, quality: FIXED[format] }
    : rest;
}
