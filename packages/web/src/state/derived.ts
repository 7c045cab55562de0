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
import { useWork, type WorkState } from './store.ts';

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

/** A selector whose result is found once for all cells and kept as long as the table's rows stay the same. */
function keptByRows<T extends object>(find: (state: WorkState) => T): (state: WorkState) => T {
  const kept = new WeakMap<readonly PhotoRow[], T>();
  return (state) => {
    const value = kept.get(state.rows) ?? find(state);
    kept.set(state.rows, value);
    return value;
  };
}

const sameAltsIn = keptByRows(({ rows }): SameAlts => sameAltsOf(rows));

let named: { of: readonly unknown[]; names: ReadonlyMap<number, string> } | null = null;

/** Names hang on all photos of the set and on what went out: found once for all cells. */
function namesIn({ rows, binned, set }: WorkState): ReadonlyMap<number, string> {
  const of = [rows, binned, set?.published];
  if (!named?.of.every((value, i) => value === of[i])) {
    named = { of, names: speakingNames([...rows, ...binned], set?.published) };
  }
  return named.names;
}

/** Which photos of the table share an alt text. */
export const useSameAlts = (): SameAlts => useWork(sameAltsIn);

/** Speaking part of the file names of the set's photos, those in the bin too. */
export const useNames = (): ReadonlyMap<number, string> => useWork(namesIn);

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
