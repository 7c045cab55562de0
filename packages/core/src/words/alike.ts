// Photos whose alt texts say nearly the same: who hears them can't tell them apart.
import type { Language } from '../contract/index.ts';
import { ALIKE, LEAST_WORDS, sharedPart, tellingWords, type PagePhoto } from './checks/repetition.ts';
import { bookFor } from './data/languages.ts';
import { sounded } from './text/text.ts';

/**
 * Groups of two and more photos that are heard alike, each in the order of the photos, the first group's first photo
 * first. One photo that is like two others brings them together. Decorative ones are not heard.
 *
 * Of two texts whose words are shared to a part of at least t, sorted by how rare the words are, the first
 * n − ⌈t·n⌉ + 1 have one in common (prefix filtering: Chaudhuri, Ganti, Kaushik, “A Primitive Operator for Similarity
 * Joins in Data Cleaning”, 2006): only such pairs are compared.
 */
export function alikeAlts(photos: readonly PagePhoto[], language: Language): number[][] {
  const turns = alikeAltsInTurns(photos, language);
  let turn = turns.next();
  while (!turn.done) turn = turns.next();
  return turn.value;
}

/** The same text by text: where very many are nearly equal, nothing else has to wait for the last. */
export function* alikeAltsInTurns(
  photos: readonly PagePhoto[],
  language: Language,
): Generator<void, number[][], void> {
  const book = bookFor(language);
  const heard = photos
    .filter(({ alt, decorative }) => !decorative && sounded(alt) !== '')
    .map(({ id, alt }) => ({ id, alt, words: tellingWords(alt, book) }));
  const count = new Map<string, number>();
  for (const { words } of heard) for (const word of words) count.set(word, (count.get(word) ?? 0) + 1);
  const groupOf = heard.map((_, n) => n);
  const root = (n: number): number => {
    while (groupOf[n] !== n) n = groupOf[n] = groupOf[groupOf[n]!]!;
    return n;
  };
  const first = new Map<string, number>();
  const byWord = new Map<string, number[]>();
  for (const [n, { alt, words }] of heard.entries()) {
    yield;
    const equal = first.get(sounded(alt));
    if (equal !== undefined) {
      // Whatever else is like it was found with the first of them.
      groupOf[n] = root(equal);
      continue;
    }
    first.set(sounded(alt), n);
    // Of a few words each one tells.
    if (words.size < LEAST_WORDS) continue;
    const rarest = [...words].sort((a, b) => count.get(a)! - count.get(b)! || (a < b ? -1 : 1));
    const near = new Set<number>();
    for (const word of rarest.slice(0, rarest.length - Math.ceil(ALIKE * rarest.length) + 1)) {
      const having = byWord.get(word);
      for (const other of having ?? []) near.add(other);
      if (having) having.push(n);
      else byWord.set(word, [n]);
    }
    for (const other of near) {
      // Many that are nearly equal are one group soon: who is in it already need not be compared.
      if (root(n) === root(other)) continue;
      if (sharedPart(words, heard[other]!.words) >= ALIKE) {
        const [a, b] = [root(n), root(other)];
        groupOf[Math.max(a, b)] = Math.min(a, b);
      }
    }
  }
  const groups = new Map<number, number[]>();
  heard.forEach(({ id }, n) => groups.set(root(n), [...(groups.get(root(n)) ?? []), id]));
  return [...groups.values()].filter(({ length }) => length > 1);
}
