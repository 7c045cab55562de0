// Words for many photos at once: by a pattern with placeholders, or by finding and replacing.

/** What stands in braces: "{title}, {place}". */
const PLACEHOLDER = /\{(\p{L}+)\}/gu;

/** Names that stand in a pattern, each once. */
export const placeholdersIn = (pattern: string): string[] => [
  ...new Set([...pattern.matchAll(PLACEHOLDER)].map((match) => match[1]!.toLowerCase())),
];

/**
 * A pattern filled in. What is empty takes the mark before it along, so that "{title}, {place}" without a title is not
 * ", Shop grid".
 * @param values by placeholder, in lower case; one that is missing here counts as empty
 */
export function filled(pattern: string, values: Readonly<Record<string, string>>): string {
  const EMPTY = '\uE000';
  return (
    pattern
      .replace(PLACEHOLDER, (_, name: string) => {
        const value = Object.hasOwn(values, name.toLowerCase()) ? values[name.toLowerCase()]! : '';
        return value.trim().replaceAll(EMPTY, '') || EMPTY;
      })
      // What joined something to nothing goes with it.
      .replace(/\uE000[\s,;:·–—/-]*/g, EMPTY)
      .replace(/[\s,;:·–—/-]*\uE000+$/, '')
      .replaceAll(EMPTY, '')
      .trim()
  );
}

export interface Replacing {
  find: string;
  replacement: string;
  /** Capitals and small letters are not the same. */
  exactCase: boolean;
  /** Only where nothing is written on before or behind it. */
  wholeWords: boolean;
}

const isWordPart = (character: string | undefined): boolean =>
  character !== undefined && /[\p{L}\p{N}]/u.test(character);

/** A text with every find replaced, from left to right; the same text where there is none. */
export function replaced(text: string, { find, replacement, exactCase, wholeWords }: Replacing): string {
  if (find === '') return text;
  const fold = (part: string) => (exactCase ? part : part.toLowerCase());
  // Some letters change their length with their case: then the case is kept, and nothing is put in a wrong place.
  const within = fold(text).length === text.length ? fold(text) : text;
  const sought = within === text ? find : fold(find);
  let out = '';
  let from = 0;
  for (let at = within.indexOf(sought); at >= 0; at = within.indexOf(sought, at)) {
    const end = at + sought.length;
    if (wholeWords && (isWordPart(text[at - 1]) || isWordPart(text[end]))) {
      at += 1;
      continue;
    }
    out += text.slice(from, at) + replacement;
    from = at = end;
  }
  return out + text.slice(from);
}
