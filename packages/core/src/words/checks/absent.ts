// Alt texts that are no words: none, a file name, a placeholder.
import type { WordBook } from '../data/languages.ts';
import { plain, sounded, withCapital, withoutEnding, wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

export const missing: WordCheck = (context) =>
  context.words.alt.trim() === ''
    ? finding(context, 'missing', context.says.missing, { severity: 'todo' })
    : null;

const ENDINGS = 'jpe?g|png|gif|webp|avif|tiff?|svg|heic|heif|bmp|psd|raw|dng';
/** One word that ends as files do, with the marks that may follow it. */
const WORD_WITH_ENDING = new RegExp(`^\\S*[\\w)]\\.(?:${ENDINGS})[,;:.!?)]?$`, 'i');
const KINDS =
  '_?(?:dsc|dscf|dscn|img|mg|image|pict?|cimg|pxl|mvi|vid|scan|screenshot|photo)[-_ ]?\\d{3,}|gm_\\d{3,}|p\\d{6,}';
/** What cameras, phones and scanners call their files: letters, then a number of three digits or more. */
const CAMERA = new RegExp(`^(?:${KINDS})(?=$|[-_ (])`);
/** The same, glued together: nobody writes a sentence that begins with it. */
const CAMERA_WORD = new RegExp(`^(?:${KINDS})[-_\\da-z]{0,24}$`, 'i');
/** Copies and versions behind a camera's name: "-edited", "_2", " (1)". */
const SUFFIXES =
  /^(?:[-_][a-z\d]{1,24}| ?\(\d{1,4}\)| (?:copy|edited|edit|final|kopie|\d{1,6})(?![a-z\d])){0,5}$/;
/** A date and a time run together. */
const DATED = /^(?:\w{1,40}[-_ ])?(?:19|20)\d{6}(?:[-_ ]\d{1,12}){0,4}$/;
/** Date and time to the second, as programs put them into file names: "2026-05-01 at 11.04.22". */
const STAMP =
  /(?:19|20)\d\d[-_. ](?:0?[1-9]|1[0-2])[-_. ][0-3]?\d[,_ T-]{0,2}\s?(?:(?:at|um|à|a las|alle|om)\s)?[0-2]?\d[-.:h_ ][0-5]\d[-.:m_ ][0-5]\d(?:s|\s?[ap]m)?/i;
/** Words that programs put around a time: "Screenshot", "Some Program Image". */
const MOST_WORDS_BY_STAMP = 4;

/** True where a text is written as files are: no space, and joined or numbered in a way that prose is not. */
function joinedLikeFile(text: string): boolean {
  if (/\s/.test(text) || text.length < 4) return false;
  if (/_/.test(text)) return true;
  if (/^[a-z0-9]+(?:-[a-z0-9]+){2,}$/.test(text)) return true;
  // "hero-1600w", "kiln-02", "vase2b": prose has no hyphen or letter glued to a number like that.
  return /^[a-z]+-\d{2,}[a-z]*$/.test(text) || /^[a-z]{2,}\d+[a-z]*$/.test(text);
}

/** True for a camera's name with at most a few suffixes; false where words follow. */
function isCameraName(text: string): boolean {
  const name = CAMERA.exec(text);
  return name !== null && SUFFIXES.test(text.slice(name[0].length));
}

/** The text without a program's time and the few words around it, or null where there is none. */
function withoutStamp(alt: string): string | null {
  const stamp = STAMP.exec(alt);
  if (!stamp) return null;
  const before = alt.slice(0, stamp.index);
  // A sentence that tells a time has begun before it.
  if (wordsOf(before).length > MOST_WORDS_BY_STAMP) return null;
  return alt.slice(stamp.index + stamp[0].length);
}

/** What is said beside a file name inside the text, or null where it holds none. */
function besideFileName(alt: string): string | null {
  const words = alt.trim().split(/\s+/);
  const kept = words.filter((word) => !WORD_WITH_ENDING.test(word));
  // "IMG_0412 wood kiln at dusk": the number stands before what somebody wrote.
  if (kept.length === words.length && CAMERA_WORD.test(kept[0]!)) kept.shift();
  if (kept.length === words.length) return withoutStamp(alt);
  return kept.join(' ');
}

/** True for the photo's own file name as files are written, anything with a picture's ending, and what cameras and programs call their files. */
export function looksLikeFileName(alt: string, fileName: string): boolean {
  const text = plain(alt);
  // "Menu" may be a word, "town-hall" is written as files are.
  if (
    text === plain(fileName) ||
    (/[^\p{L}\s]\S/u.test(text) && !/\s/.test(text) && soundsLikeName(alt, fileName))
  )
    return true;
  if (isProductCode(alt)) return false;
  return isCameraName(text) || DATED.test(text) || joinedLikeFile(text) || besideFileName(alt) !== null;
}

/** True where a text is the file's own name as it sounds, however it is written. */
function soundsLikeName(alt: string, fileName: string): boolean {
  const own = sounded(withoutEnding(fileName));
  return own !== '' && sounded(withoutEnding(alt)) === own;
}

/** "RH-32-135", "B-07": capitals, hyphens and numbers, as makers name their goods; no camera's. */
const isProductCode = (alt: string): boolean =>
  /^[A-Z]{1,4}(?:-[A-Z]{0,2}\d{1,6}){1,4}[A-Z]?$/.test(alt.trim()) && !CAMERA.test(plain(alt));

/** How many words a text has that may be a sentence without a small word or a mark at its end. */
const READS_AS_SENTENCE = 3;

/** True where a text that equals its file's name was written for people, and the file named after it. */
function readsAsSentence(alt: string, book: WordBook): boolean {
  const words = wordsOf(alt);
  if (words.length < READS_AS_SENTENCE || /[_\d]/.test(alt)) return false;
  return /[.!?]$/.test(alt.trim()) || words.some((word) => book.has('functionWords', word));
}

export const fileName: WordCheck = (context) => {
  const { words, book, fileName: name, says } = context;
  if (looksLikeFileName(words.alt, name)) {
    // "DSC00198.JPG: bowls on a shelf" keeps its words.
    const rest = withoutMarks(besideFileName(words.alt) ?? '');
    return finding(context, 'file-name', rest ? says.holdsFileName : says.isFileName, {
      mend: { alt: wordsOf(rest).length > 1 ? withCapital(rest) : '' },
    });
  }
  // One word can be all that a link or a sign says, and their files are often called so.
  if (words.role === 'functional' || words.role === 'text') return null;
  if (!soundsLikeName(words.alt, name) || readsAsSentence(words.alt, book)) return null;
  return finding(context, 'file-name', says.sameAsFileName);
};

/** Without the marks and spaces around, but with the full stop at its end. */
function withoutMarks(text: string): string {
  const isMark = (c: string) => /[\s:;,\-–—()]/.test(c);
  let from = 0;
  let to = text.length;
  while (from < to && (isMark(text[from]!) || text[from] === '.')) from++;
  while (to > from && isMark(text[to - 1]!)) to--;
  return text.slice(from, to);
}

/** Stand-ins as they sound, by language. */
const heardStandIns = new Map<WordBook, ReadonlySet<string>>();
function standInsOf(book: WordBook): ReadonlySet<string> {
  const heard = heardStandIns.get(book) ?? new Set(book.list('standIns').map(sounded));
  heardStandIns.set(book, heard);
  return heard;
}

/** Rows of keys, as English and German keyboards have them. */
const ROWS = ['qwertyuiop', 'qwertzuiopü', 'asdfghjklöä', 'asdfghjkl', 'zxcvbnm', 'yxcvbnm'];
const BOTH_WAYS = [...ROWS, ...ROWS.map((row) => Array.from(row).reverse().join(''))];
const LEAST_RUN = 3;

/** How many letters from here on lie side by side on a keyboard. */
function runOfKeys(letters: string, from: number): number {
  const longest = (row: string): number => {
    const at = row.indexOf(letters[from]!);
    let length = 0;
    while (at >= 0 && at + length < row.length && letters[from + length] === row[at + length]) length++;
    return length;
  };
  return Math.max(...BOTH_WAYS.map(longest));
}

/** Letters in the order of a keyboard, or the same few again and again. */
function isMashed(text: string): boolean {
  const typed = text.replace(/\s/g, '');
  if (/^(.)\1*$/u.test(typed)) return true;
  // A key held down too long is still that key.
  const letters = typed.replace(/(.)\1+/gu, '$1');
  if (typed.length >= 4 && /^(.{1,4}?)\1+$/u.test(typed) && !/[aeiouyäöü]/.test(typed.slice(1, 3)))
    return true;
  if (letters.length < LEAST_RUN) return false;
  let at = 0;
  while (at < letters.length) {
    const run = runOfKeys(letters, at);
    // One finger may slip at the end: "asdfr".
    if (run < LEAST_RUN) return at >= 2 * LEAST_RUN - 2 && at + 1 === letters.length;
    at += run;
  }
  return true;
}

/** Who writes more words than this means something by them. */
const MOST_WORDS = 8;

/** A whole text that stands in for words, alone or with a number. */
const isStandIn = (heard: string, book: WordBook): boolean => {
  const standIns = standInsOf(book);
  return standIns.has(heard) || standIns.has(heard.replace(/ ?\d+$/, ''));
};

/**
 * True for stand-ins such as "test", "image 1", "asdf", "alt text to follow" or "lorem ipsum dolor". For a link or a
 * button ("functional") a single noun such as "Gallery" is a target and no placeholder.
 */
export function isPlaceholder(alt: string, book: WordBook, functional = false): boolean {
  const text = plain(alt);
  if (book.list('instructions').some((beginning) => text.startsWith(beginning))) return true;
  const heard = sounded(alt);
  if (heard === '' || isMashed(heard)) return true;
  if (isStandIn(heard, book) || isStandIn(heard.replaceAll(' ', ''), book)) return true;
  if (/^\d+$/.test(heard)) return true;
  const spoken = heard.split(' ');
  if (spoken.length > MOST_WORDS) return false;
  const words = spoken.map((word) => word.replace(/^(\p{L}+)\d+$/u, '$1'));
  const bare = words.filter((word) => !book.has('fillers', word) && !/^\d*[a-z]?$/.test(word));
  const isNoun = (word: string) =>
    book.has('emptyNouns', word) || book.has('emptyNouns', word.replace(/s$/, ''));
  if (!bare.every((word) => isNoun(word) || book.has('states', word))) return false;
  if (functional && bare.length === 1) return /\d/.test(heard) || book.has('dummies', bare[0]!);
  // "Open", "Coming": a state alone may be a sign's, or a button's.
  return !functional || bare.some(isNoun);
}

export const placeholderAlt: WordCheck = (context) => {
  const { words, book, says } = context;
  // "Coming soon" on a sign is its text: only what nobody paints is a stand-in there.
  const isFound =
    words.role === 'text'
      ? isMashed(sounded(words.alt)) ||
        book.list('instructions').some((beginning) => plain(words.alt).startsWith(beginning))
      : isPlaceholder(words.alt, book, words.role === 'functional');
  return isFound
    ? finding(context, 'placeholder', says.placeholder(says.quoted(words.alt.trim())), { mend: { alt: '' } })
    : null;
};
