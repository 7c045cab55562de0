// What a check finds can be kept on purpose: with a note that says why, which others can read.
import type { Words } from '../contract/index.ts';
import type { WordCheckCode, WordFinding } from './checks/finding.ts';

/** Characters of a note. */
export const LONGEST_NOTE = 500;

/** What can't be kept: without words or a role nothing is said that could be meant. Decorative is a role, too. */
const NEVER: readonly WordCheckCode[] = ['missing', 'no-role'];
export const canBeKept = (code: WordCheckCode): boolean => !NEVER.includes(code);

export const isKept = ({ kept }: Pick<Words, 'kept'>, { code }: Pick<WordFinding, 'code'>): boolean =>
  canBeKept(code) && Object.hasOwn(kept, code);

/** Findings that somebody must still look at. */
export const openFindings = (words: Pick<Words, 'kept'>, findings: readonly WordFinding[]): WordFinding[] =>
  findings.filter((finding) => !isKept(words, finding));
