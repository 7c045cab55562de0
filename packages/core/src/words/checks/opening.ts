// Openings that a screen reader has said already.
import type { WordBook } from '../data/languages.ts';
import { withCapital, wordsOf } from '../text/text.ts';
import type { WordCheck } from './finding.ts';

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

/**
 * Takes openings away until none is left: "Image of a photo of cups" has two.
 * @returns null where what is left would be in the wrong case
 */
function withoutOpening(alt: string, book: WordBook): string | null {
  const copula = new RegExp(`^${oneOf(book.list('copulas'))}\\s+`, 'i');
  let rest = alt.trim();
  for (let opening = imageOpening(rest, book); opening !== null; opening = imageOpening(rest, book)) {
    // In some languages what leads on has said the case of what follows.
    const lead = wordsOf(opening).at(-1) ?? '';
    const isBound = book.has('bound', lead);
    rest = rest
      .slice(opening.length)
      .replace(/^[\s:,–—-]+/, '')
      .replace(copula, '');
    if (isBound) return null;
  }
  return book.has('bound', wordsOf(rest)[0] ?? '') ? null : withCapital(rest);
}

export const opensWithImage: WordCheck = ({ words, book }) => {
  const opening = imageOpening(words.alt, book);
  if (!opening) return null;
  const rest = withoutOpening(words.alt, book);
  return {
    code: 'opens-with-image',
    severity: 'care',
    sentence: `Opens with “${opening.replace(/[\s:,–—-]+$/, '')}”`,
    why: 'A screen reader says “image” already.',
    mend: rest ? { alt: rest } : null,
  };
};
