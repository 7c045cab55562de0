// What stands on every page of a site, as a page of another set shows it: photos of the set that puts it there.
import type { Everywhere, PhotoRow, SetPage, SetPlaces, Site, SlotId } from '@dusky-otter/core/contract';
import { firstPage, withEverywhere } from '@dusky-otter/core/page';
import { placementIn, placesOn, slotsOf, standsIn } from '@dusky-otter/core/plan';
import type { Ledgers } from '../ledger/ledgers.ts';
import { photosInParts } from '../store/photos.ts';
import { setPlacesIn, setsIn, type SetRow } from '../store/sets.ts';
import { inTurns } from '../turns.ts';
import { rowOf, rowsInTurns, type FileStates } from '../answers/sent.ts';

/** Photos of other sets on a page. */
export interface Guests {
  rows: readonly PhotoRow[];
  /** The places that they stand in, and where those stand. */
  places: readonly { slot: SlotId; at: Everywhere['at']; titled: boolean }[];
  /** Whose photos they are, and how each is called there. */
  from: ReadonlyMap<number, { set: number; speaking: string }>;
}

interface Needs {
  ledgers: Ledgers;
  preparer: FileStates;
}

/** The sets whose arrangements come onto the page of another: those that show them themselves. */
async function sourcesOf(site: Site, own: number, shown: readonly SlotId[]) {
  const wanted = site.everywhere.filter((one) => one.set !== own && !shown.includes(one.slot));
  if (wanted.length === 0) return [];
  const sets = await setsIn(site.id, { archived: false, id: wanted.map(({ set }) => set) });
  return wanted.flatMap((one) => {
    const source = sets.find(({ id }) => id === one.set);
    return source ? [{ source, ...one }] : [];
  });
}

/**
 * What stands on a set's page because it stands on every page.
 * @param shown places that the page shows as its own
 */
export async function guestsOf(
  { ledgers, preparer }: Needs,
  site: Site,
  own: number,
  shown: readonly SlotId[],
  rowFor = rowOf,
): Promise<Guests> {
  const rows: PhotoRow[] = [];
  const places: Guests['places'][number][] = [];
  const from = new Map<number, { set: number; speaking: string }>();
  for (const { source, slot, at } of await sourcesOf(site, own, shown)) {
    const theirs = await setPlacesIn(source);
    const ledger = await ledgers.get(source.id);
    const ids = ledger.members(slot);
    if (ids.length === 0 || (theirs.shown && !theirs.shown.includes(slot))) continue;
    const alone: SetPlaces = { ...theirs, shown: [slot] };
    const part = source.page?.parts.find((one) => one.kind === 'place' && one.slot === slot);
    places.push({ slot, at, titled: part?.kind === 'place' ? part.titled : true });
    for await (const photos of photosInParts(source.id, site.languages[0]!, ids)) {
      const standing = photos
        .filter((photo) => !photo.binned && slotsOf(photo, alone).includes(slot))
        .map((photo) => ({ ...photo, placements: [placementIn(photo, slot)] }));
      rows.push(...(await inTurns(rowsInTurns(standing, alone, site, preparer, rowFor))));
    }
    for (const id of ids) from.set(id, { set: source.id, speaking: ledger.speaking(id) });
  }
  return { rows, places, from };
}

/** A photo that stands nowhere but where its own set has put it. */
function apart(row: PhotoRow, { open }: SetPlaces, slots: readonly SlotId[]): PhotoRow {
  const standing = standsIn(row, { open });
  if (!standing.some((slot) => slots.includes(slot))) return row;
  const own = standing.filter((slot) => !slots.includes(slot));
  return { ...row, placements: own.map((slot) => placementIn(row, slot)) };
}

/** Photos of a set with the guests on its page; one that is both has the places and files of both. */
export function withGuests(rows: readonly PhotoRow[], places: SetPlaces, guests: Guests): PhotoRow[] {
  const slots = guests.places.map(({ slot }) => slot);
  const own = new Map(rows.map((row) => [row.id, apart(row, places, slots)]));
  for (const guest of guests.rows) {
    const before = own.get(guest.id);
    if (!before) {
      own.set(guest.id, guest);
      continue;
    }
    const standing = standsIn(before, places).map((slot) => placementIn(before, slot));
    own.set(guest.id, {
      ...before,
      placements: [...standing, ...guest.placements!],
      variants: [...before.variants, ...guest.variants],
    });
  }
  return [...own.values()];
}

/** The page of a set with what stands on every page. */
export function pageWithGuests(
  set: SetRow,
  site: Site,
  rows: readonly PhotoRow[],
  places: SetPlaces,
  guests: Guests,
): SetPage {
  const stands = (slot: SlotId) => rows.some((row) => slotsOf(row, places).includes(slot));
  const page = set.page ?? firstPage(set.name, site.slots, stands);
  return withEverywhere(page, guests.places);
}

/** Where the photos of a page are seen, guests among them. */
export const placesWithGuests = (places: SetPlaces, page: SetPage): SetPlaces => ({
  ...places,
  shown: placesOn(page),
});
