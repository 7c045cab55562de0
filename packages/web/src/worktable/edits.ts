// The edits that are made from the table, each with the sentence that undo shows.
import { shownName, type Command, type PhotoRow, type SlotId, type Words } from '@dusky-otter/core';
import { edit, useWork } from '../state/store.ts';

/** A title may be longer than any list of edits is wide. */
const LONGEST_NAME = 60;

function nameOf(row: PhotoRow): string {
  const name = shownName(row.words, row.fileName);
  return name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME).trimEnd()}…` : name;
}

export const FIELD_NAMES: Record<keyof Words, string> = {
  role: 'role',
  alt: 'alt text',
  caption: 'caption',
  title: 'title',
  credit: 'credit',
  longDescription: 'long description',
};

/** `done` tells acts of their own, such as mending, from typing: they are undone on their own. */
export function saveWords(row: PhotoRow, words: Partial<Words>, done = ''): void {
  const fields = (Object.keys(words) as (keyof Words)[]).map((key) => FIELD_NAMES[key]).join(' and ');
  // While a title is typed it is no name yet: its strokes are one edit, under one name.
  const name = words.title === undefined ? nameOf(row) : row.fileName;
  edit(`${fields} of ${name}${done}`, [{ kind: 'words', photo: row.id, words }]);
}

/** Places of photos, each by its own answer; null follows the set. */
export function saveSlots(rows: readonly PhotoRow[], slotsFor: (row: PhotoRow) => SlotId[] | null): void {
  const what = rows.length === 1 ? nameOf(rows[0]!) : `${rows.length} photos`;
  const commands: Command[] = rows.map((row) => ({ kind: 'slots', photo: row.id, slots: slotsFor(row) }));
  // Who chooses for one photo has looked at the places.
  if (useWork.getState().set?.arranged === false) commands.push({ kind: 'set', change: { arranged: true } });
  edit(`places of ${what}`, commands);
}

export function putIntoBin(rows: readonly PhotoRow[]): void {
  const what = rows.length === 1 ? nameOf(rows[0]!) : `${rows.length} photos`;
  edit(
    `${what} put into the bin`,
    rows.map((row) => ({ kind: 'bin', photo: row.id, binned: true })),
  );
}

export function confirmFocal(rows: readonly PhotoRow[]): void {
  const what = rows.length === 1 ? nameOf(rows[0]!) : `${rows.length} photos`;
  edit(
    `focal point of ${what} confirmed`,
    rows.map((row) => ({ kind: 'focal', photo: row.id, focal: { ...row.focal, confirmed: true } })),
  );
}
