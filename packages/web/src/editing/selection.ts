// Selecting rows: a click selects one, Ctrl adds or takes away, Shift reaches from the anchor. Nothing here opens.
// What is selected may lie beyond what is read: then the ids under the filter are asked for.
import { idsUnder } from '../server/state.ts';
import { notifyFailure, useScreen } from '../screen/screen.ts';

const { getState: get, setState: put } = useScreen;

export interface Modifiers {
  shift: boolean;
  toggle: boolean;
}

/** Ids between two photos of a list, both included; null where one of them is not in it. */
export function between(ids: readonly number[], from: number, to: number): number[] | null {
  const [a, b] = [ids.indexOf(from), ids.indexOf(to)];
  if (a < 0 || b < 0) return null;
  return ids.slice(Math.min(a, b), Math.max(a, b) + 1);
}

async function reach(id: number, shown: readonly number[], toggle: boolean): Promise<void> {
  const { anchor } = get();
  // An anchor that a filter hides is none: the range then begins here.
  const range =
    (anchor !== null &&
      (between(shown, anchor, id) ?? between((await idsUnder(get().filter)).ids, anchor, id))) ||
    null;
  const start = range ? anchor : id;
  put(({ selected }) => ({
    selected: new Set(toggle ? [...selected, ...(range ?? [id])] : (range ?? [id])),
    cursor: id,
    anchor: start,
  }));
}

/** Selects as everywhere; `shown` are ids of the table in their order, as far as they are read. */
export function select(id: number, shown: readonly number[], { shift, toggle }: Modifiers): void {
  if (shift) {
    reach(id, shown, toggle).catch(notifyFailure);
  } else if (toggle) {
    const next = new Set(get().selected);
    if (!next.delete(id)) next.add(id);
    put({ selected: next, cursor: id, anchor: id });
  } else {
    put({ selected: new Set([id]), cursor: id, anchor: id });
  }
}

/** Moves the cursor to a photo; with Shift the selection follows. */
export function moveCursor(to: number, shown: readonly number[], extend: boolean): void {
  if (extend) select(to, shown, { shift: true, toggle: false });
  else put({ cursor: to, anchor: to });
}

/** Everything under the filter, whether it is read or not. */
export function selectAll(): void {
  idsUnder(get().filter).then(({ ids }) => put({ selected: new Set(ids) }), notifyFailure);
}

export const clearSelection = (): void => put({ selected: new Set() });
