// Words for a page in one of a site's languages: those that are written in it, and where there are none, the first ones.
import type { Language, Photo, Placement, Words, WordsText } from '../contract/index.ts';

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

/** Words that hang on a language; where a picture leads and who made it do not. */
export const SPOKEN = ['alt', 'caption', 'title', 'longDescription'] as const satisfies readonly WordsText[];

export const isSpoken = (field: string): field is (typeof SPOKEN)[number] =>
  SPOKEN.some((one) => one === field);

/** A placement with the words that it has in a further language; what hangs on none stays. */
export function placementSaid(placement: Placement, language: Language): Placement {
  const here = Object.entries(placement.words).filter(([field]) => !isSpoken(field));
  return { ...placement, words: { ...Object.fromEntries(here), ...placement.others?.[language] } };
}

/** The same of all placements of a photo. */
export const placementsSaid = (
  placements: readonly Placement[] | null,
  language: Language,
): Placement[] | null => placements?.map((one) => placementSaid(one, language)) ?? null;

/**
 * A photo as a page in some language says it: its words, and those of single places.
 * @param main the site's first language, in which the photo is given
 * @param own its words in the page's language; none where nobody wrote any
 * @returns it, and the language that its words are in
 */
export function spokenPhoto<T extends Pick<Photo, 'words' | 'placements'>>(
  photo: T,
  main: Language,
  own: ShownWords | undefined,
): { photo: T; language: Language } {
  const { words, language } = wordsFor({ words: photo.words, language: main }, own);
  if (language === main) return { photo, language };
  return {
    photo: { ...photo, words, placements: placementsSaid(photo.placements, language) },
    language,
  };
}
