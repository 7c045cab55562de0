// The fixed qualities that searched quality is compared with.
import type { EncoderSettings, OutputFormat } from '@dusky-otter/core/contract';
import { ONE_QUALITY } from '@dusky-otter/core/readiness';
import { isLossy } from '@dusky-otter/core/weight';

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
