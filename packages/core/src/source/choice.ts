// Which candidate of a `srcset` a browser loads (HTML standard, 4.8.4.3.8, and what Chromium does where the
// standard leaves the choice to the browser).
import { browserSizes } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { parseSrcset } from './srcset.ts';

/** What a page is shown on. */
export interface Screen {
  /** Viewport width in CSS px. */
  viewport: number;
  /** Device px per CSS px. */
  density: number;
  /** Viewport height in CSS px, for sizes that hang on it. */
  height?: number;
}

/** A candidate with the density it would have when shown: file px per CSS px. */
export interface DenseCandidate<T> {
  candidate: T;
  density: number;
}

/** Browsers compare densities as 32-bit floats; a tie in theirs must be a tie in ours. */
const float = Math.fround;

/** Ascending by density; of several with one density the first in the list stays (standard, step 3). */
export function ordered<T>(candidates: readonly DenseCandidate<T>[]): DenseCandidate<T>[] {
  const seen = new Set<number>();
  return candidates
    .map(({ candidate, density }) => ({ candidate, density: float(density) }))
    .filter(({ density }) => !seen.has(density) && seen.add(density))
    .sort((a, b) => a.density - b.density);
}

/**
 * The candidate that Chromium takes, and other browsers as well: the first whose density reaches the screen's, or the
 * densest when none does. The standard leaves the choice to the browser; that Chromium chooses so is held by a test
 * in the browser itself (e2e/sources.spec.ts).
 */
export function chromiumChoice<T>(candidates: readonly DenseCandidate<T>[], screen: number): T | null {
  const list = ordered(candidates);
  const wanted = float(screen);
  return (list.find(({ density }) => density >= wanted) ?? list.at(-1))?.candidate ?? null;
}

/**
 * The pixel width that Chromium takes from files of these widths.
 * @param display CSS px. @param density device px per CSS px.
 */
export function chosenWidth(widths: readonly number[], display: number, density: number): number | null {
  return chromiumChoice(
    widths.map((width) => ({ candidate: width, density: width / display })),
    density,
  );
}

/** The address that a browser loads from an `<img>` or `<source>`, or null when `srcset` holds nothing. */
export function chosenUrl(srcset: string, sizes: string | null, screen: Screen): string | null {
  const size = widthAt(browserSizes(sizes ?? '', screen.density, screen.height), screen.viewport);
  const { candidates } = parseSrcset(srcset);
  const dense = candidates.map(({ url, width, density }) => ({
    candidate: url,
    // A size of 0 makes every width infinitely dense: the standard lets it stand.
    density: width === null ? (density ?? 1) : width / size,
  }));
  return chromiumChoice(dense, screen.density);
}
