// The pages of a site as its menu and its indexes lead to them.
import type { PageEntry } from '@dusky-otter/core/contract';
import { firstPage, freeFolder, isFolder } from '@dusky-otter/core/page';
import type { Ledgers } from '../ledger/ledgers.ts';
import { isDatabaseAway } from '../problems.ts';
import { setsIn } from '../store/sets.ts';

/**
 * The pages of a site's sets that are not put away; a set whose page was not made yet has the one that follows from it,
 * and stands in no menu. Two never have the same folder. A set that can't be read has no page.
 */
export async function entriesOf(siteId: number, ledgers: Ledgers): Promise<PageEntry[]> {
  const sets = await setsIn(siteId, { archived: false });
  // Folders that were said come before those that follow from a name.
  const taken = sets.flatMap(({ page }) => (page ? [page.folder] : []));
  const given = new Set<string>();
  const entries: PageEntry[] = [];
  for (const { id, name, page } of sets) {
    const photos = await ledgers.get(id).then(
      ({ counts }) => counts.filters.all,
      (error: unknown) => {
        if (isDatabaseAway(error)) throw error;
        return null;
      },
    );
    if (photos === null) continue;
    const { title, description } = page ?? firstPage(name, [], () => false);
    const wanted = page?.folder ?? freeFolder(name, taken);
    const folder = given.has(wanted) || !isFolder(wanted) ? freeFolder(wanted, [...taken, ...given]) : wanted;
    given.add(folder);
    entries.push({ set: id, title, description, folder, menu: page?.menu ?? false, photos });
  }
  return entries;
}
