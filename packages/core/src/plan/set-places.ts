// What stands on the page of a set: of the places in which a photo stands, those that the page shows.
import type { Photo, PagePart, SetDecisions, SetPage, SetPlaces, SlotId } from '../contract/index.ts';

/** The places that a page shows, in its order. */
export const placesOn = ({ parts }: Pick<SetPage, 'parts'>): SlotId[] =>
  parts.flatMap((part: PagePart) => (part.kind === 'place' ? [part.slot] : []));

/** Where photos of a set are seen. A page that nobody made yet shows every place in which photos stand. */
export const setPlacesOf = ({ slots, page }: Pick<SetDecisions, 'slots' | 'page'>): SetPlaces => ({
  open: slots,
  shown: page && placesOn(page),
});

/** Places of a set whose page shows every one in which photos stand. */
export const openIn = (...open: SlotId[]): SetPlaces => ({ open, shown: null });

/** Names of the slots in which a photo stands, also where the page does not show them: its own, or its set's open ones. */
export const standsIn = (
  { placements }: Pick<Photo, 'placements'>,
  { open }: Pick<SetPlaces, 'open'>,
): readonly SlotId[] => placements?.map(({ slot }) => slot) ?? open;

/** Those in which it is seen: files are made for them, and for no others. */
export function slotsOf(photo: Pick<Photo, 'placements'>, setPlaces: SetPlaces): readonly SlotId[] {
  const { shown } = setPlaces;
  const standing = standsIn(photo, setPlaces);
  return shown === null ? standing : standing.filter((slot) => shown.includes(slot));
}
