// What a screen would be sent with one quality for all: the same pictures, sizes and formats, no look at any of them.
import type { AlikeBytes, Photo, SetPlaces, Site, SlotId } from '@dusky-otter/core/contract';
import { planPhoto, planShape, slotsOf } from '@dusky-otter/core/plan';
import { ONE_QUALITY, variantSentTo } from '@dusky-otter/core/readiness';
import { slotsIn } from '@dusky-otter/core/slots';
import type { Screen } from '@dusky-otter/core/source';
import { isLossy } from '@dusky-otter/core/weight';
import { weighed } from '../look/looked-at.ts';
import { rowOf } from '../answers/sent.ts';
import { inPassing } from '../turns.ts';
import { evenly, type Made } from './forecast.ts';

/** Pictures that are made to see what they weigh. */
const MOST_TRIED = 5;

/** A picture that has one quality among others, and what is sent of it now. */
interface Found {
  photo: number;
  slot: SlotId;
  key: string;
  bytes: number;
}

/** What of a photo is sent to a screen: in bytes what has no quality, and one by one what has. */
function sentOf(photo: Photo, setPlaces: SetPlaces, site: Site, screen: Screen, { states }: Made) {
  const row = rowOf(photo, setPlaces, site, states);
  let fixed = 0;
  const found: Found[] = [];
  for (const slot of slotsIn(site, slotsOf(photo, setPlaces))) {
    const sent = variantSentTo(row, slot, screen);
    if (sent === null || sent.bytes === null) continue;
    const { key, bytes } = sent;
    const { settings } = planShape(photo, slot, sent.shape, site).find((one) => one.key === key)!;
    const searched = isLossy(sent.format) && settings.target !== undefined;
    if (searched) found.push({ photo: photo.id, slot: slot.id, key, bytes });
    else fixed += bytes;
  }
  return { fixed, found };
}

/** Photos of a set: a part after the other, and one by its id. */
export interface Photos {
  inParts: () => AsyncIterable<readonly Photo[]>;
  one: (id: number) => Promise<Photo | undefined>;
}

/**
 * Measured on some pictures that are spread evenly over all of them by what they weigh, and carried over to the rest.
 * @param photos of the set, without those in the bin; they are never in memory whole
 * @throws the signal's reason when nobody waits for it any more; RenderError
 */
export async function alikeOf(
  photos: Photos,
  setPlaces: SetPlaces,
  site: Site,
  screen: Screen,
  made: Made,
  signal: AbortSignal,
): Promise<AlikeBytes> {
  const found: Found[] = [];
  let fixed = 0;
  for await (const part of photos.inParts()) {
    for await (const photo of inPassing(part)) {
      signal.throwIfAborted();
      const sent = sentOf(photo, setPlaces, site, screen, made);
      fixed += sent.fixed;
      found.push(...sent.found);
    }
  }
  const tried = evenly(
    found.sort((a, b) => b.bytes - a.bytes),
    MOST_TRIED,
  );
  let [searched, alike] = [0, 0];
  for (const { photo: id, slot, key, bytes } of tried) {
    const photo = await photos.one(id);
    const planned =
      photo && planPhoto(photo, setPlaces, site).find((one) => one.slot === slot && one.key === key);
    if (!planned || !isLossy(planned.format)) continue;
    const { gamut, effort, progressive } = planned.settings;
    const settings = {
      quality: ONE_QUALITY[planned.format],
      ...(gamut && { gamut }),
      ...(effort !== undefined && { effort }),
      ...(progressive !== undefined && { progressive }),
    };
    searched += bytes;
    alike += await weighed(photo, { ...planned, format: planned.format }, made, signal, settings);
  }
  const ratio = searched > 0 ? alike / searched : 1;
  const sent = found.reduce((sum, { bytes }) => sum + bytes, 0);
  return { alike: Math.round(fixed + sent * ratio), tried: tried.length, of: found.length };
}
