// Selecting rows: a click selects one, Ctrl adds or takes away, Shift reaches from the anchor. Nothing here opens.
import { useWork } from './store.ts';

const { getState: get, setState: put } = useWork;

export interface Modifiers {
  shift: boolean;
  toggle: boolean;
}

/** Selects as everywhere; `shown` are the ids on the table in their order. */
export function select(id: number, shown: readonly number[], { shift, toggle }: Modifiers): void {
  const { anchor, selected } = get();
  if (shift) {
    // An anchor that a filter hides is none: the range then begins here.
    const start = anchor !== null && shown.includes(anchor) ? anchor : id;
    const from = shown.indexOf(start);
    const to = shown.indexOf(id);
    const range = shown.slice(Math.min(from, to), Math.max(from, to) + 1);
    put({ selected: new Set(toggle ? [...selected, ...range] : range), cursor: id, anchor: start });
  } else if (toggle) {
    const next = new Set(selected);
    if (!next.delete(id)) next.add(id);
    put({ selected: next, cursor: id, anchor: id });
  } else {
    put({ selected: new Set([id]), cursor: id, anchor: id });
  }
}

/** Moves the cursor by some rows; with Shift the selection follows. @returns the row's id, or null. */
export function moveCursor(by: number, shown: readonly number[], extend: boolean): number | null {
  if (shown.length === 0) return null;
  const { cursor } = get();
  const at = cursor === null ? (by > 0 ? -1 : shown.length) : shown.indexOf(cursor);
  const next = shown[Math.min(shown.length - 1, Math.max(0, at + by))]!;
  if (extend) select(next, shown, { shift: true, toggle: false });
  else put({ cursor: next, anchor: next });
  return next;
}

export const selectAll = (shown: readonly number[]): void => put({ selected: new Set(shown) });
export const clearSelection = (): void => put({ selected: new Set() });
