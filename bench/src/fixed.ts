// The fixed qualities that searched quality is compared with.
import { isLossy, ONE_QUALITY, type EncoderSettings, type OutputFormat } from '@dusky-otter/core';

export const FIXED = ONE_QUALITY;

/** The same settings, with a fixed quality where one is searched for. */
export function atFixedQuality(
  format: OutputFormat,
  { target, density, ...rest }: EncoderSettings,
): EncoderSettings {
  return target !== undefined && density !== undefined && isLossy(format)
    ? { ...rest, quality: FIXED[format] }
    : rest;
}
