// Words put in a row to be found by, instead of saying what there is to see.
import type { WordBook } from '../data/languages.ts';
import { sounded, wordsOf } from '../text/text.ts';
import { finding, type WordCheck, type WordContext } from './finding.ts';
import { stutterIn } from './stutter.ts';

/** Where the items of a list end; spaces must be single ones. */
const SEPARATORS = /[,;|•·/]| [-–—] /;
/** Items of a list, from which it may be one of keywords. */
const LEAST_ITEMS = 4;
/** Words of an item, at most: longer ones say something. */
const LONGEST_ITEM = 5;
/** Words without a joining one, from which they are a chain. */
const LEAST_CHAIN = 4;
/** So many words of a clause, without one to hold them together, are no sentence in any language here. */
const LONGEST_LOOSE = 9;

/** A text as this check sees it. */
interface Read {
  alt: string;
  book: WordBook;
  heard: readonly string[];
  /** Those that carry something. */
  content: readonly string[];
  /** Small words ÷ all words. */
  joined: number;
  items: readonly string[];
}

function readText(alt: string, book: WordBook): Read {
  const heard = wordsOf(alt);
  const content = heard.filter((word) => !book.has('functionWords', word) && word.length > 2);
  const items = alt
    .replace(/\s+/g, ' ')
    .split(SEPARATORS)
    .filter((item) => /\p{L}/u.test(item));
  return { alt, book, heard, content, items, joined: 1 - content.length / Math.max(1, heard.length) };
}

/** The word without what makes it many or inflects it: "bike" and "bikes" are one. */
const stemOf = (word: string): string => word.replace(/(?:es|en|s|e|n)$/, '');

/** Stage 1, stage 2: a word that a number stands beside counts something. */
const isCounted = (heard: readonly string[], at: number): boolean =>
  /^\d/.test(heard[at - 1] ?? '') || /^\d/.test(heard[at + 1] ?? '');

/** The word that is said most, and how often; where a number stands beside it, it is not counted. */
function oftenest({ heard, content }: Read): [string, number] {
  const carries = new Set(content);
  const counts = new Map<string, [string, number]>();
  heard.forEach((word, at) => {
    if (!carries.has(word) || isCounted(heard, at)) return;
    const [first, times] = counts.get(stemOf(word)) ?? [word, 0];
    counts.set(stemOf(word), [first, times + 1]);
  });
  return [...counts.values()].reduce((a, b) => (b[1] > a[1] ? b : a), ['', 0]);
}

/** Words of selling, and of subjects where nothing is told of them. */
const soldIn = ({ content, book }: Read): number => content.filter((word) => book.has('sales', word)).length;
const subjectsIn = ({ content, book }: Read): number =>
  content.filter((word) => isSubject(word, book)).length;

const praiseIn = ({ content, book }: Read): number =>
  content.filter((word) => book.has('praise', word)).length;

/** So much of subjects and praise makes a bare list one of keywords. */
const LISTED = 1.5;
/** So much of selling, subjects and praise stands in no chain of words that somebody meant to be heard. */
const NEVER_SAID = 2.5;

/** Shorter endings are of too many words. */
const LEAST_ENDING = 6;
/** A subject, many of it, or in languages that join words one that ends so: "Reiseversicherung". */
const isSubject = (word: string, book: WordBook): boolean =>
  [word, word.replace(/s$/, '')].some((form) => book.has('subjects', form)) ||
  (book.capitalNouns &&
    book.list('subjects').some((subject) => subject.length >= LEAST_ENDING && word.endsWith(subject)));

/** "Hochzeit, Hochzeitsfotos, Hochzeitsfotograf": one word alone, and put together with others. */
const isVaried = ({ items }: Read): boolean => {
  const heard = items.map((item) => sounded(item));
  return heard.some(
    (item) =>
      item.length > 3 &&
      !item.includes(' ') &&
      heard.filter((other) => other !== item && other.includes(item)).length > 1,
  );
};

/** Hours, prices, quantities, scores and dates are lists that somebody wants to hear. */
const isMeasured = ({ items }: Read): boolean =>
  items.filter((item) => /\d/.test(item)).length >= items.length / 2;

/** Menus, programmes and squads say first what follows, or are told in sentences. */
const isLedIn = ({ alt }: Read): boolean =>
  /^\p{L}[^,;|.:]{0,60}:\s/u.test(alt) || /[.!?]\s+\p{Lu}/u.test(alt);

