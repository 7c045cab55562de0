// What follows from the rows: concerns, counts, the rows under a filter. Computed by the core, kept while rows stay.
import {
  concernsOf,
  matchesFilter,
  type Concern,
  type Filter,
  type PhotoRow,
  type SlotId,
} from '@dusky-otter/core';
import { useMemo } from 'react';
import { useWork } from './store.ts';

const NO_SLOTS: readonly SlotId[] = [];
const kept = new WeakMap<PhotoRow, { slots: readonly SlotId[]; concerns: Concern[] }>();

/** Concerns of a row; the same array while neither the row nor the set's slots change. */
export function concernsFor(row: PhotoRow, slots: readonly SlotId[]): Concern[] {
  const before = kept.get(row);
  if (before?.slots === slots) return before.concerns;
  const concerns = concernsOf(row, slots);
  kept.set(row, { slots, concerns });
  return concerns;
}

export const useSetSlots = (): readonly SlotId[] => useWork((state) => state.set?.slots ?? NO_SLOTS);

/** Rows under the chosen filter, in order. */
export function useShownRows(): PhotoRow[] {
  const rows = useWork((state) => state.rows);
  const filter = useWork((state) => state.filter);
  const slots = useSetSlots();
  return useMemo(
    () => rows.filter((row) => matchesFilter(filter, concernsFor(row, slots))),
    [rows, filter, slots],
  );
}

/** How many rows stand under each filter. */
export function useCounts(): Record<Filter, number> {
  const rows = useWork((state) => state.rows);
  const slots = useSetSlots();
  return useMemo(() => {
    const count = (filter: Filter) =>
      rows.filter((row) => matchesFilter(filter, concernsFor(row, slots))).length;
    return {
      all: rows.length,
      words: count('words'),
      crop: count('crop'),
      budget: count('budget'),
      small: count('small'),
      ready: count('ready'),
    };
  }, [rows, slots]);
}
