// Texts made comparable: case, marks and spaces that nobody hears are taken away.

/** Characters that a text of a photo may have. */
export const LONGEST_TEXT = 10_000;

/** Characters that checks read of a text: nobody listens to more, and a check must never keep anybody waiting. */
export const READ_BY_CHECKS = 2_000;

/** Lower case, single spaces, no space around. */
export const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/** Every check of a photo asks for the same few texts: the last ones are kept. */
const kept = new Map<string, string>();
const KEPT = 64;

/** As it sounds: letters and digits in lower case, single spaces between, accents kept. */
export function sounded(text: string): string {
  const before = kept.get(text);
  if (before !== undefined) return before;
  const heard = text
    .normalize('NFC')
    .toLowerCase()
    .replace(/[’']/g, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
  if (kept.size >= KEPT) kept.clear();
  kept.set(text, heard);
  return heard;
}

/** The words of a text as they sound. */
export const wordsOf = (text: string): string[] => {
  const heard = sounded(text);
  return heard === '' ? [] : heard.split(' ');
};

export const withCapital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const withoutEnding = (name: string): string => name.replace(/\.[a-z0-9]{2,5}$/i, '');
