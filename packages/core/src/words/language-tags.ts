// What a site's languages may be called: as BCP 47 writes them, each once.
import type { Language } from '../contract/index.ts';

/** Primary subtags have two or three letters (RFC 5646, 2.2.1); longer ones are reserved and name nothing. */
const PRIMARY = /^[a-z]{2,3}(?:-|$)/;

/** A tag as it is written, or null for what is none. */
function canonical(language: Language): Language | null {
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
    const found = canonical(language);
    if (found === null || !PRIMARY.test(found))
      return `“${language}” is no language: write “de”, or “pt-BR”.`;
    if (found !== language) return `“${language}” is written “${found}”.`;
  }
  return null;
}
