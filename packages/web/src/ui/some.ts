// Counted things in words.

/** So many of something, in words: 1 photo, 2 photos. */
export const some = (count: number, one: string, more: string): string =>
  `${count} ${count === 1 ? one : more}`;
