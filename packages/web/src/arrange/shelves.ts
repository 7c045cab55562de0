// What stands where at the Arrange stop, as rows: the places of the page in its order, then what no page of this set shows.
import { movedBefore } from '@dusky-otter/core/arrange';
import type { PhotoSet, SetCounts, SetPage, Slot } from '@dusky-otter/core/contract';
import { placesOn } from '@dusky-otter/core/plan';
import { standable } from '@dusky-otter/core/slots';

/** A place as a row. */
export interface Shelf {
  kind: 'shelf';
  slot: Slot;
  /** The page shows it. */
  shown: boolean;
  /** Where it stands on the page among its parts; -1 where it does not. */
  part: number;
}

export type ShelfRow = Shelf | { kind: 'line'; id: string; text: string; hint: string };

const EMPTY = 'Nothing stands on it yet.';

/** @param page as it is, or as it follows from where photos stand */
export function shelfRows(
  set: Pick<PhotoSet, 'slots'>,
  site: { slots: readonly Slot[] },
  page: SetPage,
  counts: Pick<SetCounts, 'places'> | null,
): ShelfRow[] {
  const places = standable(site.slots);
  const onPage = page.parts.flatMap((part, n): Shelf[] => {
    const slot = part.kind === 'place' && places.find(({ id }) => id === part.slot);
    return slot ? [{ kind: 'shelf', slot, shown: true, part: n }] : [];
  });
  const shown = new Set(placesOn(page));
  const aside = places
    .filter(({ id }) => !shown.has(id) && (counts?.places[id] !== undefined || set.slots.includes(id)))
    .map((slot): Shelf => ({ kind: 'shelf', slot, shown: false, part: -1 }));
  return [
    {
      kind: 'line',
      id: 'page',
      text: `On the page “${page.title}”, in its order`,
      hint: onPage.length > 0 ? '' : EMPTY,
    },
    ...onPage,
    ...(aside.length > 0
      ? [
          {
            kind: 'line' as const,
            id: 'aside',
            text: 'Not on the page',
            hint: 'Photos stand here, and nobody sees them here: no files are made for it.',
          },
          ...aside,
        ]
      : []),
  ];
}

/** Photos that are moved: from a place, or from the set (null), to another or out of all (null). */
export interface Carried {
  from: string | null;
  to: string | null;
  ids: readonly number[];
  /** The photo that they go before; null: behind all. */
  before: number | null;
}

/** What becomes of photos that are let go somewhere. */
export type Act = 'order' | 'put' | 'move' | 'out' | 'nothing';

export function actOf({ from, to, ids }: Pick<Carried, 'from' | 'to' | 'ids'>): Act {
  if (ids.length === 0) return 'nothing';
  if (from === to) return from === null ? 'nothing' : 'order';
  if (to === null) return 'out';
  return from === null ? 'put' : 'move';
}

/** The photo before which things go that are let go at x, by the middles of those that are drawn, in their order. */
export function beforeAt(x: number, drawn: readonly { id: number; middle: number }[]): number | null {
  return drawn.find(({ middle }) => x < middle)?.id ?? null;
}

/**
 * Between which photos of its set something comes that is moved in a place which follows the set's order: right before
 * the one that it goes before, or right behind the last of the place.
 * @param all the set's photos in its order, of which a place shows some
 * @param here photos of the place, in its order
 */
export function neighboursOf(
  all: readonly number[],
  here: readonly number[],
  { ids, before }: Pick<Carried, 'ids' | 'before'>,
): { ahead: number | null; behind: number | null } {
  const stays = (id: number) => !ids.includes(id);
  const others = all.filter(stays);
  const next = movedBefore(here, ids, before);
  // Let go over one of those that are moved, they go before the next that stays.
  const target = next[next.findLastIndex((id) => !stays(id)) + 1];
  const last = here.findLast(stays);
  const behindLast = last === undefined ? others.length : others.indexOf(last) + 1;
  const at = target === undefined ? behindLast : others.indexOf(target);
  return { ahead: others[at - 1] ?? null, behind: others[at] ?? null };
}
