// Whether a text says anything: one bare word, or nothing but colours and shapes.
import type { WordBook } from '../data/languages.ts';
import { wordsOf } from '../text/text.ts';
import type { WordCheck } from './finding.ts';

const speaks = (word: string, book: WordBook): boolean =>
  !book.has('functionWords', word) && !/^\d+\p{L}?$/u.test(word);

/** Words that carry something; small words and numbers hold them together. */
const contentOf = (text: string, book: WordBook): string[] =>
  wordsOf(text).filter((word) => speaks(word, book));

/** "Workshop.", "The kiln": a name for what is there, and nothing of what there is to see. */
export const hardlySays: WordCheck = ({ words: { role, alt, longDescription }, book }) => {
  // A link says where it leads, a sign what is written on it: there one word can be all.
  if (role === 'functional' || role === 'text' || role === 'decorative') return null;
  // A chart that is told in full elsewhere needs no more than its name.
  if (role === 'complex' && longDescription.trim() !== '') return null;
  if (contentOf(alt, book).length > 1) return null;
  return {
    code: 'hardly-says',
    severity: 'care',
    sentence: `“${alt.trim()}” hardly says anything`,
    why: 'Who can’t see the photo wants to know what there is to see: who or what, doing what, where.',
    mend: null,
  };
};

/** True for a word of colour, shape, size or surface, however it is inflected or put together. */
function isAppearance(word: string, book: WordBook): boolean {
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
export const onlyLook: WordCheck = ({ words: { role, alt, title, caption }, book }) => {
  if (role === 'functional' || role === 'decorative') return null;
  const content = contentOf(alt, book);
  const look = content.some((word) => isAppearance(word, book));
  if (!look || !namesNothing(content, book)) return null;
  const named = [title, caption].find((text) => {
    const said = contentOf(text, book);
    return said.length > 0 && !namesNothing(said, book);
  });
  if (named === undefined) return null;
  return {
    code: 'only-look',
    severity: 'care',
    sentence: 'Speaks of colours and shapes only',
    why: `Title or caption call it by its name (“${named.trim().slice(0, 60)}”): say here what it is as well.`,
    mend: null,
  };
};
