// Pictures in their own shapes, broken into rows that all have the arrangement's width: the breaks are chosen over the
// whole of it, as lines of a paragraph are (after D. E. Knuth, M. F. Plass, “Breaking Paragraphs into Lines”, 1981).

export interface Lines {
  /** Width ÷ height of each picture, in order; more than 0. */
  ratios: readonly number[];
  /** Widths of the arrangement for which the same breaks are to do; CSS px, ascending. */
  widths: readonly number[];
  /** Height that rows are to have, CSS px. */
  height: number;
  /** Between pictures, CSS px. */
  gap: number;
}

/** Pictures in one row; more than this are never looked at together. */
const MOST_IN_ROW = 40;

const sumOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0);

/** How high a row is that fills the width. */
export const heightOf = (ratios: readonly number[], width: number, gap: number): number =>
  (width - gap * (ratios.length - 1)) / sumOf(ratios);

/** Whether a last row at the height that is wanted finds room at every width: then it is not blown up. */
export const isShort = (ratios: readonly number[], { widths, height, gap }: Omit<Lines, 'ratios'>): boolean =>
  sumOf(ratios) * height + gap * (ratios.length - 1) <= widths[0]! + 1e-9;

/**
 * What a row costs: the squared deviation of its height from the one that is wanted, in octaves, so that twice as high is
 * as bad as half as high; the mean over all widths.
 */
export function costOf(ratios: readonly number[], lines: Omit<Lines, 'ratios'>, last: boolean): number {
  if (last && isShort(ratios, lines)) return 0;
  const { widths, height, gap } = lines;
  const costs = widths.map((width) => {
    const here = heightOf(ratios, width, gap);
    // So many gaps that nothing is left of the pictures.
    return here <= 0 ? Infinity : Math.log2(here / height) ** 2;
  });
  return sumOf(costs) / costs.length;
}

/**
 * How many pictures each row gets, so that the sum of what rows cost is smallest. Of equal ones the one whose first rows
 * are shorter.
 */
export function brokenLines(lines: Lines): number[] {
  const { ratios } = lines;
  const n = ratios.length;
  // From each picture on: what the best rows cost, and how many stand in the first of them.
  const best: { cost: number; count: number }[] = Array.from({ length: n + 1 }, () => ({
    cost: 0,
    count: 0,
  }));
  for (let from = n - 1; from >= 0; from--) {
    let found = { cost: Infinity, count: 1 };
    for (let count = 1; count <= Math.min(MOST_IN_ROW, n - from); count++) {
      const row = ratios.slice(from, from + count);
      const cost = costOf(row, lines, from + count === n) + best[from + count]!.cost;
      if (cost < found.cost - 1e-12) found = { cost, count };
    }
    best[from] = found;
  }
  const counts: number[] = [];
  for (let at = 0; at < n; at += best[at]!.count) counts.push(best[at]!.count);
  return counts;
}
