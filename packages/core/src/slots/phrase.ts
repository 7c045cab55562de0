// A width said in words, as editors say it: "half of a 1140 px column", "4 across with 16 px between in 1200 px". It becomes
// a CSS expression, which is then read like a typed one.
import type { Size, WidthRule } from '../contract/index.ts';
import { parseSizes } from '../css/sizes.ts';

/** What pages leave free beside their column where the window is narrow: 16 px on both sides. */
const MARGIN = 32;

/** How pictures stand beside each other: from this window width on, so many in a row. */
export interface Across {
  from: number;
  count: number;
}

export interface SaidWidth {
  /** The expression it became. */
  css: string;
  rule: WidthRule;
  /** Largest window first; the last starts at 0. */
  across: Across[];
  /** CSS px between pictures of a row. */
  gap: number;
  /** The box that the whole photo is fitted into, where a height was said. */
  fit: Size | null;
}

const NUMBERS = 'one two three four five six seven eight nine ten eleven twelve'.split(' ');
const PARTS = new Map<string, [number, number]>(
  Object.entries({
    half: [1, 2],
    'a half': [1, 2],
    'a third': [1, 3],
    'one third': [1, 3],
    'two thirds': [2, 3],
    'a quarter': [1, 4],
    'one quarter': [1, 4],
    'three quarters': [3, 4],
    'a fifth': [1, 5],
    'a sixth': [1, 6],
  } satisfies Record<string, [number, number]>),
);

