// One width of those that a phrase says: how wide, how many in a row, and what else it says; as a CSS expression.
import type { Size } from '../contract/index.ts';

/** What pages leave free beside their column where the window is narrow: 16 px on both sides. */
const MARGIN = 32;
/** A column of text, where nobody said how wide it is. */
export const TEXT_COLUMN = 720;

export interface SaidValue {
  css: string;
  /** Pictures in a row. */
  count: number;
  /** CSS px between them. */
  gap: number;
  fit: Size | null;
  /** Width of the column that was spoken of, CSS px; null for the window. */
  column: number | null;
}

/** What was said before and holds on: the column that a part is of, the gap between pictures. */
export type Before = Pick<SaidValue, 'column' | 'gap'> | null;

const tidy = (value: number): string => String(Math.round(value * 10_000) / 10_000);
const whole = (margin = MARGIN): string => `100vw - ${tidy(margin)}px`;
const most = (px: number, margin?: number): string => `min(${whole(margin)}, ${tidy(px)}px)`;
const single = (css: string, column: number | null = null, fit: Size | null = null): SaidValue => ({
  ...{ css, count: 1, gap: 0, fit, column },
});

/** As wide as what pages leave of the window. */
export const FULL: SaidValue = single(`calc(${whole()})`);

/** A part of a column: half of min(100vw − 32px, 1140px) is min(50vw − 16px, 570px). */
function partOf(part: number, column: number, margin = MARGIN): SaidValue {
  const css = `min(${tidy(part * 100)}vw - ${tidy(part * margin)}px, ${tidy(part * column)}px)`;
  return single(part === 1 ? most(column, margin) : css, column);
}

/** Pictures of equal width in a row, in a column's width or in all of the window. */
export function rowOf(count: number, gap: number, column: number | null): SaidValue {
  const room = column === null ? whole() : most(column);
  const between = tidy((count - 1) * gap);
  const css =
    count === 1
      ? column === null
        ? `calc(${whole()})`
        : room
      : `calc((${room}${gap === 0 ? '' : ` - ${between}px`}) / ${count})`;
  return { css, count, gap, fit: null, column };
}

const L = '@([\\d.]+)';
const PART = '#([\\d.]+)';
const COLUMN = '(?:column|row|sidebar)';
/** What a page leaves free at each side, where that is said. */
const SIDES = new RegExp(
  `,? (?:with |and |minus )?(?:${L} (?:at each side|left and right)|at each side (?:of )?${L})$`,
);

interface Stripped {
  text: string;
  /** Both sides together, CSS px. */
  margin: number | undefined;
}

function withoutSides(text: string): Stripped {
  const found = SIDES.exec(text);
  return found
    ? { text: text.slice(0, found.index), margin: 2 * Number(found[1] ?? found[2]) }
    : { text, margin: undefined };
}

const ROW =
  /^(?:in )?(?:grid (?:of|with) (\d{1,2})|(\d{1,2})(?: (?:abreast|columns?|grid|of them))+)(?: grid)?(?<rest>(?:,? .*)?)$/;
const GAP = new RegExp(`,? ?(?:with )?(?:gap of ${L}|${L} (?:of )?gap|gap ${L}|${L} between)`);
const WITHIN = new RegExp(`,? ?(?:in|on|of|within|inside|at most)? ?${L}(?: ${COLUMN})?`);

/** "4 in a row", with a gap and a column in any order behind it. */
function rowIn(text: string, before: Before): SaidValue | null {
  const found = ROW.exec(text);
  if (!found) return null;
  const count = Number(found[1] ?? found[2]);
  let rest = found.groups!.rest!;
  const gap = GAP.exec(rest);
  if (gap) rest = rest.replace(gap[0], '');
  const column = WITHIN.exec(rest);
  if (column) rest = rest.replace(column[0], '');
  if (rest.replace(/[ ,]|with|and|in (?=window)|(?:of )?window/g, '') !== '' || count < 1) return null;
  const said = gap?.slice(1).find(Boolean);
  return rowOf(count, gap ? Number(said) : (before?.gap ?? 0), column ? Number(column[1]) : null);
}

