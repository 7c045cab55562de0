// Which arrangements stand on the other pages of a site.
import { arrangementsIn } from '@dusky-otter/core/arrange';
import type { Elsewhere, Site } from '@dusky-otter/core/contract';
import { firstPage } from '@dusky-otter/core/page';
import { placesOn } from '@dusky-otter/core/plan';
import type { Ledgers } from '../ledger/ledgers.ts';
import { isDatabaseAway } from '../problems.ts';
import { setsIn } from '../store/sets.ts';

/** Pictures that are shown of each. */
const PICTURES = 6;

/** Arrangements on the pages of a site's other sets, in their order; a set that can't be read shows none. */
export async function elsewhereOf(site: Site, setId: number, ledgers: Ledgers): Promise<Elsewhere[]> {
  const arranged = new Set(arrangementsIn(site.slots).map(({ shortName }) => shortName));
  const found: Elsewhere[] = [];
  for (const { id, name, page } of await setsIn(site.id, { archived: false })) {
    if (id === setId) continue;
    const ledger = await ledgers.get(id).catch((error: unknown) => {
      if (isDatabaseAway(error)) throw error;
      return null;
    });
    if (!ledger) continue;
    const { places } = ledger.counts;
    const shown = page ?? firstPage(name, site.slots, (slot) => places[slot] !== undefined);
    for (const slot of placesOn(shown)) {
      if (!arranged.has(slot)) continue;
      const members = ledger.members(slot);
      const pictures = members.slice(0, PICTURES).flatMap((photo) => ledger.standing(photo)?.hash ?? []);
      found.push({ set: id, title: shown.title, slot, photos: members.length, pictures });
    }
  }
  return found;
}
