// What a screen would be sent with one quality for all: the same pictures, sizes and formats, no look at any of them.
import {
  isLossy,
  ONE_QUALITY,
  planShape,
  slotsIn,
  slotsOf,
  variantSentTo,
  type AlikeBytes,
  type Photo,
  type PlannedVariant,
  type Screen,
  type Site,
} from '@dusky-otter/core';
import { weighed } from '../look/looked-at.ts';
import { rowOf } from '../answers/sent.ts';
import { evenly, type Made } from './forecast.ts';

/** Pictures that are made to see what they weigh. */
const MOST_TRIED = 5;

/** A picture that has one quality among others, and what is sent of it now. */
interface Found {
  photo: Photo;
  planned: PlannedVariant;
  bytes: number;
}

/** What of a photo is sent to a screen: in bytes what has no quality, and one by one what has. */
function sentOf(photo: Photo, setSlots: readonly string[], site: Site, screen: Screen, { states }: Made) {
  const row = rowOf(photo, setSlots, site, states);
  let fixed = 0;
  const found: Found[] = [];
  for (const slot of slotsIn(site, slotsOf(photo, setSlots))) {
    const sent = variantSentTo(row, slot, screen);
    if (sent === null || sent.bytes === null) continue;
    const planned = planShape(photo, slot, sent.shape, site).find(({ key }) => key === sent.key)!;
    const searched = isLossy(sent.format) && planned.settings.target !== undefined;
    if (searched) found.push({ photo, planned, bytes: sent.bytes });
    else fixed += sent.bytes;
  }
  return { fixed, found };
}

/**
 * Measured on some pictures that are spread evenly over all of them by what they weigh, and carried over to the rest.
 * @param photos of the set, without those in the bin
 * @throws the signal's reason when nobody waits for it any more; RenderError
 */
export async function alikeOf(
  photos: readonly Photo[],
  setSlots: readonly string[],
  site: Site,
  screen: Screen,
  made: Made,
  signal: AbortSignal,
): Promise<AlikeBytes> {
  const each = photos.map((photo) => sentOf(photo, setSlots, site, screen, made));
  const found = each.flatMap((one) => one.found).sort((a, b) => b.bytes - a.bytes);
  const tried = evenly(found, MOST_TRIED);
  let [searched, alike] = [0, 0];
  for (const { photo, planned, bytes } of tried) {
    const { format } = planned;
    if (!isLossy(format)) continue;
    const { gamut, effort, progressive } = planned.settings;
    const settings = {
      quality: ONE_QUALITY[format],
      ...(gamut && { gamut }),
      ...(effort !== undefined && { effort }),
      ...(progressive !== undefined && { progressive }),
    };
    searched += bytes;
    alike += await weighed(photo, { ...planned, format }, made, signal, settings);
  }
  const ratio = searched > 0 ? alike / searched : 1;
  const fixed = each.reduce((sum, one) => sum + one.fixed, 0);
  const sent = found.reduce((sum, { bytes }) => sum + bytes, 0);
  return { alike: Math.round(fixed + sent * ratio), tried: tried.length, of: found.length };
}
