// What an editor wrote for a place's width: words or CSS, read into one result; and the mend for what can't be read.
import type { Size, Slot, WidthRule } from '../contract/index.ts';
import { CssError, UnknownWords } from '../css/errors.ts';
import { parseSizes, sizesOf } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { readPhrase, type Across } from './phrase.ts';
import { withoutHeight, type SaidHeight } from './phrase-height.ts';

export interface TypedWidth {
  css: string;
  rule: WidthRule;
  across: readonly Across[];
  gap: number;
  fit: Size | null;
  /** The height that was said with it; `cut` is null where it was not said how a picture fits. */
  height: SaidHeight['height'];
  /** What was taken for granted, as sentences. */
  notes: readonly string[];
  /** Whether it was said in words. */
  words: boolean;
}

export const LONGEST_WIDTH = 500;

/** CSS px that row mates of places stand apart where nobody said how far. */
export const USUAL_GAP = 12;

/** The width where only a height was said. */
const WIDE = 'as wide as possible';

/**
 * Reads a width in words or as CSS.
 * @throws CssError that names the character.
 */
export function readWidth(text: string): TypedWidth {
  if (text.length > LONGEST_WIDTH)
    throw new CssError(text, LONGEST_WIDTH, `a width has up to ${LONGEST_WIDTH} characters.`);
  const { text: width, height } = withoutHeight(text);
  if (height && width === '') return { ...readWidth(WIDE), height, words: true };
  const typed = cssOf(width);
  const said = typed instanceof CssError ? readPhrase(width) : null;
  if (said) return { ...said, height, words: true };
  if (typed instanceof CssError) throw isSentence(text) ? new UnknownWords(text) : typed;
  const css = width.trim();
  const { rule, notes } = typed;
  if (!WINDOWS.some((window) => widthAt(rule, window) >= 1))
    throw new CssError(text, 0, 'this comes out as no width at all in every window.');
  return { css, rule, across: [{ from: 0, count: 1 }], gap: 0, fit: null, height, notes, words: false };
}

/** The width that CSS says, with what its units hang on; what is wrong with it where it is none. */
function cssOf(text: string): { rule: WidthRule; notes: string[] } | CssError {
  try {
    const rule = parseSizes(text);
    return { rule, notes: /\d(?:r?em)\b/i.test(text) ? ['1 em and 1 rem are taken as 16 px.'] : [] };
  } catch (error) {
    if (error instanceof CssError) return error;
    throw error;
  }
}

/** Words, not CSS: two of them, and nothing that only CSS has. */
const isSentence = (text: string): boolean =>
  !/[()*]|\d(?:vw|vh)/.test(text) && (text.match(/\p{L}{2,}/gu)?.length ?? 0) >= 2;

const WINDOWS = [320, 390, 820, 1280, 1920, 2560];

const MENDS: readonly ((text: string) => string)[] = [
  // Dashes of text programs.
  (text) => text.replace(/\s*[–—−]\s*/g, ' - '),
  (text) => text.replace(/(\d(?:\.\d+)?(?:px|vw|rem|em|%)?|\))\s*([+-])\s*(?=[\d(.]|[a-z]+\()/gi, '$1 $2 '),
  (text) => text.replace(/(\d),(\d)(?=\d*\s*(?:px|vw|rem|em))/gi, '$1.$2'),
  (text) => text.replace(/(\d)\s+(px|vw|rem|em)\b/gi, '$1$2'),
  (text) => text.replace(/(\d)(p|pix|pixels?|pxx?)\b/gi, '$1px'),
  (text) => text + ')'.repeat(Math.max(0, count(text, '(') - count(text, ')'))),
  (text) => text.replace(/(^|[(,+-]\s*)(\d+(?:\.\d+)?)(?=\s*(?:$|[,)]|[+-]\s))/g, '$1$2px'),
  (text) => (/^[^(,]+ [-+*/] [^(,]+$/.test(text.trim()) ? `calc(${text.trim()})` : text),
  (text) => text.replace(/[^\S ]+|;+\s*$/g, ' ').trim(),
];

const count = (text: string, character: string): number => text.split(character).length - 1;

const readable = (text: string): boolean => {
  try {
    readWidth(text);
    return true;
  } catch (error) {
    if (error instanceof CssError) return false;
    throw error;
  }
};

/** Words of a phrase that may be left out on trial: more would take long, and would leave little of what was meant. */
const MOST_WORDS = 16;

/** What is left of a phrase without the one word, or the two, that nobody knows here; null where that doesn't help. */
function withoutAWord(text: string): string | null {
  const words = text.trim().split(/\s+/);
  if (words.length < 2 || words.length > MOST_WORDS) return null;
  const but = (...left: number[]) =>
    words
      .filter((_, n) => !left.includes(n))
      .join(' ')
      .replace(/,$/, '');
  const isWord = (n: number) => /^[\p{L}'-]+,?$/u.test(words[n]!);
  const some = words.flatMap((_, n) => (isWord(n) ? [n] : []));
  const ways = [
    ...some.map((n) => but(n)),
    ...some.flatMap((n) => some.filter((m) => m > n).map((m) => but(n, m))),
  ];
  return ways.find((way) => readPhrase(way) !== null) ?? null;
}

/**
 * The nearest text that can be read, or null: one usual slip mended, or several of them one after the other, or a phrase
 * without the words that are not known.
 */
export function mendedWidth(text: string): string | null {
  if (text.length > LONGEST_WIDTH || readable(text)) return null;
  for (const mend of MENDS) if (readable(mend(text))) return mend(text);
  let mended = text;
  for (const mend of MENDS) {
    mended = mend(mended);
    if (readable(mended)) return mended;
  }
  return withoutAWord(text);
}

/** How a place's width is shown for typing again: as it was said, else as CSS. */
export const widthText = (slot: Pick<Slot, 'rule' | 'said'>): string => slot.said ?? sizesOf(slot.rule);

/** How a place's pictures stand in rows: as its width was said, else one by one. */
export function rowsOf(slot: Pick<Slot, 'said'>): { across: readonly Across[]; gap: number } | null {
  const said = slot.said === undefined ? null : readPhrase(withoutHeight(slot.said).text);
  return said && said.across.some(({ count: many }) => many > 1)
    ? { across: said.across, gap: said.gap }
    : null;
}
