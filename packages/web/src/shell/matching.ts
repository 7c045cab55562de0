// How well a line of the finder fits what was typed: as a reader would look for it, in words of their own.

/** Words of a question that say nothing of what is looked for. */
const ASIDE = new Set(
  'a an the this that these those my your our its it is are was do does did how to can could i we you one ones of in on at for with from by and or so why what where which when please want need should be get some'.split(
    ' ',
  ),
);

const bare = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s.-]+/gu, ' ');

/** Letters that a word must have in common with its other forms: "straightening", "straighten". */
const LEAST_STEM = 4;
const stemOf = (word: string): string => word.replace(/(?:ings?|ed|es|s|e)$/, '');

/** 1 for a word that begins one of the text's, less for its other forms and for letters inside a word, 0 for none. */
function fits(word: string, text: string): number {
  if (text.includes(` ${word}`)) return 1;
  const stem = stemOf(word);
  if (stem.length >= LEAST_STEM && text.includes(` ${stem}`)) return 0.9;
  return text.includes(word) ? 0.5 : 0;
}

/**
 * From 0, which is not shown, to 1. Every word must be found, whatever its case and accents; of a question of several
 * words one may be missing, and words such as "how" count for nothing.
 */
export function matchOf(value: string, search: string): number {
  const text = ` ${bare(value)}`;
  const typed = bare(search).split(/\s+/).filter(Boolean);
  const telling = typed.filter((word) => !ASIDE.has(word));
  const words = telling.length > 0 ? telling : typed;
  if (words.length === 0) return 1;
  const fit = words.map((word) => fits(word, text));
  const missing = fit.filter((one) => one === 0).length;
  if (missing > (words.length > 2 ? 1 : 0)) return 0;
  return fit.reduce((sum, one) => sum + one, 0) / words.length;
}
