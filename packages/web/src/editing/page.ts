// What is done to the page of a set, as edits. A page that was not made yet begins as what follows from where photos stand.
import type {
  Everywhere,
  PageEntry,
  PagePart,
  PhotoSet,
  SetCounts,
  SetPage,
  Site,
  Slot,
} from '@dusky-otter/core/contract';
import { firstPage, freeFolder } from '@dusky-otter/core/page';
import { edit } from '../server/state.ts';

/** The page as it is, or as it would follow. */
export function pageNow(
  set: PhotoSet,
  site: Site,
  counts: SetCounts | null,
  entries: readonly PageEntry[] = [],
): SetPage {
  if (set.page) return set.page;
  const page = firstPage(set.name, site.slots, (slot) => counts?.places[slot] !== undefined);
  const taken = entries.filter((entry) => entry.set !== set.id).map(({ folder }) => folder);
  return { ...page, folder: freeFolder(set.name, taken) };
}

/** @param began version of the set on which a text was begun */
export const putPage = (page: SetPage, what: string, began?: number): void =>
  edit(`${what} of the page`, [{ kind: 'set', change: { page } }], began === undefined ? {} : { set: began });

export const putParts = (page: SetPage, parts: readonly PagePart[], what: string, began?: number): void =>
  putPage({ ...page, parts }, what, began);

/** An arrangement of a set stands on every page of the site from now on, or on its own alone. */
export function putEverywhere(site: Site, set: number, slot: Slot, at: Everywhere['at'] | null): void {
  const others = site.everywhere.filter((one) => one.slot !== slot.id);
  const everywhere = at === null ? others : [...others, { set, slot: slot.id, at }];
  const where = at === null ? 'on its own page alone' : `${at} what every page holds`;
  edit(`${slot.name}: ${where}`, [{ kind: 'site', change: { everywhere } }]);
}
