// Alt texts that are no words: none, a file name, a placeholder.
import { EMPTY_NOUNS, FILLERS, INSTRUCTIONS, STAND_INS } from '../data/placeholders.en.ts';
import { plain, sounded, withCapital, withoutEnding, wordsOf } from '../text.ts';
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

const ENDING = 'jpe?g|png|gif|webp|avif|tiff?|svg|heic|heif|bmp|psd|raw|dng';
const NAME_WITH_ENDING = new RegExp(`(?:^|\\s)\\S*\\w\\.(?:${ENDING})(?=$|[\\s,;:.!?)])`, 'i');
/** What cameras, phones and scanners call their files: letters, then a number of three digits or more. */
const CAMERA =
  /^(?:dsc|dscf|dscn|img|image|pict?|gm|pxl|mvi|vid|scan|screenshot|p|photo)[-_ ]?\d{3,}(?:[-_ ]?\w+)*(?: ?\(\d+\))?$/;
/** A date and a time run together. */
const DATED = /^(?:\w+[-_ ])?(?:19|20)\d{6}(?:[-_ ]\d+)*$/;

/** True where a text is written as files are: no space, and joined or numbered in a way that prose is not. */
function joinedLikeFile(text: string): boolean {
  if (/\s/.test(text) || text.length < 4) return false;
  if (/_/.test(text)) return true;
  if (/^[a-z0-9]+(?:-[a-z0-9]+){2,}$/.test(text)) return true;
  // "hero-1600w", "kiln-02", "vase2b": prose has no hyphen or letter glued to a number like that.
  return /^[a-z]+-\d{2,}[a-z]*$/.test(text) || /^[a-z]{2,}\d+[a-z]*$/.test(text);
}

/** True for the photo's own file name, anything with a picture's ending, and what cameras call their files. */
export function looksLikeFileName(alt: string, fileName: string): boolean {
  const text = plain(alt);
  const own = sounded(withoutEnding(fileName));
  if (text === plain(fileName) || (own !== '' && sounded(withoutEnding(text)) === own)) return true;
  if (NAME_WITH_ENDING.test(alt)) return true;
  return CAMERA.test(text) || DATED.test(text) || joinedLikeFile(text);
}

export const fileName: WordCheck = ({ words, fileName: name }) => {
  if (!looksLikeFileName(words.alt, name)) return null;
  // "DSC00198.JPG: bowls on a shelf" keeps its words.
  const rest = words.alt
    .replace(new RegExp(NAME_WITH_ENDING, 'gi'), ' ')
    .replace(/^[\s:;,.\-–—()]+|[\s:;,\-–—(]+$/g, '')
    .replace(/\s+/g, ' ');
  return {
    code: 'file-name',
    severity: 'care',
    sentence: rest && rest !== words.alt.trim() ? 'Holds a file name' : 'Is a file name',
    why: 'Read aloud, it tells nobody what the photo shows.',
    mend: { alt: wordsOf(rest).length > 1 && rest !== words.alt.trim() ? withCapital(rest) : '' },
  };
};

const emptyNouns = new Set(EMPTY_NOUNS);
const fillers = new Set(FILLERS);
const standIns = new Set(STAND_INS.map(sounded));

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
export function isPlaceholder(alt: string, functional = false): boolean {
  const text = plain(alt);
  if (INSTRUCTIONS.some((beginning) => text.startsWith(beginning))) return true;
  const heard = sounded(alt);
  if (heard === '' || isMashed(heard)) return true;
  if (standIns.has(heard) || standIns.has(heard.replace(/ ?\d+$/, ''))) return true;
  if (/^\d+$/.test(heard)) return true;
  const spoken = heard.split(' ');
  if (spoken.length > MOST_WORDS) return false;
  const words = spoken.map((word) => word.replace(/^([a-z]+)\d+$/, '$1').replace(/s$/, ''));
  const bare = words.filter((word) => !fillers.has(word) && !/^\d*[a-z]?$/.test(word));
  const empty = bare.every((word) => emptyNouns.has(word));
  if (!empty) return false;
  return (
    !functional ||
    bare.length !== 1 ||
    /\d/.test(heard) ||
    ['test', 'dummy', 'placeholder'].includes(bare[0]!)
  );
}

export const placeholder: WordCheck = ({ words }) =>
  isPlaceholder(words.alt, words.role === 'functional')
    ? {
        code: 'placeholder',
        severity: 'care',
        sentence: `“${words.alt.trim()}” is a placeholder`,
        why: 'Visitors who can’t see the photo learn nothing from it.',
        mend: { alt: '' },
      }
    : null;
