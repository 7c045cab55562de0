// Which formats a photo is served in, and with which encoder settings.
import type { EncoderSettings, OriginalFacts, OutputFormat, Policy } from '../contract/index.ts';

/** The modern format first, then the one that every browser reads. */
export function formatsFor(
  facts: Pick<OriginalFacts, 'frames' | 'transparent'>,
  policy: Policy,
): [OutputFormat, OutputFormat] {
  if (facts.frames > 1) return ['webp', 'gif'];
  if (facts.transparent) return [policy.modern, 'png'];
  return [policy.modern, 'jpeg'];
}

/**
 * Encoder settings for a variant. The one place where a quality is decided: a fixed number a format.
 * Effort 1 for AVIF: measured at 1.4 MP, effort 2 takes twice as long for 2.5 % fewer bytes (docs/decisions.md).
 */
export function settingsFor(format: OutputFormat): EncoderSettings {
  switch (format) {
    case 'avif':
      return { quality: 55, effort: 1 };
    case 'webp':
      return { quality: 78, effort: 4 };
    case 'jpeg':
      return { quality: 80, progressive: true };
    case 'png':
      return { lossless: true, effort: 7 };
    case 'gif':
      return { effort: 4 };
  }
}

export const MIME: Record<OutputFormat, string> = {
  avif: 'image/avif',
  webp: 'image/webp',
  jpeg: 'image/jpeg',
  png: 'image/png',
  gif: 'image/gif',
};

export const EXTENSION: Record<OutputFormat, string> = {
  avif: 'avif',
  webp: 'webp',
  jpeg: 'jpg',
  png: 'png',
  gif: 'gif',
};
