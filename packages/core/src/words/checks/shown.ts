// Words in the picture that no text carries: who can't see it never gets to know them.
import { isCarried, withShown } from '../text/shown-text.ts';
import { finding, type WordCheck } from './finding.ts';

/** More than this is read at leisure, not in one breath. */
const LONGEST_IN_ALT = 100;
const LONGEST_SAID = 60;

export const textNotCarried: WordCheck = (context) => {
  const { words, says, shown = [] } = context;
  const { alt, caption, longDescription } = words;
  if (shown.length === 0 || isCarried(shown, [alt, caption, longDescription])) return null;
  const text = shown.map((line) => line.text).join(' ');
  const said = text.length > LONGEST_SAID ? `${text.slice(0, LONGEST_SAID).trimEnd()}…` : text;
  const field = text.length <= LONGEST_IN_ALT ? 'alt' : 'longDescription';
  return finding(context, 'text-not-carried', says.shows(says.quoted(said)), {
    mend: withShown(words, shown, field),
  });
};