/** One way to write it: small letters, digits for numbers, "x" for ×, "px" attached to nothing. */
function plain(text: string): string {
  const lower = text
    .toLowerCase()
    .replace(/[×✕]/g, 'x')
    .replace(/[–—−]/g, '-')
    .replace(/[.;:\s]+$/, '')
    .replace(/\bpixels?\b/g, 'px')
    .replace(/(\d)(px|%)/g, '$1 $2')
    .replace(/(\d)\s*x\s*(\d)/g, '$1 x $2')
    // Thousands are written 1 200, 1,200 or 1'200.
    .replace(/\b(\d{1,2})[ ,'’](\d{3})(?=\s*(?:px\b|x\b|$|,|-))/g, '$1$2')
    .replace(/\s+/g, ' ')
    .trim();
  const spelled = NUMBERS.slice(1).reduce(
    (said, word, n) =>
      said.replace(new RegExp(`\\b${word} (?=across|in a row|columns|side by side|below)`, 'g'), `${n + 2} `),
    lower,
  );
  return spelled.replace(/\b(?:(?:a|the)\s)?(?:page'?s? |text )?column of (\d+) px/g, '$1 px column');
}

interface Main {
  css: string;
  count: number;
  gap: number;
  fit: Size | null;
}

const whole = `100vw - ${MARGIN}px`;
const most = (px: number | string): string => `min(${whole}, ${px}px)`;
const single = (css: string, fit: Size | null = null): Main => ({ css, count: 1, gap: 0, fit });
const tidy = (value: number): string => String(Math.round(value * 10_000) / 10_000);

/** A part of a column: half of min(100vw − 32px, 1140px) is min(50vw − 16px, 570px). */
function partOf(part: number, column: number): string {
  return `min(${tidy(part * 100)}vw - ${tidy(part * MARGIN)}px, ${tidy(part * column)}px)`;
}

/** Pictures of equal width in a row, in a page's width or in all of the window. */
function row(count: number, gap: number, width: number | null): Main {
  const room = width === null ? whole : most(width);
  const between = tidy((count - 1) * gap);
  const css =
    count === 1
      ? width === null
        ? `calc(${whole})`
        : room
      : `calc((${room}${gap === 0 ? '' : ` - ${between}px`}) / ${count})`;
  return { css, count, gap, fit: null };
}

const PX = '(\\d{1,5}(?:\\.\\d+)?)(?: px)?';
const WAYS: readonly [RegExp, (found: string[]) => Main | null][] = [
  [new RegExp(`^(?:exactly |always |fixed )?${PX}(?: (?:wide )?column| wide)$`), ([px]) => single(most(px!))],
  [new RegExp(`^(?:in )?(?:a|the) ${PX} column$`), ([px]) => single(most(px!))],
  [
    new RegExp(`^(?:at most|up to|within|inside|no more than) ${PX} x ${PX}$`),
    ([w, h]) => single(most(w!), { width: Number(w), height: Number(h) }),
  ],
  [
    new RegExp(`^${PX} x ${PX} at most$`),
    ([w, h]) => single(most(w!), { width: Number(w), height: Number(h) }),
  ],
  [new RegExp(`^(?:at most|up to|no more than) ${PX}(?: wide)?$`), ([px]) => single(most(px!))],
  [new RegExp(`^${PX}(?: wide)? at most$`), ([px]) => single(most(px!))],
  [
    new RegExp(`^(.+?) (?:of )?(?:a |the )?${PX} (?:wide )?(?:column|page|row|width)$`),
    ([part, px]) => {
      const ratio = shareOf(part!);
      return ratio === null ? null : single(partOf(ratio, Number(px)));
    },
  ],
  [
    /^(.+?) of (?:the|a) (?:window|screen|viewport)(?:'s width)?$/,
    ([part]) => {
      const ratio = shareOf(part!);
      return ratio === null ? null : single(`${tidy(ratio * 100)}vw`);
    },
  ],
  [
    new RegExp(
      `^(?:as wide as the (?:window|screen|page)|full width|edge to edge)(?:,? (?:at most|up to) ${PX}(?: wide)?)?$`,
    ),
    ([px]) => single(px ? `min(100vw, ${px}px)` : '100vw'),
  ],
  [
    new RegExp(
      `^(\\d{1,2}) (?:across|in a row|columns|side by side)(?:,? (?:with )?${PX} (?:between(?: them)?|gaps?|apart))?(?:,? (?:in|on|across|of)(?: (?:a|the))? ${PX}(?: (?:wide )?(?:column|page|row))?)?$`,
    ),
    ([count, gap, width]) => row(Number(count), Number(gap ?? 0), width ? Number(width) : null),
  ],
  [
    new RegExp(
      `^(\\d{1,2}) (?:across|in a row|columns|side by side),? (?:in|on|across|of)(?: (?:a|the))? ${PX}(?: (?:wide )?(?:column|page|row))?,? (?:with )?${PX} (?:between(?: them)?|gaps?|apart)$`,
    ),
    ([count, width, gap]) => row(Number(count), Number(gap), Number(width)),
  ],
];

/** "half", "two thirds", "40 %" as a part of 1. */
function shareOf(text: string): number | null {
  const named = PARTS.get(text.trim());
  if (named) return named[0] / named[1];
  const percent = /^(\d{1,3}(?:\.\d+)?) ?(?:%|per ?cent)$/.exec(text.trim());
  const part = percent ? Number(percent[1]) / 100 : NaN;
  return part > 0 && part <= 1 ? part : null;
}

function mainOf(text: string): Main | null {
  for (const [pattern, read] of WAYS) {
    const found = pattern.exec(text);
    const main = found && read(found.slice(1));
    if (main) return main;
  }
  return null;
}

const BELOW = new RegExp(
  `,? (?:and )?(whole|full width|\\d{1,2})(?: across| in a row)? (?:below|under) ${PX}$`,
);

/**
 * Reads a width as editors say it. Narrow windows keep 16 px free on both sides.
 * @returns the expression and what else was said, or null when it is no way of saying that is known: then it may be CSS.
 */
export function readPhrase(text: string): SaidWidth | null {
  if (text.length > 200) return null;
  const said = plain(text);
  const below = BELOW.exec(said);
  const main = mainOf(below ? said.slice(0, below.index) : said);
  if (!main || main.count < 1) return null;
  if (main.fit && !(main.fit.width >= 1 && main.fit.height >= 1)) return null;
  const across: Across[] = [{ from: 0, count: main.count }];
  let css = main.css;
  if (below) {
    const from = Number(below[2]);
    const count = /^\d/.test(below[1]!) ? Number(below[1]) : 1;
    if (!(from > 0) || count < 1) return null;
    css = `(min-width: ${tidy(from)}px) ${css}, ${row(count, main.gap, null).css}`;
    across[0]!.from = from;
    across.push({ from: 0, count });
  }
  const rule = parseSizes(css);
  // A row that is all gaps has no room for pictures in any window.
  return rule.some(({ vw, px }) => vw * 1920 + px > 0)
    ? { css, rule, across, gap: main.gap, fit: main.fit }
    : null;
}
