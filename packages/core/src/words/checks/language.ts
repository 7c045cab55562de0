// Words in another language than the one they are for.
import type { Language } from '../../contract/index.ts';
import { primaryOf } from '../../html/phrases.ts';
import { SMALL_WORDS } from '../data/small-words.ts';
import { wordsOf } from '../text/text.ts';
import { finding, type WordCheck } from './finding.ts';

/** Shorter texts tell too little: "Parus major", "Crème brûlée à la carte". */
const LEAST_WORDS = 5;
/** Small words ÷ all words of a sentence, at the least. */
const LEAST_SMALL = 0.2;

/** What stands in quotes is somebody else's: a title, a saying. */
const QUOTED = /[“„«"»][^“”„«»"]{0,200}[”“»"«]/g;

/**
 * The language that a text reads as where it is not its own, or null where it is, or can't be told.
 *
 * Counted are small words that one language has and the other has not. A name in another language ("Le Roi de la Mer")
 * stands among words of the text's own: then there must be more than twice as many.
 * @param own the language that it should be in
 */
export function readsAs(text: string, own: Language): Language | null {
  const ownWords = SMALL_WORDS[primaryOf(own)];
  if (!ownWords) return null;
  const heard = wordsOf(text.replace(QUOTED, ' ').replaceAll(/['’]/g, ' '));
  if (heard.length < LEAST_WORDS) return null;
  let best: { language: Language; count: number } | null = null;
  for (const [language, small] of Object.entries(SMALL_WORDS)) {
    if (small === ownWords) continue;
    const count = heard.filter((word) => small.has(word) && !ownWords.has(word)).length;
    const mine = heard.filter((word) => ownWords.has(word) && !small.has(word)).length;
    const isTheirs = count >= 2 && count >= 2 * mine + (mine > 0 ? 2 : 0);
    if (isTheirs && count / heard.length >= LEAST_SMALL && count > (best?.count ?? 0))
      best = { language, count };
  }
  return best?.language ?? null;
}

export const otherLanguage: WordCheck = (context) => {
  const { words, language, says } = context;
  const spoken = readsAs(words.alt, language);
  if (spoken === null) return null;
  const names = new Intl.DisplayNames([says.language], { type: 'language' });
  const nameOf = (tag: string) => names.of(tag) ?? tag;
  return finding(context, 'other-language', says.otherLanguage(nameOf(spoken), nameOf(language)));
};
