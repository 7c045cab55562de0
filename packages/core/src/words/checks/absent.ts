// Alt texts that are no words: none, a file name, a placeholder.
import type { WordBook } from '../data/languages.ts';
import { plain, sounded, withCapital, withoutEnding, wordsOf } from '../text/text.ts';
import type { WordCheck } from './finding.ts';

export const missing: WordCheck = ({ words }) =>
  words.alt.trim() === ''
    ? {
        code: 'missing',
        severity: 'todo',
        sentence: 'No words yet',
        why: 'A screen reader may read the file name instead.',
        mend: null,
      }
    : null;

const ENDINGS = 'jpe?g|png|gif|webp|avif|tiff?|svg|heic|heif|bmp|psd|raw|dng';
/** One word that ends as files do, with the marks that may follow it. */
const WORD_WITH_ENDING = new RegExp(`^\\S*\\w\\.(?:${ENDINGS})[,;:.!?)]?$`, 'i');
const KINDS = 'dsc|dscf|dscn|img|image|pict?|gm|pxl|mvi|vid|scan|screenshot|p|photo';
/** What cameras, phones and scanners call their files: letters, then a number of three digits or more. */
const CAMERA = new RegExp(`^(?:${KINDS})[-_ ]?\\d{3,}(?=$|[-_ (])`);
/** The same, glued together: nobody writes a sentence that begins with it. */
const CAMERA_WORD = new RegExp(`^(?:${KINDS})[-_]?\\d{3,}[-_\\da-z]{0,24}$`, 'i');
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

/** True for the photo's own file name, anything with a picture's ending, and what cameras and programs call their files. */
export function looksLikeFileName(alt: string, fileName: string): boolean {
  const text = plain(alt);
  const own = sounded(withoutEnding(fileName));
  if (text === plain(fileName) || (own !== '' && sounded(withoutEnding(text)) === own)) return true;
  return isCameraName(text) || DATED.test(text) || joinedLikeFile(text) || besideFileName(alt) !== null;
}

export const fileName: WordCheck = ({ words, fileName: name }) => {
  if (!looksLikeFileName(words.alt, name)) return null;
  // "DSC00198.JPG: bowls on a shelf" keeps its words.
  const beside = besideFileName(words.alt) ?? '';
  const rest = withoutMarks(beside);
  return {
    code: 'file-name',
    severity: 'care',
    sentence: rest ? 'Holds a file name' : 'Is a file name',
    why: 'Read aloud, it tells nobody what the photo shows.',
    mend: { alt: wordsOf(rest).length > 1 ? withCapital(rest) : '' },
  };
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

/** Letters in the order of a keyboard, or the same few again and again. */
function isMashed(text: string): boolean {
  const letters = text.replace(/\s/g, '');
  if (/^(.)\1*$/u.test(letters)) return true;
  if (letters.length >= 4 && /^(.{1,4}?)\1+$/u.test(letters) && !/[aeiouy]/.test(letters.slice(1, 3)))
    return true;
  return /^(?:qwe|wer|ert|rty|tyu|qwertz?|asd|sdf|dfg|fgh|ghj|hjk|jkl|zxc|xcv|cvb|vbn|bnm){1,}[a-z]?$/.test(
    letters,
  );
}

/** Who writes more words than this means something by them. */
const MOST_WORDS = 8;

/**
 * True for stand-ins such as "test", "image 1", "asdf" or "lorem ipsum dolor". For a link or a button ("functional")
 * a single noun such as "Gallery" is a target and no placeholder.
 */
export function isPlaceholder(alt: string, book: WordBook, functional = false): boolean {
  const text = plain(alt);
  if (book.list('instructions').some((beginning) => text.startsWith(beginning))) return true;
  const heard = sounded(alt);
  if (heard === '' || isMashed(heard)) return true;
  const standIns = standInsOf(book);
  if (standIns.has(heard) || standIns.has(heard.replace(/ ?\d+$/, ''))) return true;
  if (/^\d+$/.test(heard)) return true;
  const spoken = heard.split(' ');
  if (spoken.length > MOST_WORDS) return false;
  const words = spoken.map((word) => word.replace(/^(\p{L}+)\d+$/u, '$1'));
  const bare = words.filter((word) => !book.has('fillers', word) && !/^\d*[a-z]?$/.test(word));
  const empty = bare.every(
    (word) => book.has('emptyNouns', word) || book.has('emptyNouns', word.replace(/s$/, '')),
  );
  if (!empty) return false;
  return !functional || bare.length !== 1 || /\d/.test(heard) || book.has('dummies', bare[0]!);
}

export const placeholderAlt: WordCheck = ({ words, book }) =>
  isPlaceholder(words.alt, book, words.role === 'functional')
    ? {
        code: 'placeholder',
        severity: 'care',
        sentence: `“${words.alt.trim()}” is a placeholder`,
        why: 'Visitors who can’t see the photo learn nothing from it.',
        mend: { alt: '' },
      }
    : null;
