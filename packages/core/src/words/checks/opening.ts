// Openings that a screen reader has said already.
import type { WordBook } from '../data/languages.ts';
import { withCapital, wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/ /g, '\\s+');
const oneOf = (list: readonly string[]): string =>
  `(?:${[...list]
    .sort((a, b) => b.length - a.length)
    .map(escaped)
    .join('|')})`;

const patterns = new Map<WordBook, RegExp>();

function patternOf(book: WordBook): RegExp {
  const known = patterns.get(book);
  if (known) return known;
  const noun = oneOf(book.list('pictureNouns'));
  const before = `(?:${oneOf(book.list('presenters'))}\\s+)?(?:${oneOf(book.list('determiners'))}\\s+)?`;
  const named = `${before}(?:${oneOf(book.list('idleAdjectives'))}\\s+){0,2}${noun}`;
  const pattern = new RegExp(
    [
      `^${named}\\s+${oneOf(book.list('leads'))}(?![\\p{L}\\p{N}])`,
      // "Photo: bowls", "Image – bowls".
      `^${noun}\\s*(?::|\\s[-–—]\\s)`,
      `^${oneOf(book.list('fixedOpenings'))}(?![\\p{L}\\p{N}])\\s*[:,]?`,
    ].join('|'),
    'iu',
  );
  patterns.set(book, pattern);
  return pattern;
}

/** The opening that a screen reader has said already, as written, or null. */
export function imageOpening(alt: string, book: WordBook): string | null {
  return patternOf(book).exec(alt.trimStart())?.[0].trimEnd() ?? null;
}

/** "Picture of Agnes Thorpe": two capitals in a row, and it may hang on a wall. */
const NAME = /^\p{Lu}[\p{Ll}’'-]+(?:\s+(?:von|van|de|der|of)){0,2}\s+\p{Lu}[\p{Ll}’'-]+/u;
/** "Photograph from 1911": that it is one, and when it was taken, is what there is to know. */
const YEAR = /^(?:(?:the )?year |jahre? |dem jahr |um |about |around |ca\. )?(?:1[5-9]|20)\d\d\b/i;

/** True where that it is a picture tells something: a painting of somebody, a photograph of a year. */
function isOneToSee(opening: string, rest: string, book: WordBook): boolean {
  const heard = wordsOf(opening);
  if (YEAR.test(rest) && heard.some((word) => book.has('oldPictures', word))) return true;
  return NAME.test(rest) && heard.some((word) => book.has('paintings', word));
}

/**
 * Takes openings away until none is left: "Image of a photo of cups" has two.
 * @returns null where what is left would be in the wrong case or order
 */
function withoutOpening(alt: string, book: WordBook): string | null {
  const copula = new RegExp(`^${oneOf(book.list('copulas'))}\\s+`, 'i');
  let rest = alt.trim();
  for (let opening = imageOpening(rest, book); opening !== null; opening = imageOpening(rest, book)) {
    // In some languages what leads on has said the case of what follows, or turns the sentence round.
    const lead = wordsOf(opening).at(-1) ?? '';
    const isBound = book.has('bound', lead);
    const behind = rest.slice(opening.length);
    const isTurned = book.has('turning', wordsOf(opening)[0]!) && /^\s+\p{Ll}/u.test(behind);
    rest = behind.replace(/^[\s:,–—-]+/, '').replace(copula, '');
    if (isBound || isTurned) return null;
  }
  return book.has('bound', wordsOf(rest)[0] ?? '') ? null : withCapital(rest);
}

export const opensWithImage: WordCheck = (context) => {
  const { words, book, says } = context;
  const opening = imageOpening(words.alt, book);
  if (!opening || isOneToSee(opening, words.alt.trim().slice(opening.length).trimStart(), book)) return null;
  const rest = withoutOpening(words.alt, book);
  return finding(
    context,
    'opens-with-image',
    says.opensWith(says.quoted(opening.replace(/[\s:,–—-]+$/, ''))),
    { mend: rest ? { alt: rest } : null },
  );
};
