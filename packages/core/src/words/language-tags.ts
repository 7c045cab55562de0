// What a site's languages may be called: as BCP 47 writes them, each once.
import type { Language } from '../contract/index.ts';

/** Primary subtags have two or three letters (RFC 5646, 2.2.1); longer ones are reserved and name nothing. */
const PRIMARY = /^[a-z]{2,3}(?:-|$)/;

/** A tag as it is written, or null for what is none. */
export function canonicalTag(language: Language): Language | null {
  try {
    return Intl.getCanonicalLocales(language)[0] ?? null;
  } catch {
    return null;
  }
}

/**
 * What is wrong with the languages that a site is to have, as a sentence, or null.
 * @param before those that it has: what an earlier version let in may stay
 */
export function languagesProblem(languages: readonly Language[], before: readonly Language[]): string | null {
  if (languages.length === 0) return 'A site has one language at least.';
  const plain = languages.map((language) => language.toLowerCase());
  const twice = languages.find((_, at) => plain.indexOf(plain[at]!) !== at);
  if (twice !== undefined) return `The language “${twice}” is named twice.`;
  for (const language of languages) {
    if (before.includes(language)) continue;
    const found = canonicalTag(language);
    if (found === null || !PRIMARY.test(found))
      return `“${language}” is no language: write “de”, or “pt-BR”.`;
    if (found !== language) return `“${language}” is written “${found}”.`;
  }
  return null;
}

/** Tags beside those of two letters under which pages are often written. */
const REGIONAL = [
  'en-GB',
  'en-US',
  'de-AT',
  'de-CH',
  'fr-CA',
  'es-MX',
  'pt-BR',
  'pt-PT',
  'zh-Hans',
  'zh-Hant',
];
const LETTERS = Array.from({ length: 26 }, (_, n) => String.fromCharCode(97 + n));

/** A language as it is called in English; the tag where that is known by no name. */
export function languageName(language: Language): string {
  try {
    return new Intl.DisplayNames(['en'], { type: 'language' }).of(language) ?? language;
  } catch {
    return language;
  }
}

/** A language as it calls itself; the tag where that is not known. */
export function ownNameOf(language: Language): string {
  try {
    return new Intl.DisplayNames([language], { type: 'language', fallback: 'code' }).of(language) ?? language;
  } catch {
    return language;
  }
}

let named: ReadonlyMap<string, Language> | undefined;

/** Every language that has a tag of two letters, and some of regions, by its English name in alphabetical order (BCP 47; names of CLDR). */
export function namedLanguages(): ReadonlyMap<string, Language> {
  if (named) return named;
  const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });
  const tags = LETTERS.flatMap((first) => LETTERS.map((second) => first + second));
  const found = [...tags, ...REGIONAL].flatMap((tag): [string, Language][] => {
    // An old tag stands for a newer one, which is in the list already.
    const name = canonicalTag(tag) === tag ? names.of(tag) : undefined;
    return name === undefined ? [] : [[name, tag]];
  });
  named = new Map(found.sort(([a], [b]) => a.localeCompare(b, 'en')));
  return named;
}

let ownNamed: ReadonlyMap<string, Language> | undefined;

/** The same languages by their own names, as they are compared: "deutsch". */
function languagesByOwnName(): ReadonlyMap<string, Language> {
  ownNamed ??= new Map(
    [...namedLanguages().values()].map((tag) => [
      folded(new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag),
      tag,
    ]),
  );
  return ownNamed;
}

const folded = (text: string): string => text.trim().replace(/\s+/g, ' ').toLowerCase();

/**
 * The language that somebody means: by its English name, its own name ("Deutsch") or its tag, however that is written.
 * @returns its tag as BCP 47 writes it, or null
 */
export function languageFrom(text: string): Language | null {
  const said = folded(text);
  if (said === '') return null;
  for (const [name, tag] of namedLanguages()) if (folded(name) === said) return tag;
  const tag = canonicalTag(text.trim());
  if (tag !== null && PRIMARY.test(tag)) return tag;
  return languagesByOwnName().get(said) ?? null;
}
