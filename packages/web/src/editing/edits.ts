// The edits that are made from the table, each with the sentence that undo shows.
import type {
  Filter,
  Frame,
  Language,
  Photo,
  SetHeader,
  SetPlaces,
  SlotId,
  Words,
} from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { placementIn } from '@dusky-otter/core/plan';
import { languageName } from '@dusky-otter/core/words';
import { letGo, useScreen } from '../screen/screen.ts';
import { rowAt } from '../server/hooks.ts';
import { keys } from '../server/keys.ts';
import { client, edit, idsUnder, openSetId } from '../server/state.ts';
import { placeHere } from './placing.ts';

/** A title may be longer than any list of edits is wide. */
const LONGEST_NAME = 60;

const shortened = (name: string): string =>
  name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME).trimEnd()}…` : name;

const nameOf = (row: Photo): string => shortened(shownName(row.words, row.fileName));

const headerNow = (): SetHeader | undefined => client.getQueryData<SetHeader>(keys.set(openSetId() ?? 0));

/** The language that words are written in. */
const languageNow = (): string => headerNow()?.site.languages[0] ?? 'en';

export const FIELD_NAMES: Record<keyof Words, string> = {
  role: 'role',
  alt: 'alt text',
  caption: 'caption',
  title: 'title',
  credit: 'credit',
  longDescription: 'long description',
  link: 'link',
  newWindow: 'new window',
  kept: 'what is kept on purpose',
};

/** Which parts of words are changed; all of them where they are given back. */
const fieldsOf = (words: Partial<Words> | null): string =>
  words === null
    ? 'words'
    : (Object.keys(words) as (keyof Words)[]).map((key) => FIELD_NAMES[key]).join(' and ');

/** A part of words for who is to read it. */
export function inWords(part: Words[keyof Words] | undefined): string {
  if (typeof part === 'boolean') return part ? 'yes' : 'no';
  if (typeof part === 'object' && part !== null) return Object.values(part).filter(Boolean).join('; ');
  return part ?? '';
}

/**
 * `done` tells acts of their own, such as mending, from typing: they are undone on their own. `began` is the version
 * on which a text was begun; `language` the site's first where none is named.
 */
export function saveWords(
  row: Photo,
  words: Partial<Words>,
  { done = '', began = row.version, language = languageNow() } = {},
): void {
  // While a title is typed it is no name yet: its strokes are one edit, under one name.
  const name = words.title === undefined ? nameOf(row) : row.fileName;
  edit(`${fieldsOf(words)} of ${name}${done}`, [{ kind: 'words', photo: row.id, language, words }], {
    photos: { [row.id]: began },
  });
}

/** Words of a photo in one place alone; null gives it the photo's own again. */
export function saveSpotWords(
  row: Photo,
  setPlaces: SetPlaces,
  slot: SlotId,
  words: Partial<Words> | null,
  done = '',
): void {
  placeHere(
    row,
    setPlaces,
    { slot, words: words === null ? {} : { ...placementIn(row, slot).words, ...words } },
    `${fieldsOf(words)}${done}`,
  );
}

/** Words of a photo in one place alone, in one of the site's further languages; null takes them out of it. */
export function saveSpotIn(
  row: Photo,
  setPlaces: SetPlaces,
  slot: SlotId,
  language: Language,
  words: Partial<Words> | null,
  done = '',
): void {
  const { [language]: before, ...others } = placementIn(row, slot).others ?? {};
  placeHere(
    row,
    setPlaces,
    { slot, others: words === null ? others : { ...others, [language]: { ...before, ...words } } },
    `${fieldsOf(words)}${done} in ${languageName(language)}`,
  );
}

/** Words of many photos, changed together and taken back together. */
export function saveManyWords(
  label: string,
  changes: readonly { id: number; words: Partial<Words> }[],
): void {
  if (changes.length === 0) return;
  edit(
    label,
    changes.map(({ id, words }) => ({ kind: 'words', photo: id, language: languageNow(), words })),
  );
}

/** The words of photos whose pictures were replaced were read, and still hold. */
export function wordsHold(rows: readonly Photo[]): void {
  const unread = rows.filter(({ toRead }) => toRead);
  if (unread.length === 0) return;
  edit(
    `words of ${unread.length === 1 ? nameOf(unread[0]!) : `${unread.length} photos`} read again`,
    unread.map(({ id }) => ({ kind: 'words', photo: id, language: languageNow(), words: {} })),
  );
}

/** @param name what the photo is called, where it is one */
export function putIntoBin(ids: readonly number[], name: string | null): void {
  edit(
    `${ids.length === 1 && name !== null ? shortened(name) : `${ids.length} photos`} put into the bin`,
    ids.map((photo) => ({ kind: 'bin', photo, binned: true })),
  );
  letGo(ids);
}

/** How frames of photos are changed together: each by its own frame and size. */
export function saveFrames(rows: readonly Photo[], what: string, frameFor: (row: Photo) => Frame): void {
  edit(
    `${what} of ${rows.length === 1 ? nameOf(rows[0]!) : `${rows.length} photos`}`,
    rows.map((row) => ({ kind: 'frame', photo: row.id, frame: frameFor(row) })),
  );
}

export function confirmFocal(rows: readonly Photo[]): void {
  const what = rows.length === 1 ? nameOf(rows[0]!) : `${rows.length} photos`;
  edit(
    `focal point of ${what} confirmed`,
    rows.map((row) => ({ kind: 'focal', photo: row.id, focal: { ...row.frame.focal, confirmed: true } })),
  );
}

/** Puts what is selected into the bin: of it what stands under the filter, since the rest is not seen. */
export async function binSelected(filter: Filter): Promise<void> {
  const { ids } = await idsUnder(filter);
  const { selected } = useScreen.getState();
  const chosen = ids.filter((id) => selected.has(id));
  const one = chosen.length === 1 ? rowAt(openSetId() ?? 0, chosen[0]!) : null;
  putIntoBin(chosen, one && shownName(one.words, one.fileName));
}
