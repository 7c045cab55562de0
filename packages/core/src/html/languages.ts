// Texts in a site's languages: which one is shown on a page, and how it is marked where it is another than the page's.
import type { InOthers, Language, Passage } from '../contract/index.ts';
import { escapeHtml, tag } from './html.ts';
import { beginningOf } from './passage.ts';
import { primaryOf } from './phrases.ts';

/** Languages that are written from right to left, by their subtags (Unicode CLDR). */
const RIGHT_TO_LEFT = new Set(['ar', 'arc', 'ckb', 'dv', 'fa', 'he', 'ku', 'ps', 'sd', 'ug', 'ur', 'yi']);

export const isRightToLeft = (language: Language): boolean => RIGHT_TO_LEFT.has(primaryOf(language));

/** The direction in which a language is written, as the dir attribute says it. */
export const directionOf = (language: Language): 'rtl' | 'ltr' => (isRightToLeft(language) ? 'rtl' : 'ltr');

/** True for a text that says nothing. */
export const isBlank = (text: string | Passage | undefined): boolean =>
  text === undefined || (typeof text === 'string' ? text.trim() : beginningOf(text)) === '';

/** A text with the language that it is in. */
export interface Said<T> {
  text: T;
  language: Language;
}

/** What is shown where a language is read. */
export interface Reading {
  /** Of the page. */
  language: Language;
  /** The site's first, in which everything was written. */
  main: Language;
}

/** A text as a page in some language says it: its own, or the first language's where nobody wrote one. */
export function saidIn<T extends string | Passage>(
  first: T,
  own: T | undefined,
  { language, main }: Reading,
): Said<T> {
  if (language === main || own === undefined || isBlank(own)) return { text: first, language: main };
  return { text: own, language };
}

/** Attributes of what is said in another language than what surrounds it: its language, and its direction where that is another. */
export function marked(said: Language, around: Language): { lang: string | null; dir: string | null } {
  if (said === around) return { lang: null, dir: null };
  const dir = directionOf(said);
  return { lang: said, dir: dir === directionOf(around) ? null : dir };
}

/** A line of text as HTML, marked where it is in another language than what surrounds it. */
export function spokenMarkup({ text, language }: Said<string>, around: Language): string {
  const { lang, dir } = marked(language, around);
  return lang === null ? escapeHtml(text) : `${tag('span', { lang, dir })}${escapeHtml(text)}</span>`;
}

/** Stands for a text within a phrase until it is written; no text has it. */
const SPOT = '\u0000';

/** A phrase of the page's language about something, as HTML, in which that is marked where it is in another one. */
export const phraseMarkup = (
  phrase: (about: string) => string,
  about: Said<string>,
  around: Language,
): string => escapeHtml(phrase(SPOT)).replace(SPOT, () => spokenMarkup(about, around));

/** Languages in which one thing is said at most. */
const MOST_LANGUAGES = 50;
/** As BCP 47 writes tags: letters, digits and hyphens. */
const TAG = /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8}){0,6}$/;

/**
 * What is wrong with a text's other languages, as a sentence, or null. Whatever is sent may be looked at.
 * @param problemOf of what is said in one of them
 */
export function othersProblem(others: unknown, problemOf: (said: unknown) => string | null): string | null {
  if (others === undefined) return null;
  if (typeof others !== 'object' || others === null || Array.isArray(others))
    return 'Texts in other languages are named by them.';
  const all = Object.entries(others as InOthers<unknown>);
  if (all.length > MOST_LANGUAGES) return `A text is in up to ${MOST_LANGUAGES} languages.`;
  if (all.some(([language]) => !TAG.test(language))) return 'A language is written like “de”, or “pt-BR”.';
  return all.map(([, said]) => problemOf(said)).find((problem) => problem !== null) ?? null;
}

/** What is wrong with a line of text, as a sentence, or null. */
export const lineProblem =
  (most: number) =>
  (said: unknown): string | null =>
    typeof said === 'string' && said.length <= most ? null : `A text has up to ${most} characters.`;

/** What is wrong with an object of texts, each judged by its name, as a sentence, or null. */
export const textsProblem =
  (parts: Record<string, (said: unknown) => string | null>) =>
  (said: unknown): string | null => {
    if (typeof said !== 'object' || said === null || Array.isArray(said)) return 'A text has a name.';
    const wrong = Object.entries(said).map(([name, text]) =>
      Object.hasOwn(parts, name) ? parts[name]!(text) : `There is no text called “${name}” here.`,
    );
    return wrong.find((problem) => problem !== null) ?? null;
  };
