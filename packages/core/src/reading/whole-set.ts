// A set with all its photos, read page by page: for programs that want all of it. Screens read what they show.
import type { PhotoPage, PhotoRow, PhotoSet, SentPhoto, SetHeader, Site } from '../contract/index.ts';
import type { SeenVersions } from '../edits/commands.ts';
import { variantsOf } from '../plan/plan.ts';
import { setPlacesOf } from '../plan/set-places.ts';

/** No edit is newer: all of the history may be taken back. */
const LARGEST_ID = 4_294_967_295;

/** Photos in one answer. */
const PART = 200;

/** A photo as it is sent, with its files as they are planned from what was sent. */
export type WholeRow = SentPhoto & PhotoRow;

/** A set with all its photos, those in the bin last. */
export interface WholeSet extends SetHeader {
  rows: WholeRow[];
}

export const wholeRow = (photo: SentPhoto, site: Site, set: PhotoSet): WholeRow => ({
  ...photo,
  variants: variantsOf(photo, setPlacesOf(set), site, {
    get: (key) => photo.files[key],
    failureOf: (key) => photo.failures[key] ?? null,
  }),
});

/**
 * Reads all of a set.
 * @param get what answers to a path
 * @param window whose history it is, and which edits from before it came are its own
 */
export async function wholeSet(
  get: (path: string) => Promise<unknown>,
  setId: number,
  { window = 'reader', since = LARGEST_ID }: { window?: string; since?: number } = {},
): Promise<WholeSet> {
  const header = (await get(`/api/sets/${setId}?window=${window}&since=${since}`)) as SetHeader;
  const rows: WholeRow[] = [];
  for (const filter of ['all', 'bin']) {
    for (let from = 0; ; from += PART) {
      const path = `/api/sets/${setId}/photos?filter=${filter}&from=${from}&count=${PART}`;
      const { photos } = (await get(path)) as PhotoPage;
      rows.push(...photos.map((photo) => wholeRow(photo, header.site, header.set)));
      if (photos.length < PART) break;
    }
  }
  return { ...header, rows };
}

/** The versions of everything as it is. */
export const seenNow = ({ rows, set, site }: WholeSet): SeenVersions => ({
  photos: Object.fromEntries(rows.map(({ id, version }) => [id, version])),
  set: set.version,
  site: site.version,
});
