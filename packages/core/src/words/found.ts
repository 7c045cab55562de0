// Words that files bring along, in the languages of a site.
import type { FoundWords, Language, SpokenWords, Words } from '../contract/index.ts';
import { primaryOf } from '../html/phrases.ts';
import { NO_WORDS } from './no-words.ts';
import { comparedName } from './words-file.ts';

/** What a file says in a language: under its own tag, or under another one of the same language. */
function spokenIn({ others = {} }: FoundWords, language: Language): SpokenWords {
  const near = Object.entries(others).filter(([tag]) => primaryOf(tag) === primaryOf(language));
  return Object.assign({}, ...near.map(([, said]) => said), others[language]) as SpokenWords;
}

/** What a file says for a photo in the site's first language: in it, or else as it says it to everybody. */
export function firstWords(found: FoundWords, language: Language): Words {
  const { alt, caption, title, credit, longDescription = '' } = found;
  return { ...NO_WORDS, alt, caption, title, credit, longDescription, ...spokenIn(found, language) };
}

/** What it says in the site's further languages; those without words are left out. */
export const furtherWords = (found: FoundWords, languages: readonly Language[]): Map<Language, SpokenWords> =>
  new Map(
    languages.slice(1).flatMap((language): [Language, SpokenWords][] => {
      const said = spokenIn(found, language);
      return Object.keys(said).length > 0 ? [[language, said]] : [];
    }),
  );

/** Of which photos a file of words speaks that lies beside them: "a.xmp" of "a.jpg", and "a.jpg.xmp" of that alone. */
export function isSidecarOf(sidecar: string, photo: string): boolean {
  const [name, own] = [comparedName(sidecar).replace(/\.xmp$/, ''), comparedName(photo)];
  return own === name || own.replace(/\.[^.]+$/, '') === name;
}
