// What was measured of a page's pictures: one row of sizes a picture, by window width.

/** A picture at one window width. All in CSS px, as they are laid out. */
export interface PictureSample {
  /** Width of the window. */
  viewport: number;
  /** The picture itself, without its padding and border. */
  width: number;
  height: number;
  /** Its border box, as `getBoundingClientRect` gives it. */
  box: number;
  /** Left and upper edge of the border box on the page. */
  x: number;
  y: number;
}

export type ObjectFit = 'fill' | 'cover' | 'contain' | 'none' | 'scale-down';

export interface MeasuredPicture {
  /** File name, or what the page calls it. */
  name: string;
  /** A drawing (SVG) has no pixels. */
  drawing: boolean;
  /** The page names a file that is not there. */
  missing: boolean;
  /** Width ÷ height of the file; null where it is not known. */
  natural: number | null;
  /** How the file fills its box. */
  fit: ObjectFit;
  /** Text runs round it. */
  floats: boolean;
  /** Windows where it is shown, ascending. */
  samples: readonly PictureSample[];
}

export interface MeasuredPage {
  /** Name of the page's file. */
  page: string;
  /** Window widths that were looked at, ascending. */
  windows: readonly number[];
  pictures: readonly MeasuredPicture[];
}

export const SWEPT = { from: 320, to: 2560 } as const;

/** Windows that a sweep begins with: 23, evenly. Where widths turn out to bend, more are looked at between them. */
export const FIRST_WINDOWS: readonly number[] = Array.from(
  { length: 23 },
  (_, n) => SWEPT.from + Math.round((n * (SWEPT.to - SWEPT.from)) / 22),
);

/** How far a width may lie off the line between its neighbours before more windows are looked at. CSS px. */
const STRAIGHT = 0.4;

/** Widths of all pictures in one window, in the order of the page; 0 where one is not shown. */
export type Widths = readonly number[];

/** Largest distance of a window's widths and heights from the line between two others, in CSS px. */
function bendOf(a: Widths, b: Widths, between: Widths, part: number): number {
  const straight = (n: number) => a[n]! + (b[n]! - a[n]!) * part;
  return between.reduce((most, width, n) => {
    const shown = [a[n]! > 0, b[n]! > 0, width > 0];
    // Where one comes or goes there is a break as well.
    if (new Set(shown).size > 1) return Infinity;
    return Math.max(most, Math.abs(width - straight(n)));
  }, 0);
}

/** Windows that one sweep may look at: pages with rules for every pixel are measured as well as that allows. */
export const MOST_WINDOWS = 400;

/**
 * Looks at a page in as many windows as it takes to know its widths everywhere: between two windows whose middle lies
 * on their line nothing more is looked at, others are parted until the break is known to the pixel.
 * @param look widths (and heights) of all pictures in a window
 * @param begin windows to begin with, beside the usual ones: such as a stylesheet's breakpoints
 * @returns the windows that were looked at, ascending
 */
export async function sweep(
  look: (window: number) => Promise<Widths>,
  begin: readonly number[] = [],
  most = MOST_WINDOWS,
): Promise<number[]> {
  const seen = new Map<number, Widths>();
  const at = async (window: number): Promise<Widths> => {
    const known = seen.get(window) ?? (await look(window));
    seen.set(window, known);
    return known;
  };
  const inside = (window: number) => Number.isInteger(window) && window >= SWEPT.from && window <= SWEPT.to;
  const first = [...new Set([...FIRST_WINDOWS, ...begin.filter(inside)])]
    .sort((a, b) => a - b)
    .slice(0, most);
  for (const window of first) await at(window);
  // The widest gaps first: where windows run out, what is left unknown is small.
  const gaps = first.slice(1).map((to, n) => ({ from: first[n]!, to }));
  while (gaps.length > 0 && seen.size < most) {
    gaps.sort((a, b) => a.to - a.from - (b.to - b.from));
    const { from, to } = gaps.pop()!;
    if (to - from < 2) continue;
    const middle = Math.floor((from + to) / 2);
    const bend = bendOf(await at(from), await at(to), await at(middle), (middle - from) / (to - from));
    if (bend > STRAIGHT) gaps.push({ from, to: middle }, { from: middle, to });
  }
  return [...seen.keys()].sort((a, b) => a - b);
}
