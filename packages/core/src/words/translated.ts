// Words for a page in one of a site's languages: those that are written in it, and where there are none, the first ones.
import type { Language, Words } from '../contract/index.ts';
import { primaryOf } from '../html/phrases.ts';

export interface ShownWords {
  words: Words;
  /** The language that they are in. */
  language: Language;
}

/**
 * @param main words in the site's first language
 * @param own words in the page's language; what a photo is here for, who made it and where it leads hang on no language,
 *   and are taken from the first where they are not said
 */
export function wordsFor(main: ShownWords, own: ShownWords | undefined): ShownWords {
  const { role } = main.words;
  if (!own || own.language === main.language) return main;
  // Nobody wrote in it: the first language is better than silence, and is marked as such.
  if (role !== 'decorative' && own.words.alt.trim() === '' && main.words.alt.trim() !== '') return main;
  return {
    language: own.language,
    words: {
      ...own.words,
      role,
      credit: own.words.credit || main.words.credit,
      link: own.words.link || main.words.link,
      newWindow: own.words.link ? own.words.newWindow : main.words.newWindow,
    },
  };
}

/** Languages that are written from right to left, by their subtags (Unicode CLDR). */
const RIGHT_TO_LEFT = new Set(['ar', 'arc', 'ckb', 'dv', 'fa', 'he', 'ku', 'ps', 'sd', 'ug', 'ur', 'yi']);

export const isRightToLeft = (language: Language): boolean => RIGHT_TO_LEFT.has(primaryOf(language));
