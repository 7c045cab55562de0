// What a check says: code, sentence, reason and, where one can be computed, a mend.
import type { Language, ShownLine, Words } from '../../contract/index.ts';
import type { WordBook } from '../data/languages.ts';
import type { WordCheckCode } from './codes.ts';
import type { Sayings } from './sayings.ts';

export type { WordCheckCode } from './codes.ts';

export interface WordFinding {
  code: WordCheckCode;
  /** todo: not done yet; care: works, but a listener loses by it. */
  severity: 'todo' | 'care';
  sentence: string;
  /** Why it matters to a visitor. */
  why: string;
  /** Words that would do away with it, or null when only the editor can tell. */
  mend: Partial<Words> | null;
}

/** What a check may look at beside the photo's own words. */
export interface WordContext {
  words: Words;
  /** The language that they are meant to be in. */
  language: Language;
  /** How findings are said. */
  says: Sayings;
  /** Of that language; the English one where there is none. */
  book: WordBook;
  fileName: string;
  /** Headings and texts that stand beside the photo on its page. */
  nearby?: readonly string[];
  /** Words that the picture shows. */
  shown?: readonly ShownLine[];
  /** Where a functional photo leads, in words. */
  target?: string;
  /** Words that the site wants to be found by. */
  terms?: readonly string[];
}

export type WordCheck = (context: WordContext) => WordFinding | null;

/** A finding in the voice that is asked for; "care" unless said otherwise. */
export const finding = (
  { says }: Pick<WordContext, 'says'>,
  code: WordCheckCode,
  sentence: string,
  { mend = null, severity = 'care' }: Partial<Pick<WordFinding, 'mend' | 'severity'>> = {},
): WordFinding => ({ code, severity, sentence, why: says.why[code], mend });
