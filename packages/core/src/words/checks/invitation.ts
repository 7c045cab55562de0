// "Click here": what to do with a hand, instead of what there is.
import type { WordBook } from '../data/languages.ts';
import { sounded, wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

/** Longer clauses tell something: "Click the Save button at the top right to keep the file". */
const MOST_WORDS = 12;

/** True for a clause that only invites: a word for the hand and a word for what opens, or such a phrase as a whole. */
function invites(clause: string, isAll: boolean, book: WordBook): boolean {
  const heard = sounded(clause);
  // "Here, the handle joins the body": alone that word tells nothing, in a sentence it does.
  if (book.list('invitations').includes(heard)) return isAll || heard.includes(' ');
  const words = wordsOf(clause);
  if (words.length > MOST_WORDS) return false;
  const hand = words.findIndex((word) => book.has('hands', word));
  return hand >= 0 && words.some((word, n) => n !== hand && book.has('opened', word));
}

/** Clauses of a text with their marks, so that joined they are the text again. */
const clausesOf = (text: string): string[] =>
  text.split(/(?<=[.;:!?)\]|])|(?=[([|])|(?<=\s)(?=[-–—]\s)|(?<=,)/u);

export const saysClick: WordCheck = (context) => {
  const { book, target, says } = context;
  const { alt, role } = context.words;
  // What a sign or a screen says is its text.
  if (role === 'text' || role === 'complex') return null;
  const clauses = clausesOf(alt);
  const isIdle = role !== 'functional' && book.list('idleActs').includes(sounded(alt));
  const idle = isIdle ? [alt] : clauses.filter((clause) => invites(clause, clauses.length === 1, book));
  if (idle.length === 0) return null;
  const rest = isIdle
    ? ''
    : clauses
        .filter((clause) => !idle.includes(clause))
        .join('')
        .replace(/[\s([|,;:–—-]+$/, '')
        .trim();
  const said = idle[0]!.replace(/^[\s([|–—-]+|[\s)\]|.,;:]+$/g, '');
  const isTold = wordsOf(rest).length > 1;
  return finding(context, 'says-click', says.click(says.quoted(said)), {
    mend: { alt: isTold ? rest : (target ?? '') },
  });
};
