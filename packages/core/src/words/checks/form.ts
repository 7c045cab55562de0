// How an alt text is written: too long, a list of keywords, all in capitals.
import type { WordBook } from '../data/languages.ts';
import { sounded, withCapital, wordsOf } from '../text/text.ts';
import type { WordCheck, WordFinding } from './finding.ts';

/** Characters that are heard in one breath; about as many as some screen readers read in one piece. */
export const LONGEST_ALT = 150;
/** A shortened text should still say something. */
const LEAST_LEFT = 30;

/** The text up to the last end of a sentence, or else of a clause, within the limit; null when there is none. */
function shortened(alt: string): { kept: string; rest: string } | null {
  const head = alt.slice(0, LONGEST_ALT);
  for (const end of [/[.!?](?=\s)/g, /[;:](?=\s)/g, /,(?=\s)|\s[–—]\s/g]) {
    const last = [...head.matchAll(end)].map((match) => match.index).at(-1);
    if (last === undefined || last < LEAST_LEFT) continue;
    const kept = alt
      .slice(0, last + 1)
      .replace(/[,;:–—]$/, '')
      .trimEnd();
    return { kept: /[.!?]$/.test(kept) ? kept : `${kept}.`, rest: alt };
  }
  return null;
}

export const tooLong: WordCheck = ({ words }) => {
  const alt = words.alt.trim();
  // Counted in characters as people count them, not in code units.
  const length = Array.from(alt).length;
  if (length <= LONGEST_ALT) return null;
  const short = shortened(alt);
  const keepsRest = words.longDescription.trim() === '';
  return {
    code: 'too-long',
    severity: 'care',
    sentence: `${length} characters: more than about ${LONGEST_ALT}`,
    why: 'An alt text is heard in one go, without a way back. A long description can be read at leisure.',
    mend: short && { alt: short.kept, ...(keepsRest && { longDescription: short.rest }) },
  };
};

/** Where the items of a list end; spaces must be single ones. */
const SEPARATORS = /[,;|•·/]| [-–—] /;

/** Why a text reads as a list of search words, or null. */
function keywordReason(alt: string, book: WordBook): string | null {
  const isSmall = (word: string) => book.has('functionWords', word);
  const hashtags = alt.match(/#[\p{L}\p{N}]+/gu) ?? [];
  if (hashtags.length >= 2) return 'Hashtags instead of a sentence';
  const words = wordsOf(alt);
  const content = words.filter((word) => !isSmall(word) && word.length > 2);
  const joined = 1 - content.length / Math.max(1, words.length);
  const items = alt
    .replace(/\s+/g, ' ')
    .split(SEPARATORS)
    .filter((item) => /\p{L}/u.test(item));
  if (items.length >= 4) {
    const heard = items.map(wordsOf);
    const bare = heard.filter((own) => own.every((word) => !isSmall(word)));
    const short = heard.every((own) => own.length <= 5);
    if (short && bare.length >= items.length - (items.length > 5 ? 1 : 0)) return 'A list of keywords';
  }
  if (items.length >= 3 && /\|/.test(alt) && joined < 0.25) return 'A list of keywords';
  const counts = new Map<string, number>();
  for (const word of content) {
    const stem = word.replace(/(?:es|s)$/, '');
    counts.set(stem, (counts.get(stem) ?? 0) + 1);
  }
  const [often, times] = [...counts].reduce<[string, number]>((a, b) => (b[1] > a[1] ? b : a), ['', 0]);
  if ((times >= 3 && joined < 0.25) || (times >= 4 && joined < 0.3)) {
    return `Says “${often}” ${times} times`;
  }
  if (words.length >= 9 && joined < 0.1) return 'A string of keywords';
  return null;
}

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
function stutterIn(alt: string, book: WordBook): Pick<WordFinding, 'sentence' | 'mend'> | null {
  const slips = [...new Set(slipsIn(alt, book).map(sounded))];
  const phrase = slips.length > 0 ? null : phraseTwice(alt, book);
  const said = phrase === null ? slips.slice(0, 3) : [phrase];
  if (said.length === 0) return null;
  return {
    sentence: `Says ${said.map((words) => `“${words}”`).join(', ')} twice in a row`,
    mend: phrase === null ? { alt: withoutStutter(alt) } : null,
  };
}

export const keywordList: WordCheck = ({ words, book }) => {
  const stutter = stutterIn(words.alt, book);
  if (stutter)
    return { code: 'keyword-list', severity: 'care', why: 'A listener hears this twice.', ...stutter };
  const reason = keywordReason(words.alt, book);
  if (reason === null) return null;
  return {
    code: 'keyword-list',
    severity: 'care',
    sentence: reason,
    why: 'Keywords are read out one by one and don’t make a picture; search engines count them against a page.',
    mend: null,
  };
};

/** Runs of capitals that are names of things rather than shouting: PDF, DIY, GM. */
const SHORT_FORM = 4;

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

export const allCapitals: WordCheck = ({ words, book }) => {
  const alt = words.alt.trim();
  if (!isShouted(alt)) return null;
  const calm = alt
    .toLowerCase()
    .replace(/(^|[.!?]\s+)(\p{Ll})/gu, (_, before: string, letter: string) => before + letter.toUpperCase());
  return {
    code: 'all-capitals',
    severity: 'care',
    sentence: 'Written in capitals',
    why: 'Some screen readers spell capitals letter by letter.',
    mend: book.capitalNouns ? null : { alt: withCapital(calm) },
  };
};
