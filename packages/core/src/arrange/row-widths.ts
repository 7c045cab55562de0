// Justified rows at every width: in each band of widths the same breaks, and within it widths that follow the container.
import type { WidthPiece } from '../contract/index.ts';
import { brokenLines, isShort } from './justify.ts';

/** Where bands of container widths begin, CSS px: in each of them a row's height differs by no more than a third. */
export const ROW_BANDS = [0, 360, 480, 640, 860, 1140, 1520] as const;

/** What a band without an end is looked at up to, and one without a beginning from. */
const [NARROWEST, WIDEST] = [280, 2026];
const SAMPLES = 5;

export interface RowsIn {
  /** Container width from which it holds, CSS px. */
  from: number;
  /** Pictures a row. */
  counts: number[];
}

const widthsIn = (n: number): number[] => {
  const [from, to] = [Math.max(NARROWEST, ROW_BANDS[n]!), ROW_BANDS[n + 1] ?? WIDEST];
  return Array.from({ length: SAMPLES }, (_, k) => from + ((to - from) * k) / (SAMPLES - 1));
};

/** The rows of each band. */
export const rowsByBand = (ratios: readonly number[], height: number, gap: number): RowsIn[] =>
  ROW_BANDS.map((from, n) => ({ from, counts: brokenLines({ ratios, widths: widthsIn(n), height, gap }) }));

/**
 * The width of each picture as a rule over the container's width: its part of the row, or in a last row that is not
 * filled what its ratio makes of the height.
 */
export function justifiedWidths(ratios: readonly number[], height: number, gap: number): WidthPiece[][] {
  const rules: WidthPiece[][] = ratios.map(() => []);
  rowsByBand(ratios, height, gap).forEach(({ from, counts }, band) => {
    let at = 0;
    counts.forEach((count, row) => {
      const own = ratios.slice(at, at + count);
      const all = own.reduce((sum, ratio) => sum + ratio, 0);
      const short = row === counts.length - 1 && isShort(own, { widths: widthsIn(band), height, gap });
      own.forEach((ratio, n) => {
        const part = ratio / all;
        rules[at + n]!.push(
          short ? { from, vw: 0, px: ratio * height } : { from, vw: part, px: -part * gap * (count - 1) },
        );
      });
      at += count;
    });
  });
  return rules;
}
