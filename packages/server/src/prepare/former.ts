// After an upgrade that makes files otherwise: those that were made before stand in until they are made anew, so that
// nobody waits for hundreds of files, and a page goes out as it was.
import { formerKeys, planPhoto } from '@dusky-otter/core/plan';
import { inParts } from '../database/in-parts.ts';
import type { SetLedger } from '../ledger/set-ledger.ts';
import { loadPhotos } from '../store/photos.ts';
import { setPlacesIn } from '../store/sets.ts';
import { findSet } from '../store/sets.ts';
import type { PreparerDeps } from './preparer-deps.ts';

/** Looks for them where a photo's files are missing, and lets them stand in. @returns photos that have files now */
export async function letFormerStandIn(
  { stored, sites }: Pick<PreparerDeps, 'stored' | 'sites'>,
  setId: number,
  ledger: SetLedger,
): Promise<number[]> {
  // Without any file there is none of before.
  const wanting =
    stored.all.size === 0 ? [] : ledger.all.filter(({ keys }) => keys.some((key) => !stored.get(key)));
  if (wanting.length === 0) return [];
  const set = await findSet(setId);
  const site = await sites.get(set.siteId);
  const setPlaces = await setPlacesIn(set);
  const found: number[] = [];
  for (const ids of inParts(wanting.map(({ id }) => id))) {
    const pairs = new Map<string, string>();
    for (const photo of await loadPhotos(setId, site.languages[0]!, ids)) {
      for (const planned of planPhoto(photo, setPlaces, site)) {
        if (stored.get(planned.key)) continue;
        const former = formerKeys(photo, planned).find((key) => stored.file(key));
        if (former === undefined) continue;
        pairs.set(former, planned.key);
        found.push(photo.id);
      }
    }
    await stored.standIn(pairs);
  }
  return [...new Set(found)];
}
