// What is picked at the Arrange stop, and the acts on it. A selection is of one place, or of the photos beside the places.
import type { SlotId } from '@dusky-otter/core/contract';
import { useCallback, useEffect, useRef, useState, type MouseEvent } from 'react';
import type { SetOnSite } from '../editing/placing.ts';
import { clearSelection, select } from '../editing/selection.ts';
import { notifyFailure, useScreen } from '../screen/screen.ts';
import { some } from '../ui/some.ts';
import { carry } from './carry.ts';
import type { Carried } from './shelves.ts';

/** Where a selection was made: a place, one of the trays by its filter and a slash, or nowhere yet. */
export type From = string | null;

/** The place that a selection is of; null where it is of the set. */
export const placeOf = (from: From): SlotId | null => (from === null || from.endsWith('/') ? null : from);

type Modifiers = Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>;

export function usePicking(where: SetOnSite) {
  // What was picked to be placed is not what the next stop acts on.
  useEffect(() => clearSelection, []);
  const [from, setFrom] = useState<From>(null);
  /** For who hears the screen: what was done last. */
  const [said, setSaid] = useState('');
  const known = useRef(new Map<SlotId, readonly number[]>());
  const know = useCallback((slot: SlotId, ids: readonly number[]) => void known.current.set(slot, ids), []);
  const members = useCallback((slot: SlotId) => known.current.get(slot) ?? [], []);
  const nameOf = (slot: SlotId | null): string =>
    where.site.slots.find(({ id }) => id === slot)?.name ?? 'the set';
  return {
    from,
    said,
    know,
    members,
    nameOf,
    /** The cursor comes to a photo of a place. */
    come: (place: From, id: number): void => {
      useScreen.setState({ cursor: id, anchor: id });
      setFrom(place);
    },
    /** Selects as everywhere, but begins anew in another place. */
    pick: (
      place: From,
      id: number,
      shown: readonly number[],
      { shiftKey, ctrlKey, metaKey }: Modifiers,
    ): void => {
      const isSame = from === place;
      select(id, shown, { shift: isSame && shiftKey, toggle: isSame && (ctrlKey || metaKey) });
      setFrom(place);
    },
    pickAll: (place: SlotId, id: number): void => {
      useScreen.setState({ selected: new Set(members(place)), cursor: id, anchor: id });
      setFrom(place);
    },
    /** Photos that an act on one of them is about: those that are picked with it, in the order of their place. */
    together: (place: From, id: number): number[] => {
      const { selected } = useScreen.getState();
      if (from !== place || !selected.has(id)) return [id];
      const slot = placeOf(place);
      return slot === null ? [...selected] : members(slot).filter((one) => selected.has(one));
    },
    /** Carries it out and says it; what keeps it from being done is said, too. */
    carry: async (carried: Carried): Promise<void> => {
      try {
        await carry(where, carried, (slot) => known.current.get(slot));
      } catch (error) {
        return notifyFailure(error);
      }
      const { ids, to } = carried;
      const photos = some(ids.length, 'photo', 'photos');
      setSaid(
        to === null ? `${photos} taken out of ${nameOf(carried.from)}` : `${photos}, now in ${nameOf(to)}`,
      );
      if (to !== null && carried.from !== null) setFrom(to);
    },
  };
}

export type Picking = ReturnType<typeof usePicking>;
