// Where photos stand, as edits. What is put into a place that the page does not show puts the place on the page, too:
// nobody would see it otherwise.
import type { Photo, PhotoSet, Placement, SetPage, Site, SlotId } from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { shownName } from '@dusky-otter/core/naming';
import { partFor } from '@dusky-otter/core/page';
import { placesOn, standsIn } from '@dusky-otter/core/plan';
import { standable } from '@dusky-otter/core/slots';
import { edit } from '../server/state.ts';

/** The set in which photos are placed, and its site. */
export interface SetOnSite {
  set: PhotoSet;
  site: Site;
}

const said = (photos: readonly Photo[]): string =>
  photos.length === 1 ? shownName(photos[0]!.words, photos[0]!.fileName) : `${photos.length} photos`;

/** A page with these places, too, behind all others; the same one where it shows them already. */
function pageWith(page: SetPage, site: Site, slots: readonly SlotId[]): SetPage {
  const shown = placesOn(page);
  const missing = standable(site.slots).filter(({ id }) => slots.includes(id) && !shown.includes(id));
  return missing.length === 0 ? page : { ...page, parts: [...page.parts, ...missing.map(partFor)] };
}

/** What is decided on a set when photos are put into places. */
function onSet({ set, site }: SetOnSite, slots: readonly SlotId[]): Command[] {
  const page = set.page && pageWith(set.page, site, slots);
  const change = {
    // Who chooses for one photo has looked at the places.
    ...(!set.arranged && { arranged: true }),
    ...(page !== set.page && { page }),
  };
  return Object.keys(change).length === 0 ? [] : [{ kind: 'set', change }];
}

const placed = (photo: Photo, placements: Placement[] | null): Command => ({
  kind: 'placements',
  photo: photo.id,
  placements,
});

/** Places of photos, each by its own answer from those it stands in; null follows the set. */
export function placeEach(
  photos: readonly Photo[],
  where: SetOnSite,
  slotsFor: (standing: readonly SlotId[]) => readonly SlotId[] | null,
  label = `places of ${said(photos)}`,
  also: readonly Command[] = [],
): void {
  const open = { open: where.set.slots };
  const answers = photos.map((photo) => {
    const standing = standsIn(photo, open);
    const slots = slotsFor(standing);
    return { photo, slots, added: slots?.filter((slot) => !standing.includes(slot)) ?? [] };
  });
  edit(label, [
    ...answers.map(({ photo, slots }) => placed(photo, placementsFor(photo, slots))),
    ...onSet(where, [...new Set(answers.flatMap(({ added }) => added))]),
    ...also,
  ]);
}

/** Puts photos into a place. @param also what belongs to the same act */
export const putInto = (
  photos: readonly Photo[],
  where: SetOnSite,
  slot: SlotId,
  also: readonly Command[] = [],
): void =>
  placeEach(
    photos,
    where,
    (standing) => (standing.includes(slot) ? standing : [...standing, slot]),
    `${said(photos)} put into ${nameOf(where, slot)}`,
    also,
  );

/** Takes photos out of a place; they stay in the set. */
export const takeOut = (photos: readonly Photo[], where: SetOnSite, slot: SlotId): void =>
  placeEach(
    photos,
    where,
    (standing) => standing.filter((one) => one !== slot),
    `${said(photos)} taken out of ${nameOf(where, slot)}`,
  );

/** Takes photos from one place to another. */
export const moveOver = (
  photos: readonly Photo[],
  where: SetOnSite,
  { from, to }: { from: SlotId; to: SlotId },
  also: readonly Command[] = [],
): void =>
  placeEach(
    photos,
    where,
    (standing) => [...standing.filter((one) => one !== from && one !== to), to],
    `${said(photos)} moved to ${nameOf(where, to)}`,
    also,
  );

const nameOf = ({ site }: SetOnSite, slot: SlotId): string =>
  site.slots.find(({ id }) => id === slot)?.name ?? slot;

/** Opens a place to every photo of the set, also to those that are still to come. */
export function openPlace({ set, site }: SetOnSite, slot: SlotId): void {
  const page = set.page && pageWith(set.page, site, [slot]);
  edit(`all photos put into ${nameOf({ set, site }, slot)}`, [
    {
      kind: 'set',
      change: {
        ...(page !== set.page && { page }),
        arranged: true,
        slots: [...new Set([...set.slots, slot])],
      },
    },
  ]);
}

/** What differs for a photo in one place alone. @param began version of the photo on which a text was begun */
export function placeHere(
  photo: Photo,
  open: Parameters<typeof standsIn>[1],
  change: Partial<Omit<Placement, 'slot'>> & Pick<Placement, 'slot'>,
  what: string,
  began = photo.version,
): void {
  const standing = standsIn(photo, open);
  // A place of large pictures comes with its arrangement, and is named once something is decided in it.
  const slots = standing.includes(change.slot) ? standing : [...standing, change.slot];
  const placements = placementsFor(photo, slots)!.map((one) =>
    one.slot === change.slot ? { ...one, ...change } : one,
  );
  edit(`${what} of ${said([photo])} here`, [placed(photo, placements)], { photos: { [photo.id]: began } });
}
