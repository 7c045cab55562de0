// What a check says: code, sentence, reason and, where one can be computed, a mend.
import type { ShownLine, Words } from '../../contract/index.ts';
import type { WordBook } from '../data/languages.ts';

export type WordCheckCode =
  | 'missing'
  | 'file-name'
  | 'placeholder'
  | 'opens-with-image'
  | 'same-alt'
  | 'repeats-nearby'
  | 'too-long'
  | 'keyword-list'
  | 'all-capitals'
  | 'decorative-with-alt'
  | 'describes-look'
  | 'no-role'
  | 'hardly-says'
  | 'only-look'
  | 'text-not-carried';

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
  /** Of the language that they are in. */
  book: WordBook;
  fileName: string;
  /** Headings and texts that stand beside the photo on its page. */
  nearby?: readonly string[];
  /** Words that the picture shows. */
  shown?: readonly ShownLine[];
  /** Where a functional photo leads, in words. */
  target?: string;
}

export type WordCheck = (context: WordContext) => WordFinding | null;
