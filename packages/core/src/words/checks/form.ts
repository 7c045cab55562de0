// How an alt text is written: too long, all in capitals.
import { sounded, withCapital, wordsOf } from '../text/text.ts';
import { finding, type WordCheck, type WordContext } from './finding.ts';

/** Characters that are heard in one breath; about as many as some screen readers read in one piece. */
export const LONGEST_ALT = 150;
/** A shortened text should still say something. */
const LEAST_LEFT = 30;

/**
 * The text up to the last end of a sentence within the limit; null when there is none. Never at a comma or a colon: what
 * a list holds less would make another statement.
 */
function shortened(alt: string): { kept: string; rest: string } | null {
  const head = alt.slice(0, LONGEST_ALT + 1);
  const last = [...head.matchAll(/(?:[.!?]["”“»’)]?|;)(?=\s)/g)]
    .filter(({ index }) => !isShortForm(head.slice(0, index)))
    .at(-1);
  if (!last || last.index < LEAST_LEFT) return null;
  const kept = alt.slice(0, last.index + last[0].length).replace(/;$/, '.');
  return { kept, rest: alt };
}

/** "approx.", "St.", "3.": a stop behind so few letters, or a number, ends no sentence. */
const isShortForm = (before: string): boolean =>
  /(?:^|[\s(])(?:\p{L}{1,3}|approx|etc|Prof|Inv\.-Nr|\d{1,4})$/u.test(before);

export const tooLong: WordCheck = (context) => {
  const { words, says } = context;
  const alt = words.alt.trim();
  // Counted in characters as people count them, not in code units.
  const length = Array.from(alt).length;
  if (length <= LONGEST_ALT) return null;
  const short = shortened(alt);
  const keepsRest = words.longDescription.trim() === '';
  return finding(context, 'too-long', says.tooLong(length, LONGEST_ALT), {
    mend: short && { alt: short.kept, ...(keepsRest && { longDescription: short.rest }) },
  });
};

/** Runs of capitals that are names of things rather than shouting: PDF, DIY, GM. */
const SHORT_FORM = 4;

/** What stands in quotes is read off something. */
const QUOTED = /[“„«"»‚‘][^“”„«»"‘’]{0,200}[”“»"«’‘]/g;

function isShouted(alt: string): boolean {
  const letters = alt.match(/\p{L}/gu) ?? [];
  const capitals = alt.match(/\p{Lu}/gu) ?? [];
  if (letters.length <= SHORT_FORM) return false;
  const long = (alt.match(/\p{L}{2,}/gu) ?? []).filter((word) => word.length > SHORT_FORM);
  if (capitals.length >= 0.9 * letters.length) return long.length > 0 || letters.length > 8;
  // Three long words or more in capitals, and more of them than not.
  // Scripts without small letters shout at nobody.
  const loud = long.filter((word) => word === word.toUpperCase() && word !== word.toLowerCase());
  return loud.length >= 3 && loud.length > long.length / 2;
}

/** True where capitals are what a sign shows: it is spoken of, or its words were read in the picture. */
function isRead(
  alt: string,
  { book, words, shown = [] }: Pick<WordContext, 'book' | 'words' | 'shown'>,
): boolean {
  if (words.role === 'text') return true;
  const isWritten = (word: string) => /\p{Ll}/u.test(word) && book.has('lettering', sounded(word));
  if (alt.split(/[\s:,.]+/).some(isWritten)) return true;
  const read = new Set(shown.flatMap((line) => wordsOf(line.text)));
  const heard = wordsOf(alt);
  return read.size > 0 && heard.filter((word) => read.has(word)).length >= heard.length / 2;
}

export const allCapitals: WordCheck = (context) => {
  const { words, book, says } = context;
  const alt = words.alt.trim();
  if (!isShouted(alt.replace(QUOTED, ' ')) || isRead(alt, context)) return null;
  const calm = alt
    .toLowerCase()
    .replace(/(^|[.!?]\s+)(\p{Ll})/gu, (_, before: string, letter: string) => before + letter.toUpperCase());
  return finding(context, 'all-capitals', says.capitals, {
    mend: book.capitalNouns ? null : { alt: withCapital(calm) },
  });
};
