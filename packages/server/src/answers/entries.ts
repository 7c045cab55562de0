// The pages of a site as its menu and its indexes lead to them.
import { arrangementsIn } from '@dusky-otter/core/arrange';
import type { PageEntry, Site } from '@dusky-otter/core/contract';
import { firstPage, freeFolder, isFolder, titlesOf } from '@dusky-otter/core/page';
import { placesOn } from '@dusky-otter/core/plan';
import type { Ledgers } from '../ledger/ledgers.ts';
import { isDatabaseAway } from '../problems.ts';
import { setsIn } from '../store/sets.ts';

/**
 * The pages of a site's sets that are not put away; a set whose page was not made yet has the one that follows from it,
 * and stands in no menu. Two never have the same folder. A set that can't be read has no page.
 */
export async function entriesOf(site: Site, ledgers: Ledgers): Promise<PageEntry[]> {
  const sets = await setsIn(site.id, { archived: false });
  const arrangements = arrangementsIn(site.slots);
  // Folders that were said come before those that follow from a name.
  const taken = sets.flatMap(({ page }) => (page ? [page.folder] : []));
  const given = new Set<string>();
  const entries: PageEntry[] = [];
  for (const { id, name, page } of sets) {
    const counts = await ledgers.get(id).then(
      (ledger) => ledger.counts,
      (error: unknown) => {
        if (isDatabaseAway(error)) throw error;
        return null;
      },
    );
    if (counts === null) continue;
    const shown = page ?? firstPage(name, site.slots, (slot) => counts.places[slot] !== undefined);
    const wanted = page?.folder ?? freeFolder(name, taken);
    const folder = given.has(wanted) || !isFolder(wanted) ? freeFolder(wanted, [...taken, ...given]) : wanted;
    given.add(folder);
    const parts = placesOn(shown).flatMap((slot) => {
      const found = arrangements.find(({ shortName }) => shortName === slot);
      if (!found) return [];
      const others = titlesOf(found);
      return [{ slot, title: found.title, others, photos: counts.places[slot]?.photos ?? 0 }];
    });
    const { title, description, others } = shown;
    const photos = counts.filters.all;
    entries.push({
      ...{ set: id, title, description, folder, menu: page?.menu ?? false, photos, parts },
      ...(others && { others }),
    });
  }
  return entries;
}
