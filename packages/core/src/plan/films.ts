// Films that pictures lead to: which files must lie on the site beside what a hand-over holds.
import type { Photo, PlanContext, SetPlaces } from '../contract/index.ts';
import { isFilm } from '../html/film.ts';
import { isRelative } from '../html/link.ts';
import { slotsOf } from './set-places.ts';

/** A file that a page names and that is no photo of its set. */
export interface FileBeside {
  photo: number;
  /** As it was said: from the folder of the page. */
  address: string;
}

/**
 * Films and captions of a set's page that lie beside it, each once: nobody but the editor can put them there.
 * @param photos in their order
 */
export function filmsBeside(
  photos: readonly Photo[],
  setPlaces: SetPlaces,
  { slots }: Pick<PlanContext, 'slots'>,
): FileBeside[] {
  const arranged = new Set(slots.filter((slot) => slot.arranged).map(({ id }) => id));
  const found = photos.flatMap((photo) =>
    (photo.placements ?? [])
      .filter(
        ({ slot, link }) => arranged.has(slot) && isFilm(link) && slotsOf(photo, setPlaces).includes(slot),
      )
      .flatMap(({ link, captions = {} }) =>
        [link, ...Object.values(captions)].flatMap((address): FileBeside[] =>
          address && isRelative(address) ? [{ photo: photo.id, address: address.trim() }] : [],
        ),
      ),
  );
  return [...new Map(found.map((one) => [one.address, one])).values()];
}
