// How far the words of a set, or of all sets of a site, have come.
import type { WordCounts } from '@dusky-otter/core/contract';

const PARTS: [keyof WordCounts, string][] = [
  ['described', 'described'],
  ['decorative', 'decorative'],
  ['kept', 'kept on purpose'],
  ['open', 'open'],
];

/** The counts in words: those that are none are left out. */
export const wordsSaid = (counts: WordCounts): string =>
  PARTS.filter(([part]) => counts[part] > 0)
    .map(([part, name]) => `${counts[part]} ${name}`)
    .join(', ');

export const sumOf = (all: readonly WordCounts[]): WordCounts =>
  all.reduce(
    (sum, one) => ({
      described: sum.described + one.described,
      decorative: sum.decorative + one.decorative,
      kept: sum.kept + one.kept,
      open: sum.open + one.open,
    }),
    { described: 0, decorative: 0, kept: 0, open: 0 },
  );
