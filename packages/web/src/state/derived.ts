// What follows from the rows: concerns, counts, the rows under a filter. Computed by the core, kept while rows stay.
import {
  concernsOf,
  matchesFilter,
  sameAltsOf,
  speakingNames,
  type Concern,
  type Filter,
  type PhotoRow,
  type SameAlts,
  type SlotId,
} from '@dusky-otter/core';
import { useMemo } from 'react';
import { useWork } from './store.ts';

const NO_SLOTS: readonly SlotId[] = [];
const kept = new WeakMap<PhotoRow, { slots: readonly SlotId[]; others: string; concerns: Concern[] }>();

/** Concerns of a row; the same array while neither the row, the set's slots nor photos with its words change. */
export function concernsFor(row: PhotoRow, slots: readonly SlotId[], same: SameAlts): Concern[] {
  const others = (same.get(row.id) ?? []).join('\n');
  const before = kept.get(row);
  if (before?.slots === slots && before.others === others) return before.concerns;
  const concerns = concernsOf(row, slots, same);
  kept.set(row, { slots, others, concerns });
  return concerns;
}

const keptSame = new WeakMap<readonly PhotoRow[], SameAlts>();

/** Which photos of the table share an alt text: found once for all cells. */
function sameAltsFor(rows: readonly PhotoRow[]): SameAlts {
  let same = keptSame.get(rows);
  if (!same) {
    same = sameAltsOf(rows);
    keptSame.set(rows, same);
  }
  return same;
}

export const useSameAlts = (): SameAlts => useWork((state) => sameAltsFor(state.rows));

const keptNames = new WeakMap<readonly PhotoRow[], Map<number, string>>();

/** Speaking part of the file names of the set's photos, those in the bin too. */
export const useNames = (): ReadonlyMap<number, string> =>
  useWork(({ rows, binned }) => {
    let names = keptNames.get(rows);
    if (!names) {
      names = speakingNames([...rows, ...binned]);
      keptNames.set(rows, names);
    }
    return names;
  });

export const useSetSlots = (): readonly SlotId[] => useWork((state) => state.set?.slots ?? NO_SLOTS);

/** Rows under the chosen filter, in order. */
export function useShownRows(): PhotoRow[] {
  const rows = useWork((state) => state.rows);
  const filter = useWork((state) => state.filter);
  const slots = useSetSlots();
  const same = useSameAlts();
  return useMemo(
    () => rows.filter((row) => matchesFilter(filter, concernsFor(row, slots, same))),
    [rows, filter, slots, same],
  );
}

/** How many rows stand under each filter. */
export function useCounts(): Record<Filter, number> {
  const rows = useWork((state) => state.rows);
  const slots = useSetSlots();
  const same = useSameAlts();
  return useMemo(() => {
    const count = (filter: Filter) =>
      rows.filter((row) => matchesFilter(filter, concernsFor(row, slots, same))).length;
    return {
      all: rows.length,
      words: count('words'),
      crop: count('crop'),
      budget: count('budget'),
      small: count('small'),
      ready: count('ready'),
    };
  }, [rows, slots, same]);
}
