import type { Browser, Page } from '@playwright/test';
export interface Served {
  address: string;
  /** Everything that was asked for. */
  asked: string[];
  close: () => void;
}
/** A folder over HTTP, as a plain web server gives it: without a charset, so that pages say their own. */
export declare function serve(folder: string): Promise<Served>;
export interface Figure {
  number: number;
  window: number;
  box: number;
}
/** Measures a page of the site that lies open, and reads the figures that can be saved. */
export declare function measuredFigures(page: Page, path: string): Promise<Figure[]>;
/** Widths of a page's pictures in a browser that has it as it is, by window and number; without scripts. */
export declare function plainWidths(
  browser: Browser,
  address: string,
  windows: readonly number[],
): Promise<Map<number, number[]>>;
/** Largest difference between the figures and a plain load, in CSS px, over all pictures and windows. */
export declare function worstError(
  figures: readonly Figure[],
  plain: ReadonlyMap<number, readonly number[]>,
): number;
