// What the encoders offer: settings that are set side by side at the same visible difference.
import type { Recipe } from '@dusky-otter/core/contract';
import type { Curve } from '@dusky-otter/core/weight';

export interface Setting {
  curve: Exclude<Curve, 'jpegFull'>;
  name: string;
  recipe: Recipe;
  /** Only on plain screens: an encode takes half a minute on larger files. */
  small?: true;
}

const jpeg = (name: string, more: Omit<Recipe, 'fullChroma'>): Setting => ({
  ...{ curve: 'jpeg', name },
  recipe: { fullChroma: false, ...more },
});
const webp = (name: string, more: Omit<Recipe, 'fullChroma'>): Setting => ({
  ...{ curve: 'webp', name },
  recipe: { fullChroma: true, ...more },
});
const avif = (bitDepth: 8 | 10, effort: number): Setting => ({
  ...{ curve: 'avif', name: `${bitDepth} bit, effort ${effort}` },
  recipe: { fullChroma: true, effort, bitDepth },
});
const slow = { trellis: true, scans: true };

/** The first of each format is what the others are measured against: the quick pass as it was. */
export const GRID: readonly Setting[] = [
  jpeg('table 0', {}),
  jpeg('table 2', { table: 2 }),
  jpeg('table 3', { table: 3 }),
  jpeg('table 4', { table: 4 }),
  jpeg('table 0, trellis', { trellis: true }),
  jpeg('table 3, trellis', { table: 3, trellis: true }),
  jpeg('table 2, trellis, scans', { table: 2, ...slow }),
  jpeg('table 3, trellis, scans', { table: 3, ...slow }),
  jpeg('table 4, trellis, scans', { table: 4, ...slow }),
  jpeg('table 8, trellis, scans', { table: 8, ...slow }),
  webp('effort 4', { effort: 4 }),
  webp('effort 4, photo', { effort: 4, photo: true }),
  webp('effort 4, deblocking', { effort: 4, deblock: true }),
  webp('effort 5', { effort: 5 }),
  webp('effort 5, photo', { effort: 5, photo: true }),
  webp('effort 6', { effort: 6 }),
  webp('effort 6, photo', { effort: 6, photo: true }),
  webp('effort 6, sharp colour', { effort: 6, sharpChroma: true }),
  webp('effort 6, deblocking', { effort: 6, deblock: true }),
  webp('effort 6, photo, sharp colour', { effort: 6, photo: true, sharpChroma: true }),
  avif(8, 1),
  avif(8, 2),
  avif(8, 3),
  avif(8, 4),
  { ...avif(8, 6), small: true },
  avif(10, 0),
  avif(10, 1),
  avif(10, 2),
  avif(10, 3),
  avif(10, 4),
  { ...avif(10, 6), small: true },
];