/** A part of 1 of something: of the window, of a column, of what was spoken of before. */
function shareIn(text: string, margin: number | undefined, before: Before): SaidValue | null {
  const found = new RegExp(`^(?:in |as |at most )?${PART}(?<of>$| .*$)`).exec(text);
  if (!found) return null;
  const part = Number(found[1]);
  const of = found
    .groups!.of!.trim()
    .replace(/^(?:as )?(?:of )?(?:as )?/, '')
    .trim();
  const window = single(`${tidy(part * 100)}vw`);
  if (of === '') {
    if (part === 1) return single(`calc(${whole(margin)})`);
    return before?.column ? partOf(part, before.column, margin) : window;
  }
  if (/^(?:full width|window|width)$/.test(of)) return window;
  if (of === 'text column') return partOf(part, TEXT_COLUMN, margin);
  if (of === 'column') return before?.column ? partOf(part, before.column, margin) : window;
  const column = new RegExp(`^(?:${L}(?: ${COLUMN})?|${COLUMN} (?:of |with )?${L})$`).exec(of);
  return column ? partOf(part, Number(column[1] ?? column[2]), margin) : null;
}

type Way = (found: number[], margin: number | undefined) => SaidValue;

const WAYS: readonly (readonly [RegExp, Way])[] = [
  [
    /^full (?:width|bleed)$|^window$/,
    (_, margin) => single(margin === undefined ? '100vw' : `calc(${whole(margin)})`),
  ],
  [
    new RegExp(`^(?:full (?:width|bleed)|window),? (?:but )?at most ${L}$`),
    ([px]) => single(`min(100vw, ${tidy(px!)}px)`),
  ],
  [
    new RegExp(`^(?:full (?:width|bleed)|window) (?:minus|-) ${L}$`),
    ([px]) => single(`calc(100vw - ${tidy(px!)}px)`),
  ],
  [/^(?:in )?text column$/, (_, margin) => partOf(1, TEXT_COLUMN, margin)],
  [
    /^(?:fills (?:column|box|parent)|as as (?:column|box|parent|possible)|as (?:column|possible))$/,
    (_, margin) => single(`calc(${whole(margin)})`),
  ],
  [
    new RegExp(`^as (?:as )?possible,? (?:but )?at most ${L}$`),
    ([px], margin) => single(most(px!, margin), px),
  ],
  [new RegExp(`^(?:in )?${L} ${COLUMN}$`), ([px], margin) => single(most(px!, margin), px)],
  [
    new RegExp(`^(?:in )?${COLUMN},? (?:of |with |at most )?${L}$`),
    ([px], margin) => single(most(px!, margin), px),
  ],
  [new RegExp(`^(?:in )?${L} column width$`), ([px], margin) => single(most(px!, margin), px)],
  [
    new RegExp(`^between ${L} (?:and|to|-) ${L}$|^at least ${L},? (?:and |but )?at most ${L}$`),
    (found, margin) => {
      const [from, to] = found.filter((one) => !Number.isNaN(one)) as [number, number];
      return single(`max(${tidy(from)}px, ${most(to, margin)})`, to);
    },
  ],
  [new RegExp(`^(?:at most|always|within|inside) ${L}$`), ([px], margin) => single(most(px!, margin), px)],
  [new RegExp(`^${L} at most$`), ([px], margin) => single(most(px!, margin), px)],
  [new RegExp(`^(?:thumbnail|picture)(?: of| with)? ${L}$`), ([px]) => single(`${tidy(px!)}px`)],
  [new RegExp(`^(?:with |of )?${L}(?: thumbnail)?$`), ([px]) => single(`${tidy(px!)}px`)],
];

/** A box that whole photos are fitted into: "at most 960 x 720". */
const BOX = /^(?:at most |within |inside )?@?([\d.]+) x @?([\d.]+)(?: at most)?$/;

/**
 * @param text in one way to write it, without conditions
 * @param isWide "wide" was said: never wider than what the page leaves
 * @returns null for what is no such saying
 */
export function valueOf(text: string, isWide: boolean, before: Before): SaidValue | null {
  const box = BOX.exec(text);
  if (box) {
    const fit = { width: Number(box[1]), height: Number(box[2]) };
    return fit.width >= 1 && fit.height >= 1 && /at most|within|inside/.test(text)
      ? single(most(fit.width), fit.width, fit)
      : null;
  }
  const row = rowIn(text, before);
  if (row) return row;
  const sides = withoutSides(text);
  const share = shareIn(sides.text, sides.margin, before);
  if (share) return share;
  if (isWide) {
    const wide = new RegExp(`^${L}$`).exec(sides.text);
    if (wide) return single(most(Number(wide[1]), sides.margin), Number(wide[1]));
  }
  for (const [way, read] of WAYS) {
    const found = way.exec(sides.text);
    if (found) return read(found.slice(1).map(Number), sides.margin);
  }
  return null;
}