/** Short items with no small word: a list of things, of names, or of keywords. */
function isBareList({ items, book }: Read): boolean {
  if (items.length < LEAST_ITEMS) return false;
  const heard = items.map(wordsOf);
  const bare = heard.filter((own) => own.every((word) => !book.has('functionWords', word)));
  return (
    heard.every((own) => own.length <= LONGEST_ITEM) &&
    bare.length >= items.length - (items.length > LEAST_ITEMS + 1 ? 1 : 0)
  );
}

/** "pottery, handmade, bowls": begun small and ended by nothing, as nobody writes a sentence where nouns are small, too. */
const isTyped = ({ alt, book, items }: Read, times: number): boolean =>
  !book.capitalNouns &&
  (items.length > LEAST_ITEMS || times > 1) &&
  /^\p{Ll}/u.test(alt) &&
  !/[.!?]$/.test(alt) &&
  !/\band\b/.test(alt);

const hashtagsIn = (alt: string): number => alt.match(/#[\p{L}\p{N}]+/gu)?.length ?? 0;

/** Why a text reads as words to be found by, or null. */
function keywordReason(read: Read, says: WordContext['says']): string | null {
  const { alt, book, heard, content, items, joined } = read;
  if (hashtagsIn(alt) >= 2) return says.hashtags;
  if (isMeasured(read) && items.length >= LEAST_ITEMS - 1) return null;
  const sold = soldIn(read);
  const put = sold + subjectsIn(read) + praiseIn(read) / 2;
  const [often, times] = oftenest(read);
  if (isBareList(read) && !isLedIn(read)) {
    if (sold > 0 || put >= LISTED || times >= 3 || isTyped(read, times)) return says.keywords;
    if (isVaried(read)) return says.keywords;
  }
  if (items.length >= 3 && /\|/.test(alt) && joined < 0.25) return says.keywords;
  if (!isLedIn(read) && times >= 3 && joined < 0.3) return says.often(says.quoted(often), times);
  // A chain has no marks and nothing that joins.
  if (/[,;:.!?“”„()–—]|\s-\s/u.test(alt.replace(/[.!?]$/, ''))) return null;
  if (content.length < LEAST_CHAIN || joined > 0.1) return null;
  if (sold >= 2 || (sold >= 1 && put >= 2) || put >= NEVER_SAID) return says.keywordString;
  const isLoose = book.capitalNouns
    ? allNouns(alt, heard.length)
    : heard.length >= LONGEST_LOOSE && joined === 0;
  return isLoose || (put >= 1 && /^\p{Ll}/u.test(alt) && heard.length > LEAST_CHAIN)
    ? says.keywordString
    : null;
}

/** Where nouns have capitals: so many in a row, and hardly another word. A name has two or three. */
function allNouns(alt: string, count: number): boolean {
  const capitals = alt.split(/\s+/).filter((word) => /^\p{Lu}/u.test(word)).length;
  return count > LEAST_CHAIN && capitals >= count - 1;
}

/** Terms of the site in one text, from which it is stuffed with them. */
const STUFFED = 3;

/** Terms that the text is full of, or none. */
function stuffedWith(alt: string, terms: readonly string[], book: WordBook): readonly string[] {
  const heard = ` ${sounded(alt)} `;
  const said = terms.filter((term) => sounded(term) !== '' && heard.includes(` ${sounded(term)} `));
  const inTerms = new Set(said.flatMap(wordsOf));
  const content = wordsOf(alt).filter((word) => !book.has('functionWords', word));
  const share = content.filter((word) => inTerms.has(word)).length / Math.max(1, content.length);
  return said.length >= STUFFED && share >= 0.5 ? said : [];
}

export const keywordList: WordCheck = (context) => {
  const { words, book, says, terms = [] } = context;
  const stutter = stutterIn(context);
  if (stutter) return stutter;
  // A programme, a menu or a price list that the picture shows is what there is to tell.
  if (words.role === 'text' || words.role === 'complex') {
    return hashtagsIn(words.alt) >= LEAST_ITEMS ? finding(context, 'keyword-list', says.hashtags) : null;
  }
  const stuffed = stuffedWith(words.alt, terms, book);
  const reason =
    stuffed.length > 0
      ? says.stuffed(stuffed.slice(0, STUFFED).map(says.quoted).join(', '))
      : keywordReason(readText(words.alt.trim(), book), says);
  return reason === null ? null : finding(context, 'keyword-list', reason);
};
