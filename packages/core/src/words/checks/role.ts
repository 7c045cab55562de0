// What the role of a photo asks of its alt text.
import type { WordBook } from '../data/languages.ts';
import { wordsOf } from '../text/text.ts';
import type { WordCheck } from './finding.ts';

export const noRole: WordCheck = ({ words }) =>
  words.role === null
    ? {
        code: 'no-role',
        severity: 'todo',
        sentence: 'No role yet',
        why: 'Whether it informs or decorates decides if it is read aloud at all.',
        mend: null,
      }
    : null;

export const decorativeWithAlt: WordCheck = ({ words }) =>
  words.role === 'decorative' && words.alt.trim() !== ''
    ? {
        code: 'decorative-with-alt',
        severity: 'care',
        sentence: 'Decorative, yet it has words',
        why: 'A decorative photo leaves with alt="": these words would not go out. If they matter, it informs.',
        mend: { alt: '' },
      }
    : null;

/** Words too common to show that alt and target speak of the same. */
const LEAST_SHARED = 4;

/** True when a link's or button's alt speaks of what is seen and not of where it leads. */
export function describesLook(alt: string, book: WordBook, target?: string): boolean {
  const words = wordsOf(alt);
  if (target) {
    const named = new Set(wordsOf(target));
    if (words.some((word) => named.has(word) && word.length >= LEAST_SHARED)) return false;
  }
  const says = words.some((word) => book.has('targets', word));
  const look = words.some((word) => book.has('signs', word));
  if (says) return false;
  // "Kiln diary, autumn" is a title; "A green bowl on a white shelf" is a look: it begins like a description.
  return look || (book.has('describers', words[0] ?? '') && words.length >= 4);
}

export const functionalLook: WordCheck = ({ words, book, target }) =>
  words.role === 'functional' && words.alt.trim() !== '' && describesLook(words.alt, book, target)
    ? {
        code: 'describes-look',
        severity: 'care',
        sentence: 'Says how it looks, not where it leads',
        why: 'Who hears a link or a button needs its target: “Kiln diary”, “Back to the shop”.',
        mend: target ? { alt: target } : null,
      }
    : null;
