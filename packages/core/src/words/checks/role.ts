// What the role of a photo asks of its alt text.
import type { WordBook } from '../data/languages.ts';
import { wordsOf } from '../text/text.ts';
import { isAppearance } from './substance.ts';
import { finding, type WordCheck } from './finding.ts';

export const noRole: WordCheck = (context) =>
  context.words.role === null ? finding(context, 'no-role', context.says.noRole, { severity: 'todo' }) : null;

export const decorativeWithAlt: WordCheck = (context) =>
  context.words.role === 'decorative' && context.words.alt.trim() !== ''
    ? finding(context, 'decorative-with-alt', context.says.decorative, { mend: { alt: '' } })
    : null;

/** Words too common to show that alt and target speak of the same. */
const LEAST_SHARED = 4;

/**
 * Whether signs are spoken of: one that is nothing else (an arrow, a loupe), or one of those that name many other
 * things beside a colour, or where they come last, as what a thing is does in English.
 */
function namesSign(words: readonly string[], book: WordBook): boolean {
  const isSign = (word: string) => book.has('signs', word);
  if (words.some((word) => isSign(word) && !book.has('weakSigns', word))) return true;
  const hasLook =
    words.some((word) => isAppearance(word, book) && !isSign(word)) || book.has('describers', words[0] ?? '');
  return isSign(words.at(-1) ?? '') || (hasLook && words.some(isSign));
}

/** True when a link's or button's alt speaks of what is seen and not of where it leads. */
export function describesLook(alt: string, book: WordBook, target?: string): boolean {
  const words = wordsOf(alt);
  if (target) {
    const named = new Set(wordsOf(target));
    if (words.some((word) => named.has(word) && word.length >= LEAST_SHARED)) return false;
  }
  // "Basket icon", "Symbol Einkaufswagen": named as what it is drawn as, whatever else is said.
  if (words.length > 1 && [words[0]!, words.at(-1)!].some((word) => book.has('drawn', word))) return true;
  if (words.some((word) => book.has('targets', word))) return false;
  // "Kiln diary, autumn" is a title; "A green bowl on a white shelf" is a look: it begins like a description.
  return namesSign(words, book) || (book.has('describers', words[0] ?? '') && words.length >= 4);
}

export const functionalLook: WordCheck = (context) => {
  const { words, book, target, says } = context;
  if (words.role !== 'functional' || words.alt.trim() === '') return null;
  if (!describesLook(words.alt, book, target)) return null;
  return finding(context, 'describes-look', says.look, { mend: target ? { alt: target } : null });
};
