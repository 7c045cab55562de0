// Words that a site wants to be found by: which of them a photo could carry truthfully, and where they tell no photo from
// another. Nothing is put in by itself.
import { sounded } from './text/text.ts';

export const MOST_TERMS = 100;
/** Characters of a term. */
export const LONGEST_TERM = 60;

/** Alt texts that a term must stand in, at least, before "in every one" says something. */
const LEAST_ALTS = 3;

/** Where a term stands that a photo could carry. */
export type TermSource = 'title' | 'caption' | 'page' | 'neighbour';

/** What is said around a photo, in words that somebody wrote. */
export type AroundPhoto = Partial<Record<TermSource, readonly string[]>>;

/** Terms as they are typed: parted by commas or lines, each once, as they were first written. */
export function termsFrom(text: string): string[] {
  const byHeard = new Map<string, string>();
  for (const part of text.split(/[,;\n]/)) {
    const term = part.trim().replace(/\s+/g, ' ');
    const heard = sounded(term);
    if (heard !== '' && !byHeard.has(heard)) byHeard.set(heard, term);
  }
  return [...byHeard.values()];
}

/** What is wrong with a list of terms, in a sentence, or null. */
export function termsProblem(terms: readonly string[]): string | null {
  if (terms.length > MOST_TERMS) return `More than ${MOST_TERMS} terms help nobody.`;
  const long = terms.find((term) => term.length > LONGEST_TERM);
  return long === undefined ? null : `“${long.slice(0, LONGEST_TERM)}…” is too long for a term.`;
}

/** A word without what makes it many or inflects it. */
const stemOf = (word: string): string => (word.length > 4 ? word.replace(/(?:es|en|er|s|n|e)$/, '') : word);

const stems = (text: string): string => ` ${sounded(text).split(' ').map(stemOf).join(' ')} `;

/** True where a text says a term, also as many or inflected: "stoneware bowls" says "stoneware bowl". */
export const saysTerm = (text: string, term: string): boolean => {
  const looked = stems(term);
  return looked.trim() !== '' && stems(text).includes(looked);
};

/** Terms that the words around a photo say of it, and its alt text doesn't, each with where it stands; nearest first. */
export function carriableTerms(
  terms: readonly string[],
  alt: string,
  around: AroundPhoto,
): { term: string; where: TermSource }[] {
  const ORDER: readonly TermSource[] = ['title', 'caption', 'page', 'neighbour'];
  return terms
    .filter((term) => !saysTerm(alt, term))
    .flatMap((term) => {
      const where = ORDER.find((source) => around[source]?.some((text) => saysTerm(text, term)));
      return where === undefined ? [] : [{ term, where }];
    })
    .sort((a, b) => ORDER.indexOf(a.where) - ORDER.indexOf(b.where));
}

/** Counts, text by text, in how many of the alt texts of a page each term stands. */
export class TermCount {
  private readonly counts: number[];
  private texts = 0;
  constructor(private readonly terms: readonly string[]) {
    this.counts = terms.map(() => 0);
  }

  /** Empty texts are not heard, and don't count. */
  add(alt: string): void {
    if (sounded(alt) === '') return;
    this.texts++;
    this.terms.forEach((term, n) => {
      if (saysTerm(alt, term)) this.counts[n]!++;
    });
  }

  /** Terms that stand in every alt text: they tell no photo from another. */
  inEvery(): string[] {
    return this.texts < LEAST_ALTS ? [] : this.terms.filter((_, n) => this.counts[n] === this.texts);
  }
}
