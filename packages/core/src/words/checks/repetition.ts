// Words that are heard twice: beside the photo, or on two photos of one page.
import type { WordBook } from '../data/languages.ts';
import { sounded, wordsOf } from '../text/text.ts';
import { finding, type WordCheck, type WordContext, type WordFinding } from './finding.ts';

/** Texts of fewer words than this repeat only when they are equal. */
export const LEAST_WORDS = 4;
/** Shared words ÷ all words of both, from which two texts say the same. */
export const ALIKE = 0.8;

/** Words of a text that tell something: all but articles. */
export const tellingWords = (text: string, book: WordBook): Set<string> =>
  new Set(wordsOf(text).filter((word) => !book.has('articles', word)));

/** Words that two texts share ÷ all words of both (Jaccard). */
export function sharedPart(first: ReadonlySet<string>, second: ReadonlySet<string>): number {
  let shared = 0;
  for (const word of first) if (second.has(word)) shared++;
  return shared / (first.size + second.size - shared);
}

/** True when who has heard one text hears nothing new in the other. */
export function saysTheSame(alt: string, other: string, book: WordBook): boolean {
  const [a, b] = [sounded(alt), sounded(other)];
  if (a === '' || b === '') return false;
  if (a === b) return true;
  const [first, second] = [tellingWords(alt, book), tellingWords(other, book)];
  if (first.size < LEAST_WORDS) return false;
  if (` ${b} `.includes(` ${a} `)) return true;
  return sharedPart(first, second) >= ALIKE;
}

export const repeatsNearby: WordCheck = (context) => {
  const { words, book, says, nearby = [] } = context;
  const places: [string, string][] = [
    [says.sameAs.caption, words.caption],
    [says.sameAs.title, words.title],
    ...nearby.map((text): [string, string] => [says.sameAs.nearby, text]),
  ];
  const twice = places.find(([, text]) => saysTheSame(words.alt, text, book));
  return twice ? finding(context, 'repeats-nearby', twice[0]) : null;
};

/** Which photos of a page share an alt text: names of the other photos, by photo. */
export type SameAlts = ReadonlyMap<number, readonly string[]>;

export interface PagePhoto {
  id: number;
  /** What an editor calls the photo. */
  name: string;
  alt: string;
  decorative: boolean;
}

/** Finds equal alt texts on one page, in one pass. Empty and decorative ones repeat nothing. */
export function sameAlts(photos: readonly PagePhoto[]): SameAlts {
  const byAlt = new Map<string, PagePhoto[]>();
  for (const photo of photos) {
    const heard = photo.decorative ? '' : sounded(photo.alt);
    if (heard === '') continue;
    const group = byAlt.get(heard);
    if (group) group.push(photo);
    else byAlt.set(heard, [photo]);
  }
  const result = new Map<number, readonly string[]>();
  for (const group of byAlt.values()) {
    if (group.length < 2) continue;
    // Two names are enough for a sentence; a page of a thousand equal texts must not make a million of them.
    for (const photo of group) {
      const others: string[] = [];
      for (const other of group) {
        if (other.id !== photo.id) others.push(other.name);
        if (others.length === 2) break;
      }
      result.set(photo.id, others);
    }
  }
  return result;
}

export const sameAlt = (context: WordContext, others: readonly string[]): WordFinding =>
  finding(context, 'same-alt', context.says.sameWords(others.map(context.says.quoted).join(', ')));
