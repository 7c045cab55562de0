// Places as photos stand in them, over all sets of a site: what they weigh, and what a change of one would cost.
import type { Photo, PlaceCost, PlaceUse, SetPlaces, Site, Slot, SlotId } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { planPhoto, slotsOf } from '@dusky-otter/core/plan';
import { phoneWeights } from '@dusky-otter/core/readiness';
import { photosInParts } from '../store/photos.ts';
import { rowOf, type FileStates } from './sent.ts';
import { readSetPlaces } from '../store/sets.ts';
import { setsOfSite } from '../store/sets.ts';
import { inPassing } from '../turns.ts';

const MOST_WEIGHTS = 100;
const MOST_SHOWN = 4;

/** Every photo of a site where it stands, with where its set is seen. A photo of two sets comes twice. */
async function* photosOfSite(
  site: Site,
): AsyncGenerator<{ setId: number; photo: Photo; setPlaces: SetPlaces }> {
  for (const setId of await setsOfSite(site.id)) {
    const setPlaces = await readSetPlaces(setId);
    for await (const photos of photosInParts(setId, site.languages[0]!)) {
      for await (const photo of inPassing(photos)) if (!photo.binned) yield { setId, photo, setPlaces };
    }
  }
}

/** @param setId the heaviest photo is named among those of this set: there it can be opened */
export async function placesInUse(
  site: Site,
  setId: number,
  states: FileStates,
): Promise<Record<SlotId, PlaceUse>> {
  const uses = new Map<SlotId, PlaceUse>(
    site.slots.map(({ id }) => [id, { photos: 0, weights: [], heaviest: null, shown: [] }]),
  );
  // A photo of two sets stands in a place once.
  const seen = new Set<string>();
  for await (const { setId: here, photo, setPlaces } of photosOfSite(site)) {
    const row = rowOf(photo, setPlaces, site, states);
    for (const { slot, bytes } of phoneWeights(row, setPlaces, site)) {
      const use = uses.get(slot.id)!;
      if (seen.has(`${slot.id} ${photo.id}`)) continue;
      seen.add(`${slot.id} ${photo.id}`);
      use.photos++;
      const { hash, width, height } = photo.original;
      if (use.shown.length < MOST_SHOWN) use.shown.push({ hash, width, height });
      if (bytes === null) continue;
      use.weights.push(bytes);
      if (here === setId && bytes > (use.heaviest?.bytes ?? 0))
        use.heaviest = { id: photo.id, name: shownName(photo.words, photo.fileName), bytes };
    }
  }
  for (const use of uses.values()) use.weights = use.weights.sort((a, b) => b - a).slice(0, MOST_WEIGHTS);
  return Object.fromEntries(uses);
}

/** What it costs to have a place as `value` instead of as it is; null: not at all any more. */
export async function costOfPlace(
  site: Site,
  id: SlotId,
  value: Slot | null,
  states: Pick<FileStates, 'get'>,
): Promise<PlaceCost> {
  const others = site.slots.filter((slot) => slot.id !== id);
  const after = { ...site, slots: value ? [...others, value] : others };
  const [before, wanted, elsewhere] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const photos = new Set<number>();
  for await (const { photo, setPlaces } of photosOfSite(site)) {
    for (const { key, slot } of planPhoto(photo, setPlaces, site))
      (slot === id ? before : elsewhere).add(key);
    if (!slotsOf(photo, setPlaces).includes(id)) continue;
    photos.add(photo.id);
    for (const { key, slot } of planPhoto(photo, setPlaces, after)) if (slot === id) wanted.add(key);
  }
  const toMake = [...wanted].filter((key) => !states.get(key)).length;
  const toGo = [...before].filter((key) => !wanted.has(key) && !elsewhere.has(key)).length;
  return { photos: photos.size, files: wanted.size, toMake, toGo };
}
