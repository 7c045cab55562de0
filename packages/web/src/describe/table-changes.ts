// What a table of words changes, as an edit: what is not said yet, and what else was agreed to.
import type {
  Language,
  Photo,
  Placement,
  SetPlaces,
  SlotId,
  Words,
  WordsPreview,
} from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { standsIn } from '@dusky-otter/core/plan';

/** A table that was read. */
export interface ReadTable {
  name: string;
  text: string;
  language: Language;
  preview: WordsPreview;
}

/** Names a text, also one that holds in one place alone. */
export const nameOfField = (field: string, place: SlotId | undefined): string =>
  place === undefined ? field : `${field} in ${place}`;

/** Texts of a table that are taken although something else is said already, as "photo field". */
export type Taken = ReadonlySet<string>;

export const nameOfText = (photo: number, field: string): string => `${photo} ${field}`;

export type Change = WordsPreview['changes'][number];
type Here = Change['here'][number];

/** Names of a change's texts where something else is said already. */
export const conflictsIn = ({ photo, conflicts, here }: Change): string[] => [
  ...Object.keys(conflicts).map((field) => nameOfText(photo.id, field)),
  ...here.flatMap(({ slot, conflicts: other }) =>
    Object.keys(other).map((field) => nameOfText(photo.id, nameOfField(field, slot))),
  ),
];

/** What a table changes of a photo in one place alone, on the same terms. */
const agreedHere = (photo: number, { slot, added, conflicts }: Here, taken: Taken): Partial<Words> => ({
  ...added,
  ...Object.fromEntries(
    Object.entries(conflicts).filter(([field]) => taken.has(nameOfText(photo, nameOfField(field, slot)))),
  ),
});

/** Placements of a photo with what a table says in them; null where it says nothing of them. */
export function placementsThen(
  { photo, slots, here }: Change,
  own: Photo,
  { setPlaces, language, main }: Where,
  taken: Taken,
): Placement[] | null {
  if (slots === null && here.length === 0) return null;
  return placementsFor(own, slots ?? standsIn(own, setPlaces))!.map((placement) => {
    const said = here.find(({ slot }) => slot === placement.slot);
    const words = said ? agreedHere(photo.id, said, taken) : {};
    if (Object.keys(words).length === 0) return placement;
    if (language === main) return { ...placement, words: { ...placement.words, ...words } };
    const { others } = placement;
    return { ...placement, others: { ...others, [language]: { ...others?.[language], ...words } } };
  });
}

/** Where words of a table go. */
export interface Where {
  setPlaces: SetPlaces;
  /** Of the table. */
  language: Language;
  /** The site's first. */
  main: Language;
}

/** What a table changes of a photo: what is not said yet, and what else was agreed to. */
const agreed = (
  { photo, added, conflicts }: WordsPreview['changes'][number],
  taken: Taken,
): Partial<Words> => ({
  ...added,
  ...Object.fromEntries(
    Object.entries(conflicts).filter(([field]) => taken.has(nameOfText(photo.id, field))),
  ),
});

/** A table's changes as commands. @param photos those whose placements it changes, as they are */
export function tableCommands(
  { preview, language }: ReadTable,
  photos: ReadonlyMap<number, Photo>,
  where: Omit<Where, 'language'>,
  taken: Taken,
): Command[] {
  return preview.changes.flatMap((change): Command[] => {
    const { photo } = change;
    const words = agreed(change, taken);
    const own = photos.get(photo.id);
    const placements = own ? placementsThen(change, own, { ...where, language }, taken) : null;
    return [
      ...(Object.keys(words).length > 0
        ? [{ kind: 'words', photo: photo.id, language, words } as const]
        : []),
      ...(placements ? [{ kind: 'placements', photo: photo.id, placements } as const] : []),
    ];
  });
}
