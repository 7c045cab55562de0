// Keys on a photo of a shelf: arrows go from photo to photo and from shelf to shelf, with Shift they carry what is picked.
import type { SlotId } from '@dusky-otter/core/contract';
import type { KeyboardEvent } from 'react';
import type { Carried } from './shelves.ts';

export interface ShelfActs {
  /** Places from the first shelf to the last. */
  boards: readonly SlotId[];
  /** Who stands in a place, in its order. */
  members: (slot: SlotId) => readonly number[];
  /** Photos that an act on one of them is about, in the order of their place. */
  together: (slot: SlotId, id: number) => readonly number[];
  go: (slot: SlotId, id: number) => void;
  carry: (carried: Carried) => Promise<void>;
  pick: (slot: SlotId, id: number) => void;
  pickAll: (slot: SlotId, id: number) => void;
  pickNone: () => void;
  open: (slot: SlotId, id: number) => void;
}

/** Sideways, a step along the shelf; its ends stay. */
function shifted(
  ids: readonly number[],
  moved: readonly number[],
  by: 1 | -1,
): { before: number | null } | null {
  const [first, last] = [ids.indexOf(moved[0]!), ids.indexOf(moved.at(-1)!)];
  if (by < 0) return first <= 0 ? null : { before: ids[first - 1]! };
  return last === ids.length - 1 ? null : { before: ids[last + 2] ?? null };
}

/** @returns whether the key meant something here */
export function pressOn(slot: SlotId, id: number, event: KeyboardEvent, acts: ShelfActs): boolean {
  const { boards, members, go, carry } = acts;
  const ids = members(slot);
  const at = ids.indexOf(id);
  const { key, shiftKey, ctrlKey, metaKey, altKey } = event;
  const control = ctrlKey || metaKey;
  if (altKey) return false;
  if (control) {
    if (key === 'a') acts.pickAll(slot, id);
    return key === 'a';
  }
  const moved = acts.together(slot, id);
  const along = (by: 1 | -1) => {
    const next = ids[at + by];
    if (!shiftKey) return next !== undefined && go(slot, next);
    const way = shifted(ids, moved, by);
    if (way) void carry({ from: slot, to: slot, ids: moved, ...way }).then(() => go(slot, id));
  };
  const across = (by: 1 | -1) => {
    const to = boards[boards.indexOf(slot) + by];
    if (to === undefined) return;
    if (shiftKey) return void carry({ from: slot, to, ids: moved, before: null }).then(() => go(to, id));
    const there = members(to);
    const next = there[Math.min(at, there.length - 1)];
    if (next !== undefined) go(to, next);
  };
  const out = () => {
    const stays = (one: number) => !moved.includes(one);
    const next = ids.slice(at + 1).find(stays) ?? ids.slice(0, at).findLast(stays);
    acts.pickNone();
    void carry({ from: slot, to: null, ids: moved, before: null }).then(
      () => next !== undefined && go(slot, next),
    );
  };
  const keys: Partial<Record<string, () => unknown>> = {
    ArrowLeft: () => along(-1),
    ArrowRight: () => along(1),
    ArrowUp: () => across(-1),
    ArrowDown: () => across(1),
    Home: () => go(slot, ids[0]!),
    End: () => go(slot, ids.at(-1)!),
    ' ': () => acts.pick(slot, id),
    Enter: () => acts.open(slot, id),
    Delete: out,
    Escape: acts.pickNone,
  };
  const act = keys[key];
  act?.();
  return act !== undefined;
}
