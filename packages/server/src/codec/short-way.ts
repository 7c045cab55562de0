// The encoders' short way: for tests and trials, where a file's being there matters and its last bytes don't.
import type { BitmapFormat, EncoderSettings } from '@dusky-otter/core/contract';

/** Of a process that was started with SHORT_ENCODING=1. */
const SHORT = process.env.SHORT_ENCODING === '1';

/** WebP takes a fifth of its time and a tenth more bytes, AVIF a ninth and an eighth more. */
const EFFORT: Partial<Record<BitmapFormat, number>> = { webp: 2, avif: 0 };

/** Settings with no more effort than the short way takes; what is made thoroughly is made so here, too. */
export function shortened<T extends EncoderSettings>(format: BitmapFormat, settings: T, short = SHORT): T {
  const most = EFFORT[format];
  const { effort, lossless, thorough } = settings;
  if (!short || thorough || lossless || most === undefined || effort === undefined) return settings;
  return { ...settings, effort: Math.min(effort, most) };
}
