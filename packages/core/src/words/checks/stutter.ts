// What is said twice in a row: a slip of the hand, or of a paste.
import type { WordBook } from '../data/languages.ts';
import { sounded, wordsOf } from '../text/text.ts';
import { finding, type WordContext, type WordFinding } from './finding.ts';

/** Words that stand twice in a row with nothing but spaces between. */
function stutters(alt: string): string[] {
  const words = alt.split(/\s+/);
  return words.filter(
    (word, i) =>
      i > 0 &&
      /\p{L}/u.test(word) &&
      sounded(word) === sounded(words[i - 1]!) &&
      /[\p{L}\p{N}]$/u.test(words[i - 1]!),
  );
}

/** The text with each run of one word said once. */
function withoutStutter(alt: string): string {
  const words = alt.trim().split(/\s+/);
  // The last of a run carries the mark that ends a sentence, the first the capital that begins it.
  const once: string[] = [];
  for (const word of words) {
    const last = once.at(-1);
    if (last !== undefined && sounded(last) === sounded(word) && /\p{L}/u.test(word)) {
      once[once.length - 1] = last + word.slice(/[\p{L}\p{N}’'-]*/u.exec(word)![0].length);
    } else once.push(word);
  }
  return once.join(' ');
}

/** Words of a phrase that is said again at once. Two are often meant: "row upon row upon row". */
const LEAST_PHRASE = 3;
const LONGEST_PHRASE = 40;

/** A phrase of several words that stands twice in a row, as it sounds, or null. */
function phraseTwice(alt: string, book: WordBook): string | null {
  const heard = wordsOf(alt);
  // "A picture of a picture of the bay" is no slip: what comes again must say something.
  const says = (phrase: readonly string[]) =>
    phrase.filter((word) => !book.has('functionWords', word)).length >= 2;
  for (let length = LEAST_PHRASE; length <= Math.min(LONGEST_PHRASE, heard.length >> 1); length++) {
    // How many words in a row equal those that stand `length` before them.
    let run = 0;
    for (let at = length; at < heard.length; at++) {
      run = heard[at] === heard[at - length] ? run + 1 : 0;
      if (run !== length) continue;
      const phrase = heard.slice(at - length + 1, at + 1);
      if (says(phrase)) return phrase.join(' ');
    }
  }
  return null;
}

/** Words that stand twice in a row by a slip. A name may double a word: its second begins with a capital. */
const slipsIn = (alt: string, book: WordBook): string[] =>
  stutters(alt).filter((word) => {
    const heard = sounded(word);
    if (book.has('doubled', heard)) return false;
    return book.has('functionWords', heard) || word === word.toLowerCase() || book.capitalNouns;
  });

/** What is said twice in a row, with a mend where it is single words. */
export function stutterIn(context: WordContext): WordFinding | null {
  const { book, says } = context;
  const { alt } = context.words;
  const slips = [...new Set(slipsIn(alt, book).map(sounded))];
  const phrase = slips.length > 0 ? null : phraseTwice(alt, book);
  const said = phrase === null ? slips.slice(0, 3) : [phrase];
  if (said.length === 0) return null;
  return {
    ...finding(context, 'keyword-list', says.twice(said.map(says.quoted).join(', ')), {
      mend: phrase === null ? { alt: withoutStutter(alt) } : null,
    }),
    why: says.heardTwice,
  };
}
