// Places in an order as keys that sort by their characters' codes: a move changes the key of what is moved alone.
import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';

/** A longer one would only come of thousands of moves into one gap. */
export const LONGEST_POSITION = 200;

export const isPosition = (text: string): boolean =>
  text.length > 0 && text.length <= LONGEST_POSITION && /^[A-Za-z][0-9A-Za-z]*$/.test(text);

/** Digit that lies in the middle of all of them. */
const MIDDLE = 'V';

/**
 * A key between two others; null stands for the end of the order. Two windows may have moved photos into one gap and
 * given them one key: what is moved between these comes right behind both.
 */
export function positionBetween(before: string | null, after: string | null): string {
  if (before !== null && after !== null && before >= after) return `${before}${MIDDLE}`;
  try {
    return generateKeyBetween(before, after);
  } catch {
    // A key that others made may be none of this kind; it sorts all the same.
    return `${before ?? 'a0'}${MIDDLE}`;
  }
}

/** So many keys in their order. */
export const positions = (count: number): string[] => generateNKeysBetween(null, null, count);

/** Compares as the database does: by position, and where two are equal by age. */
export const inOrder = (a: { position: string; id: number }, b: { position: string; id: number }): number =>
  a.position < b.position ? -1 : a.position > b.position ? 1 : a.id - b.id;
