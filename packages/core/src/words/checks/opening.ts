// Openings that a screen reader has said already.
import { DETERMINERS, FIXED_OPENINGS, IDLE_ADJECTIVES, LEADS, PICTURE_NOUNS } from '../data/openings.en.ts';
import { withCapital } from '../text.ts';
import type { WordCheck } from './finding.ts';

const oneOf = (list: readonly string[]): string => [...list].sort((a, b) => b.length - a.length).join('|');

const noun = `(?:${oneOf(PICTURE_NOUNS)})`;
const adjective = `(?:(?:${oneOf(IDLE_ADJECTIVES)}|black[- ]and[- ]white)\\s+)`;
const named = `(?:(?:here is|heres|this is|here’s)\\s+)?(?:(?:${oneOf(DETERMINERS)})\\s+)?${adjective}{0,2}${noun}`;
const OPENING = new RegExp(
  [
    `^${named}\\s+(?:${oneOf(LEADS)})(?![\\p{L}\\p{N}])`,
    // "Photo: bowls", "Image – bowls".
    `^${noun}\\s*(?::|\\s[-–—]\\s)`,
    `^(?:${oneOf(FIXED_OPENINGS)})(?![\\p{L}\\p{N}])\\s*[:,]?`,
  ].join('|'),
  'iu',
);

/** The opening that a screen reader has said already, as written, or null. */
export function imageOpening(alt: string): string | null {
  return OPENING.exec(alt.trimStart())?.[0].trimEnd() ?? null;
}

/** Takes openings away until none is left: "Image of a photo of cups" has two. */
function withoutOpening(alt: string): string {
  let rest = alt.trim();
  for (let opening = imageOpening(rest); opening !== null; opening = imageOpening(rest)) {
    rest = rest
      .slice(opening.length)
      .replace(/^[\s:,–—-]+/, '')
      .replace(/^(?:is|are)\s+/, '');
  }
  return withCapital(rest);
}

export const opensWithImage: WordCheck = ({ words }) => {
  const opening = imageOpening(words.alt);
  if (!opening) return null;
  const rest = withoutOpening(words.alt);
  return {
    code: 'opens-with-image',
    severity: 'care',
    sentence: `Opens with “${opening.replace(/[\s:,–—-]+$/, '')}”`,
    why: 'A screen reader says “image” already.',
    mend: rest ? { alt: rest } : null,
  };
};
