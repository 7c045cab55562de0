// The `srcset` attribute, read (HTML standard, 4.8.4.3.9 "parse a srcset attribute") and written.

export interface SourceCandidate {
  url: string;
  /** Pixel width from a `w` descriptor, or null. */
  width: number | null;
  /** Density from an `x` descriptor, 1 where neither stands, or null beside a `w`. */
  density: number | null;
}

export interface ParsedSrcset {
  candidates: SourceCandidate[];
  /** A sentence for each candidate that browsers leave out. */
  problems: string[];
}

const SPACE = /[\t\n\f\r ]/;
const WIDTH = /^\d+$/;
const FLOAT = /^-?(?:\d+|\d*\.\d+)(?:[eE][+-]?\d+)?$/;

/** Splits descriptors at white space outside parentheses, up to a comma outside them; returns where it ended. */
function readDescriptors(text: string, start: number): { words: string[]; end: number } {
  const words: string[] = [];
  let word = '';
  let depth = 0;
  let at = start;
  for (; at < text.length; at++) {
    const character = text[at]!;
    if (depth === 0 && character === ',') break;
    if (depth === 0 && SPACE.test(character)) {
      if (word) words.push(word);
      word = '';
      continue;
    }
    if (character === '(') depth++;
    if (character === ')' && depth > 0) depth--;
    word += character;
  }
  if (word) words.push(word);
  return { words, end: at + 1 };
}

/** Descriptors of one candidate, or the sentence that says why browsers leave it out. */
function understood(words: readonly string[]): Omit<SourceCandidate, 'url'> | string {
  let width: number | null = null;
  let density: number | null = null;
  let height = false;
  for (const word of words) {
    const value = word.slice(0, -1);
    if (word.endsWith('w') && WIDTH.test(value)) {
      if (width !== null || density !== null) return `“${word}” stands beside another width or density`;
      if (Number(value) === 0) return 'a width of 0 is no width';
      width = Number(value);
    } else if (word.endsWith('x') && FLOAT.test(value)) {
      if (width !== null || density !== null || height) {
        return `“${word}” stands beside another width or density`;
      }
      if (Number(value) < 0) return 'a density can’t be negative';
      density = Number(value);
    } else if (word.endsWith('h') && WIDTH.test(value)) {
      // Kept by the standard for the future: read, and not used.
      if (height || density !== null) return `“${word}” stands beside another height or density`;
      if (Number(value) === 0) return 'a height of 0 is no height';
      height = true;
    } else return `“${word}” is neither a width such as 640w nor a density such as 2x`;
  }
  if (height && width === null) return 'a height needs a width beside it';
  return { width, density: width === null ? (density ?? 1) : null };
}

/** Parses a `srcset` as browsers do; what they leave out is told in `problems`. Never throws. */
export function parseSrcset(text: string): ParsedSrcset {
  const candidates: SourceCandidate[] = [];
  const problems: string[] = [];
  let at = 0;
  for (;;) {
    while (at < text.length && (SPACE.test(text[at]!) || text[at] === ',')) at++;
    if (at >= text.length) return { candidates, problems };
    let end = at;
    while (end < text.length && !SPACE.test(text[end]!)) end++;
    const raw = text.slice(at, end);
    const url = raw.replace(/,+$/, '');
    let words: string[] = [];
    // A comma right behind the address ends the candidate: commas inside an address are its own.
    if (raw === url) ({ words, end } = readDescriptors(text, end));
    at = end;
    const result = understood(words);
    if (typeof result === 'string') problems.push(`${url}: ${result}.`);
    else candidates.push({ url, ...result });
  }
}

/** A `srcset` with width descriptors. */
export const srcsetOf = (candidates: readonly { url: string; width: number }[]): string =>
  candidates.map(({ url, width }) => `${url} ${width}w`).join(', ');

/** A `srcset` as it is, each candidate under another address; what browsers leave out is left out. */
export const srcsetUnder = (srcset: string, to: (url: string) => string): string =>
  parseSrcset(srcset)
    .candidates.map(
      ({ url, width, density }) => `${to(url)} ${width === null ? `${density ?? 1}x` : `${width}w`}`,
    )
    .join(', ');
