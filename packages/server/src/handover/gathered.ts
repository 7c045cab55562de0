// Everything that a hand-over is made from, gathered: photos with their files, words in all languages, the site's pages.
import type { PhotoRow, SetPage } from '@dusky-otter/core/contract';
import { placesOn, slotsOf } from '@dusky-otter/core/plan';
import { entriesOf } from '../answers/entries.ts';
import { rowOf, rowsInTurns } from '../answers/sent.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { photosInParts } from '../store/photos.ts';
import { findSet, setPlacesIn } from '../store/sets.ts';
import { wordsOfPhotos } from '../store/words.ts';
import { inTurns } from '../turns.ts';
import { guestsOf, pageWithGuests, placesWithGuests, withGuests, type Guests } from './guests.ts';
import type { HandoverParts } from './parts.ts';

type Needs = Pick<Parts, 'ledgers' | 'preparer' | 'sites'>;

/** Photos that are asked for, or all, with what they are planned by; never what lies in the bin. */
export async function rowsIn(parts: Needs, setId: number, asked: readonly number[] | null, rowFor = rowOf) {
  const set = await findSet(setId);
  const site = await parts.sites.get(set.siteId);
  const setPlaces = await setPlacesIn(set);
  const rows: PhotoRow[] = [];
  for await (const photos of photosInParts(set.id, site.languages[0]!, asked ?? undefined))
    rows.push(
      ...(await inTurns(
        rowsInTurns(
          photos.filter(({ binned }) => !binned),
          setPlaces,
          site,
          parts.preparer,
          rowFor,
        ),
      )),
    );
  if (asked && rows.length === 0) throw new ProblemError('no-such-photo');
  return { set, site, setPlaces, rows };
}

/** Everything that these photos of a set go out with, and nothing of other sets. */
export async function ownPartsOf(
  parts: Needs,
  setId: number,
  asked: readonly number[] | null,
  rowFor = rowOf,
): Promise<HandoverParts> {
  return assembled(parts, await rowsIn(parts, setId, asked, rowFor), new Map());
}

/** Everything that a set's page goes out with: these photos, and what stands on every page of the site. */
export async function partsOf(
  parts: Needs,
  setId: number,
  asked: readonly number[] | null,
  rowFor = rowOf,
): Promise<HandoverParts> {
  const found = await rowsIn(parts, setId, asked, rowFor);
  const { set, site, setPlaces, rows } = found;
  const shown = set.page ? placesOn(set.page) : rows.flatMap((row) => slotsOf(row, setPlaces));
  const guests = await guestsOf(parts, site, set.id, shown, rowFor);
  if (guests.places.length === 0) return assembled(parts, found, new Map());
  const page = pageWithGuests(set, site, rows, setPlaces, guests);
  const own = new Set(rows.map(({ id }) => id));
  const others = new Map([...guests.from].filter(([id]) => !own.has(id)));
  const all = {
    ...{ set, site, page, rows: withGuests(rows, setPlaces, guests) },
    setPlaces: placesWithGuests(setPlaces, page),
  };
  return assembled(parts, all, others);
}

type Found = Awaited<ReturnType<typeof rowsIn>> & { page?: SetPage };

async function assembled(
  parts: Needs,
  { set, site, setPlaces, rows, page = set.page ?? undefined }: Found,
  others: Guests['from'],
): Promise<HandoverParts> {
  const ledger = await parts.ledgers.get(set.id);
  // A name hangs on all photos of the set: part of them must not be called otherwise than the whole.
  const names = new Map(rows.map(({ id }) => [id, others.get(id)?.speaking ?? ledger.speaking(id)]));
  const ids = rows.map(({ id }) => id);
  const translations = await Promise.all(
    site.languages
      .slice(1)
      .map(async (language) => ({ language, words: await wordsOfPhotos(ids, language) })),
  );
  const entries = await entriesOf(site, parts.ledgers);
  return {
    ...{
      site: site.name,
      address: site.address,
      set: set.name,
      setId: set.id,
      page: page ?? null,
      entries,
      context: site,
    },
    ...{ setPlaces, rows, names, translations },
    ...(others.size > 0 && { guests: new Map([...others].map(([id, { set: of }]) => [id, of])) }),
  };
}
