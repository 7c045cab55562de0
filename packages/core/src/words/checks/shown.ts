// Words in the picture that no text carries: who can't see it never gets to know them.
import { isCarried } from '../shown-text.ts';
import type { WordCheck } from './finding.ts';

/** More than this is read at leisure, not in one breath. */
const LONGEST_IN_ALT = 100;
const LONGEST_SAID = 60;

export const textNotCarried: WordCheck = ({ words: { alt, caption, longDescription }, shown = [] }) => {
  if (shown.length === 0 || isCarried(shown, [alt, caption, longDescription])) return null;
  const text = shown.map((line) => line.text).join(' ');
  const said = text.length > LONGEST_SAID ? `${text.slice(0, LONGEST_SAID).trimEnd()}…` : text;
  const short = text.length <= LONGEST_IN_ALT;
  const told = longDescription.trim();
  return {
    code: 'text-not-carried',
    severity: 'care',
    sentence: `The picture shows words: “${said}”`,
    why: 'Neither alt text nor caption nor long description tells them: who can’t see the picture doesn’t get to know them.',
    mend: short
      ? { alt: alt.trim() ? `${alt.trim().replace(/[.\s]+$/, '')}: “${text}”` : text }
      : { longDescription: [told, ...shown.map((line) => line.text)].filter(Boolean).join('\n\n') },
  };
};
