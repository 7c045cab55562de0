// For tests: arrangements of sample photos, and their markup.
import { slotsOfArrangement } from '../arrange/cells.ts';
import type { Arrangement, ArrangementOptions, Photo, PhotoRow, PlanContext } from '../contract/index.ts';
import { arrangedMarkup, type ArrangedOptions } from '../markup/arranged/arranged.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { CONTEXT, sampleRow } from './sample.ts';

export const arrangementOf = (options: ArrangementOptions): Arrangement => ({
  shortName: 'pots',
  title: 'Pots & jugs',
  options,
  container: [{ from: 0, vw: 1, px: -32 }],
});

export const WORDS = { ...NO_WORDS, role: 'informative' as const, alt: 'A jug', title: 'Jug' };

export function rowsFor(
  arrangement: Arrangement,
  changes: Partial<Photo>[],
  bytes: number | null = 900,
): PhotoRow[] {
  const { cell, large } = slotsOfArrangement(arrangement);
  const context: PlanContext = { ...CONTEXT, slots: [cell, ...(large ? [large] : [])] };
  return changes.map((change, n) =>
    sampleRow(
      ['pots'],
      { id: n + 1, words: WORDS, ...change },
      { width: 2400, height: 1600 },
      bytes,
      context,
    ),
  );
}

export const markupOf = (
  options: ArrangementOptions,
  changes: Partial<Photo>[] = [{}, {}],
  more: Partial<ArrangedOptions> = {},
) => {
  const arrangement = arrangementOf(options);
  return arrangedMarkup({
    arrangement,
    rows: rowsFor(arrangement, changes),
    urlOf: (_, { slot, width, format }) => `${slot}-${width}.${format}`,
    first: false,
    ...more,
  });
};
