// What an editor wrote for a place's width: words or CSS, read into one result; and the mend for what can't be read.
import type { Size, Slot, WidthRule } from '../contract/index.ts';
import { CssError } from '../css/errors.ts';
import { parseSizes, sizesOf } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { readPhrase, type Across } from './phrase.ts';

export interface TypedWidth {
  css: string;
  rule: WidthRule;
  across: readonly Across[];
  gap: number;
  fit: Size | null;
  /** Whether it was said in words. */
  words: boolean;
}

export const LONGEST_WIDTH = 500;

/** CSS px that row mates of places stand apart where nobody said how far. */
export const USUAL_GAP = 12;

/**
 * Reads a width in words or as CSS.
 * @throws CssError that names the character.
 */
export function readWidth(text: string): TypedWidth {
  if (text.length > LONGEST_WIDTH)
    throw new CssError(text, LONGEST_WIDTH, `a width has up to ${LONGEST_WIDTH} characters.`);
  const said = readPhrase(text);
  if (said) return { ...said, words: true };
  const css = text.trim();
  const rule = parseSizes(text);
  if (!WINDOWS.some((window) => widthAt(rule, window) >= 1))
    throw new CssError(text, 0, 'this comes out as no width at all in every window.');
  return { css, rule, across: [{ from: 0, count: 1 }], gap: 0, fit: null, words: false };
}

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

/** The nearest text that can be read, or null: one usual slip mended, or several of them one after the other. */
export function mendedWidth(text: string): string | null {
  if (text.length > LONGEST_WIDTH || readable(text)) return null;
  for (const mend of MENDS) if (readable(mend(text))) return mend(text);
  let mended = text;
  for (const mend of MENDS) {
    mended = mend(mended);
    if (readable(mended)) return mended;
  }
  return null;
}

/** How a place's width is shown for typing again: as it was said, else as CSS. */
export const widthText = (slot: Pick<Slot, 'rule' | 'said'>): string => slot.said ?? sizesOf(slot.rule);

/** How a place's pictures stand in rows: as its width was said, else one by one. */
export function rowsOf(slot: Pick<Slot, 'said'>): { across: readonly Across[]; gap: number } | null {
  const said = slot.said === undefined ? null : readPhrase(slot.said);
  return said && said.across.some(({ count: many }) => many > 1)
    ? { across: said.across, gap: said.gap }
    : null;
}
