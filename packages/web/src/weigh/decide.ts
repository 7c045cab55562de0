// The edits that are made at the weigh bench and from the table: what is decided on the files of photos.
import type { Photo, QualityDecision, SlotId } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { edit } from '../server/state.ts';

const nameOf = (photos: readonly Photo[]): string =>
  photos.length === 1 ? shownName(photos[0]!.words, photos[0]!.fileName) : `${photos.length} photos`;

/** A change of decisions; undefined gives a part back to the site's rules. */
export type Change = { [K in keyof QualityDecision]?: QualityDecision[K] | undefined };

/** A decision without parts that say nothing; null where nothing is left of it. */
function plain(decision: Change): QualityDecision | null {
  const parts = Object.entries<unknown>(decision).filter(([, value]) => value !== undefined);
  return parts.length === 0 ? null : Object.fromEntries(parts);
}

/** Decides on photos in places, each from what was decided there before. */
export function decide(
  photos: readonly Photo[],
  slotsOf: (photo: Photo) => readonly SlotId[],
  what: string,
  change: Change,
): void {
  const commands = photos.flatMap((photo) =>
    slotsOf(photo).map((slot) => ({
      kind: 'quality' as const,
      photo: photo.id,
      slot,
      decision: plain({ ...photo.quality[slot], ...change }),
    })),
  );
  if (commands.length > 0) edit(`${what} of ${nameOf(photos)}`, commands);
}

/** Gives all decisions in places back to the site's rules. */
export function giveBack(photos: readonly Photo[], slotsOf: (photo: Photo) => readonly SlotId[]): void {
  const commands = photos.flatMap((photo) =>
    slotsOf(photo)
      .filter((slot) => photo.quality[slot] !== undefined)
      .map((slot) => ({ kind: 'quality' as const, photo: photo.id, slot, decision: null })),
  );
  if (commands.length > 0) edit(`files of ${nameOf(photos)} given back`, commands);
}
