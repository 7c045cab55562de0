// Files that come in by a hand: dropped, pasted or chosen.

/** Folders carry the notes of operating systems along; nobody means those. */
export const meant = (files: readonly File[]): File[] =>
  files.filter(({ name }) => !name.startsWith('.') && name !== 'Thumbs.db');

export const NOTHING_THERE = 'There was no photo in what was chosen.';
