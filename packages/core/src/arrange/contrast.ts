// Words over a picture: the contrast with the very pixels behind them, and how much of these must be covered.
import { LINEAR } from '../difference/linear.ts';
import type { Pixels } from '../difference/opponent.ts';

/** Contrast that texts must have (WCAG 2.2, 1.4.3); large ones need 3, which is not counted on. */
export const LEAST_CONTRAST = 4.5;
/** As much of a picture is covered at most. */
export const MOST_SCRIM = 0.9;
/** So many of the pixels may lie below: single ones under a text don't make it unreadable. */
const SPARED = 0.01;

type Colour = readonly [number, number, number];

/** Colour of the words, and of what covers the picture behind them: 0 to 255. */
export const INKS: Record<'light' | 'dark', { ink: Colour; cover: Colour }> = {
  light: { ink: [255, 255, 255], cover: [0, 0, 0] },
  dark: { ink: [0, 0, 0], cover: [255, 255, 255] },
};

/** Of a colour as a screen shows it: in whole codes. */
const luminance = (r: number, g: number, b: number): number =>
  0.2126 * LINEAR[Math.round(r)]! + 0.7152 * LINEAR[Math.round(g)]! + 0.0722 * LINEAR[Math.round(b)]!;

const contrast = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/**
 * The contrast that words have with nearly all of the pixels behind them, 1 to 21.
 * @param pixels sRGB codes behind the words
 * @param scrim how much of them is covered, 0 to 1; browsers mix codes, not light (CSS Compositing 1)
 */
export function contrastOver({ data, channels }: Pixels, tone: 'light' | 'dark', scrim: number): number {
  const { ink, cover } = INKS[tone];
  const own = luminance(...ink);
  const all = new Float64Array(Math.floor(data.length / channels));
  const mixed = (code: number, n: 0 | 1 | 2) => code + (cover[n] - code) * scrim;
  for (let n = 0, at = 0; n < all.length; n++, at += channels) {
    const [r, g, b] =
      channels < 3 ? [data[at]!, data[at]!, data[at]!] : [data[at]!, data[at + 1]!, data[at + 2]!];
    all[n] = contrast(own, luminance(mixed(r, 0), mixed(g, 1), mixed(b, 2)));
  }
  return all.length === 0 ? 21 : all.sort()[Math.floor(all.length * SPARED)]!;
}

/** The least cover, in hundredths, that lets words be read over all of these; null where even the most is too little. */
export function scrimFor(
  pieces: readonly Pixels[],
  tone: 'light' | 'dark',
  least = LEAST_CONTRAST,
): number | null {
  const reaches = (hundredths: number) =>
    pieces.every((pixels) => contrastOver(pixels, tone, hundredths / 100) >= least);
  let [low, high] = [0, Math.round(MOST_SCRIM * 100)];
  if (!reaches(high)) return null;
  // More cover never lowers the contrast.
  while (low < high) {
    const middle = (low + high) >> 1;
    if (reaches(middle)) high = middle;
    else low = middle + 1;
  }
  return low / 100;
}

/** How much of what lies behind the signs of a hero's buttons is covered; as in the runtime's set.css and rotating.css. */
const BUTTON_COVER = 0.72;

/** The least contrast that the signs of a hero's buttons have, whatever picture lies behind them; 3 is needed (WCAG 2.2, 1.4.11). */
export const buttonContrast = (signs: 'light' | 'dark'): number =>
  Math.min(
    ...[0, 255].map((code) =>
      contrastOver(
        { data: Uint8Array.of(code, code, code), width: 1, height: 1, channels: 3 },
        signs,
        BUTTON_COVER,
      ),
    ),
  );
