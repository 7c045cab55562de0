// The languages that the word checks know, made ready for looking up.
import type { Language } from '../../contract/index.ts';
import { primaryOf } from '../../html/phrases.ts';
import { GERMAN } from './de.ts';
import { ENGLISH } from './en.ts';
import type { WordData } from './word-data.ts';

const LANGUAGES: readonly WordData[] = [ENGLISH, GERMAN];

type Lists = {
  [Name in keyof WordData]: WordData[Name] extends readonly string[] ? Name : never;
}[keyof WordData];

/** A language as the checks ask for it. */
export interface WordBook extends Pick<
  WordData,
  'language' | 'capitalNouns' | 'appearanceEndings' | 'inflections'
> {
  has(list: Lists, word: string): boolean;
  list(name: Lists): readonly string[];
}

function bookOf(data: WordData): WordBook {
  const sets = new Map<Lists, ReadonlySet<string>>();
  const setOf = (name: Lists): ReadonlySet<string> => {
    const set = sets.get(name) ?? new Set(data[name]);
    sets.set(name, set);
    return set;
  };
  return {
    language: data.language,
    capitalNouns: data.capitalNouns,
    appearanceEndings: data.appearanceEndings,
    inflections: data.inflections,
    has: (list, word) => setOf(list).has(word),
    list: (name) => data[name],
  };
}

/** What fills fields in tests and templates is in English wherever the site is. */
const withEnglish = (data: WordData): WordData => ({
  ...data,
  standIns: [...data.standIns, ...ENGLISH.standIns],
  instructions: [...data.instructions, ...ENGLISH.instructions],
  emptyNouns: [...data.emptyNouns, ...ENGLISH.emptyNouns],
  dummies: [...data.dummies, ...ENGLISH.dummies],
});

const books = new Map(
  LANGUAGES.map((data) => [data.language, bookOf(data === ENGLISH ? data : withEnglish(data))]),
);

/** Languages, without a region, that the checks have data for. */
export const CHECKED_LANGUAGES: readonly string[] = LANGUAGES.map(({ language }) => language);

/** The book of a language; that of English where there is none, since placeholders and file names are found with it. */
export const bookFor = (language: Language): WordBook => books.get(primaryOf(language)) ?? books.get('en')!;
