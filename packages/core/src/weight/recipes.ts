// What encoders are told beside a quality, format by format: the points on the frontier of bytes against time that each
// pass can afford (npm run bench -- frontier, docs/methods/quality-search.md).
import type { Recipe } from '../contract/index.ts';
import type { Curve, LossyFormat } from './curves.ts';

/** The same for what tells an encoder the same, whatever else is known of it. */
export const recipeKey = (recipe: Recipe): string =>
  JSON.stringify([
    recipe.fullChroma,
    ...[recipe.table ?? 0, recipe.trellis ?? false, recipe.scans ?? false],
    ...[recipe.effort ?? null, recipe.bitDepth ?? 8],
    ...[recipe.photo ?? false, recipe.sharpChroma ?? false, recipe.deblock ?? false],
  ]);

/** A table that keeps more of what is coarse and less of what is fine than the standard's. */
const JPEG = { table: 2 } as const;

/** What the quick pass uses: what an editor waits for. */
export const QUICK: Record<Curve, Recipe> = {
  jpeg: { fullChroma: false, ...JPEG },
  jpegFull: { fullChroma: true, ...JPEG },
  webp: { fullChroma: true, effort: 6 },
  avif: { fullChroma: true, effort: 3, bitDepth: 10 },
};

/** WebP: pixels from which the long search costs who looks on more than half a second. The thorough pass takes it. */
const LARGE_WEBP = 1_000_000;

/** The quick pass's for a file of so many pixels. */
export const quickRecipe = (curve: Curve, pixels: number): Recipe =>
  curve === 'webp' && pixels > LARGE_WEBP ? { ...QUICK.webp, effort: 4 } : QUICK[curve];

/** What the quick pass used in the pipeline's version before: its files stand in until they are made anew. */
export const FORMER: Record<LossyFormat, Partial<Recipe>> = {
  jpeg: {},
  webp: { effort: 4 },
  avif: { effort: 1 },
};

/** A recipe of the thorough pass with what is known of it. */
export interface Thorough {
  recipe: Recipe;
  curve: Curve;
  /** How much higher its quality is than the quick recipe's of the same curve for the same difference. */
  shift: number;
}

/** JPEG: takes three times as long. */
const SLOW = { trellis: true, scans: true } as const;

/** AVIF: efforts of the thorough pass, each up to so many pixels: an encode takes some seconds. Larger ones keep the quick one. */
const EFFORTS = [
  { effort: 6, most: 300_000 },
  { effort: 4, most: 800_000 },
];

/** What the thorough pass tries, the most promising first: the others are then given up the sooner. */
export function thoroughRecipes(format: LossyFormat, pixels: number): readonly Thorough[] {
  switch (format) {
    case 'jpeg':
      return [
        { curve: 'jpeg', shift: 0, recipe: { ...QUICK.jpeg, ...SLOW } },
        { curve: 'jpeg', shift: 0, recipe: { ...QUICK.jpeg, ...SLOW, table: 4 } },
        { curve: 'jpegFull', shift: 0, recipe: { ...QUICK.jpegFull, ...SLOW } },
      ];
    case 'webp':
      return [
        { curve: 'webp', shift: 0, recipe: { ...QUICK.webp, sharpChroma: true } },
        { curve: 'webp', shift: 0, recipe: QUICK.webp },
      ];
    case 'avif': {
      const more = EFFORTS.find(({ most }) => pixels <= most);
      return more
        ? [{ curve: 'avif', shift: -1, recipe: { ...QUICK.avif, effort: more.effort } }]
        : [{ curve: 'avif', shift: 0, recipe: QUICK.avif }];
    }
  }
}
