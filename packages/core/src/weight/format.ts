// Which formats a photo is served in, and with which encoder settings.
import type { EncoderSettings, OutputFormat, Policy } from '../contract/index.ts';
import type { Treatment } from './kind.ts';
import { quickRecipe } from './recipes.ts';

/** Formats that not every browser reads. */
export const MODERN = ['avif', 'webp'] as const;

/** The modern format first, then the one that every browser reads; for a drawing there is but one. */
export function formatsFor(
  treatment: Pick<Treatment, 'kind' | 'lossless'>,
  policy: Pick<Policy, 'modern'>,
): readonly OutputFormat[] {
  if (treatment.kind === 'drawing') return ['svg'];
  if (treatment.kind === 'animation') return ['webp', 'gif'];
  // Lossless WebP holds flat areas in fewer bytes than lossless AVIF.
  if (treatment.lossless) return ['webp', 'png'];
  const { modern } = policy;
  const plain = treatment.kind === 'transparent-graphic' ? 'png' : 'jpeg';
  return modern === 'avif' || modern === 'webp' ? [modern, plain] : [...MODERN, plain];
}

/**
 * Encoder settings for a variant. The one place where it is decided how a quality comes about: searched for a
 * visible target (largest D), or lossless. Animations have a fixed quality: their frames are not compared yet.
 * @param seen how it is looked at, and of how many pixels it is: large ones may get another recipe
 */
export function settingsFor(
  format: OutputFormat,
  { kind, lossless }: Pick<Treatment, 'kind' | 'lossless'>,
  seen: { target: number; density: number; pixels: number; pinned?: number | undefined },
  { progressive = true }: Pick<Policy, 'progressive'> = {},
): EncoderSettings {
  const searched =
    seen.pinned === undefined
      ? { target: seen.target, density: seen.density }
      : // Its visible difference is still measured, at the density it is looked at.
        { quality: seen.pinned, density: seen.density };
  switch (format) {
    case 'avif':
      return { ...searched, ...quickRecipe(format, seen.pixels) };
    case 'webp':
      if (kind === 'animation') return { quality: 78, effort: 4 };
      return lossless ? { lossless: true, effort: 4 } : { ...searched, ...quickRecipe(format, seen.pixels) };
    case 'jpeg':
      return { ...searched, ...quickRecipe(format, seen.pixels), progressive };
    case 'png':
      // Beside a photograph's modern format an exact PNG would have a megabyte: a palette of its colours has a third.
      return lossless ? { lossless: true, effort: 7, palette: true } : { effort: 7, palette: true };
    case 'gif':
      return { effort: 4 };
    case 'svg':
      return { lossless: true };
  }
}

export const MIME: Record<OutputFormat, string> = {
  avif: 'image/avif',
  webp: 'image/webp',
  jpeg: 'image/jpeg',
  png: 'image/png',
  gif: 'image/gif',
  svg: 'image/svg+xml',
};

/** As editors read them. */
export const FORMAT_NAMES: Record<OutputFormat, string> = {
  avif: 'AVIF',
  webp: 'WebP',
  jpeg: 'JPEG',
  png: 'PNG',
  gif: 'GIF',
  svg: 'SVG',
};

export const EXTENSION: Record<OutputFormat, string> = {
  avif: 'avif',
  webp: 'webp',
  jpeg: 'jpg',
  png: 'png',
  gif: 'gif',
  svg: 'svg',
};
