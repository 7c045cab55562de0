// What is done at the Arrange bench, as edits: an arrangement is its place and that of its large pictures, changed together.
import { optionsFor, orderedBy, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { Arrangement, Order, Photo, PhotoSet, Site, SlotId } from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { shownName } from '@dusky-otter/core/naming';
import { slotIdFor } from '@dusky-otter/core/places';
import { standsIn } from '@dusky-otter/core/plan';
import { edit } from '../server/state.ts';
import { PAGE_COLUMN } from './containers.ts';

const largeOf = (site: Site, shortName: SlotId): SlotId | null =>
  site.slots.find(({ of }) => of === shortName)?.id ?? null;

/** Both places as they are to be; a place of large pictures that is needed no more goes. */
export function arrangementCommands(site: Site, arrangement: Arrangement): Command[] {
  const { cell, large } = slotsOfArrangement(arrangement);
  const before = largeOf(site, arrangement.shortName);
  return [
    { kind: 'slot', slot: cell.id, value: cell },
    ...(large ? [{ kind: 'slot', slot: large.id, value: large } as const] : []),
    ...(!large && before !== null ? [{ kind: 'slot', slot: before, value: null } as const] : []),
  ];
}

/** @param began version of the site on which a text was begun */
export function saveArrangement(site: Site, arrangement: Arrangement, what: string, began?: number): void {
  edit(
    `${what} of ${arrangement.title}`,
    arrangementCommands(site, arrangement),
    began === undefined ? {} : { site: began },
  );
}

/**
 * Makes an arrangement of photos of a set.
 * @param photos those that stand in it by themselves
 * @param open whether all photos that follow their set stand in it, too, and those that are still to come
 * @returns its short name
 */
export function makeArrangement(
  site: Site,
  set: PhotoSet,
  title: string,
  { photos, open }: { photos: readonly Photo[]; open: boolean },
): SlotId {
  const shortName = slotIdFor(title, [...site.slots.map(({ id }) => id), ...(site.retired ?? [])]);
  const commands = arrangementCommands(site, {
    shortName,
    title,
    options: optionsFor('grid'),
    container: PAGE_COLUMN,
  });
  const standing = photos.map((photo): Command => ({
    kind: 'placements',
    photo: photo.id,
    placements: placementsFor(photo, [...standsIn(photo, { open: set.slots }), shortName]),
  }));
  const slots = open ? [...set.slots, shortName] : set.slots;
  edit(`arrangement ${title}`, [
    ...commands,
    ...standing,
    {
      kind: 'set',
      change: {
        slots,
        arranged: true,
        // A page that follows from where photos stand shows it anyway.
        ...(set.page && {
          page: {
            ...set.page,
            parts: [...set.page.parts, { kind: 'place', slot: shortName, titled: true }],
          },
        }),
      },
    },
  ]);
  return shortName;
}

/** Takes an arrangement from the site; its photos stay, and stand where else they stand. */
export function dropArrangement(site: Site, { shortName, title }: Arrangement): void {
  const large = largeOf(site, shortName);
  edit(`arrangement ${title} taken away`, [
    { kind: 'slot', slot: shortName, value: null },
    ...(large !== null ? [{ kind: 'slot', slot: large, value: null } as const] : []),
  ]);
}

/** Gives the pictures of an arrangement another order; it is the arrangement's own, and their set keeps its own. */
export function putInOrder(
  site: Site,
  arrangement: Arrangement,
  order: readonly number[],
  what: string,
): void {
  saveArrangement(site, { ...arrangement, order }, what);
}

/** The ids of photos in another order, by what is known of them. */
export function orderBy(rows: readonly Photo[], order: Exclude<Order, 'hand'>): number[] {
  const named = rows.map((photo) => ({ ...photo, name: shownName(photo.words, photo.fileName) }));
  return orderedBy(named, order).map(({ id }) => id);
}
