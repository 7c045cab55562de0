// Which arrangements stand on the other pages of a site.
import type { Elsewhere, Site } from '@dusky-otter/core/contract';
import type { Ledgers } from '../ledger/ledgers.ts';
import { entriesOf } from './entries.ts';

/** Pictures that are shown of each. */
const PICTURES = 6;

/** Arrangements on the pages of a site's other sets, in their order; a set that can't be read shows none. */
export async function elsewhereOf(site: Site, setId: number, ledgers: Ledgers): Promise<Elsewhere[]> {
  const found: Elsewhere[] = [];
  for (const { set, title, parts } of await entriesOf(site, ledgers)) {
    if (set === setId || parts.length === 0) continue;
    const ledger = await ledgers.get(set);
    for (const { slot, photos } of parts) {
      const first = ledger.members(slot).slice(0, PICTURES);
      const pictures = first.flatMap((photo) => ledger.standing(photo)?.hash ?? []);
      found.push({ set, title, slot, photos, pictures });
    }
  }
  return found;
}
