// Whether a text says anything: one bare word, or nothing but colours and shapes.
import type { WordBook } from '../data/languages.ts';
import { wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

const speaks = (word: string, book: WordBook): boolean =>
  !book.has('functionWords', word) && !/^\d+\p{L}?$/u.test(word);

/** Words that carry something; small words and numbers hold them together. */
const contentOf = (text: string, book: WordBook): string[] =>
  wordsOf(text).filter((word) => speaks(word, book));

/** "Lot 47", "Room 12": a number makes a name of a word, a year does not. */
const NUMBERED = /^\p{L}{2,}\s(?!(?:19|20)\d\d$)\d{1,5}\p{L}?$/u;

/** "Workshop.", "The kiln": a name for what is there, and nothing of what there is to see. */
export const hardlySays: WordCheck = (context) => {
  const { book, says } = context;
  const { role, alt, longDescription } = context.words;
  // A link says where it leads, a sign what is written on it: there one word can be all.
  if (role === 'functional' || role === 'text' || role === 'decorative') return null;
  // A chart that is told in full elsewhere needs no more than its name.
  if (role === 'complex' && longDescription.trim() !== '') return null;
  if (contentOf(alt, book).length > 1 || NUMBERED.test(alt.trim())) return null;
  return finding(context, 'hardly-says', says.hardlySays(says.quoted(alt.trim())));
};

/** True for a word of colour, shape, size or surface, however it is inflected or put together. */
export function isAppearance(word: string, book: WordBook): boolean {
  const stems = [
    word,
    ...book.inflections
      .filter((ending) => word.endsWith(ending))
      .map((ending) => word.slice(0, -ending.length)),
  ];
  return stems.some(
    (stem) =>
      book.has('appearance', stem) ||
      book.appearanceEndings.some((ending) => stem.length > ending.length && stem.endsWith(ending)),
  );
}

/** True where a text names nothing: colours and shapes, and words that stand for anything. */
function namesNothing(content: readonly string[], book: WordBook): boolean {
  return content.every((word) => isAppearance(word, book) || book.has('generics', word));
}

/** "Something round and green", where the title calls it a celadon bowl. */
export const onlyLook: WordCheck = (context) => {
  const { book, says } = context;
  const { role, alt, title, caption } = context.words;
  if (role === 'functional' || role === 'decorative') return null;
  const content = contentOf(alt, book);
  const look = content.some((word) => isAppearance(word, book));
  if (!look || !namesNothing(content, book)) return null;
  const named = [title, caption].find((text) => {
    const said = contentOf(text, book);
    return said.length > 0 && !namesNothing(said, book);
  });
  if (named === undefined) return null;
  const name = says.quoted(named.trim().slice(0, 60));
  return { ...finding(context, 'only-look', says.onlyLook), why: says.named(name) };
};
