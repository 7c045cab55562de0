// A width said in words, as editors say it, in English or German: "half of a 1140 px column", "three in a row, one on
// phones", "volle Breite, ab 800 px die Hälfte". It becomes a CSS expression, which is then read like a typed one.
import type { Size, WidthRule } from '../contract/index.ts';
import { parseSizes } from '../css/sizes.ts';
import { FULL, rowOf, TEXT_COLUMN, valueOf, type Before, type SaidValue } from './phrase-value.ts';
import { plainWidth } from './phrase-words.ts';

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
  /** What was taken for granted, as sentences. */
  notes: string[];
}

const LONGEST = 200;

/** Windows that a kind of device has, CSS px: between phones held upright and tablets, and between those and laptops. */
const TABLETS_FROM = 600;
const LAPTOPS_FROM = 1024;

interface Range {
  from: number;
  to: number;
}

interface Clause extends Range {
  value: SaidValue;
}

const CONDITIONS: readonly (readonly [RegExp, (px: number) => Range])[] = [
  [/\bon phones\b/, () => ({ from: 0, to: TABLETS_FROM })],
  [/\bon tablets\b/, () => ({ from: TABLETS_FROM, to: LAPTOPS_FROM })],
  [/\b(?:on desktop|otherwise)\b/, () => ({ from: 0, to: Infinity })],
  [/\bbelow (?:windows of )?@?([\d.]+)\b/, (px) => ({ from: 0, to: px })],
  [
    /\bfrom (?:windows of )?@?([\d.]+)(?: on(?:wards?)?| up(?:wards)?)?(?![\d.])/,
    (px) => ({ from: px, to: Infinity }),
  ],
  [/\bbelow$/, () => ({ from: 0, to: Infinity })],
];

/** What a part of a phrase says, and in which windows; `isSaid` where it names them. */
function conditioned(part: string): Range & { text: string; isSaid: boolean } {
  for (const [way, range] of CONDITIONS) {
    const found = way.exec(part);
    if (!found) continue;
    const text = part.replace(found[0], ' ').replace(/\s+/g, ' ').trim();
    return { ...range(Number(found[1])), text: text.replace(/^(?:and|but) |^, | ?,$/g, ''), isSaid: true };
  }
  return { from: 0, to: Infinity, text: part.replace(/^(?:and|but) /, ''), isSaid: false };
}

/** As wide as what the page leaves, or so many in a row: what is said shortly where windows are narrower. */
function shortly(text: string, before: Before): SaidValue | null {
  if (/^(?:full(?: width)?|whole(?: width)?|all of it|column|1)$/.test(text)) return FULL;
  const count = /^(\d{1,2})$/.exec(text);
  return count && Number(count[1]) > 0 ? rowOf(Number(count[1]), before?.gap ?? 0, null) : null;
}

function clauseOf(part: string, isWide: boolean, before: Before): (Clause & { isSaid: boolean }) | null {
  const { text, from, to, isSaid } = conditioned(part);
  if (!(to > 0)) return null;
  const value = (isSaid && shortly(text, before)) || valueOf(text, isWide, before);
  return value && { value, from, to, isSaid };
}

/**
 * The parts of a phrase that say a width each. A part that says none goes on with the one before it: "16 px apart" behind
 * a row, "at most 1600 px" behind a width.
 */
function clausesIn(text: string, isWide: boolean): Clause[] | null {
  const parts = text
    .split(/,\s*|\s+but\s+|\s*;\s*/)
    // Two that each say where they hold: "… on phones and … on desktop".
    .flatMap((part) => {
      const both = part.split(/\s+and\s+/);
      return both.length > 1 && both.every((one) => conditioned(one).isSaid) ? both : [part];
    })
    .filter((part) => part !== '');
  const said: { part: string; clause: (Clause & { isSaid: boolean }) | null }[] = [];
  for (const part of parts) {
    const last = said.at(-1);
    const before = last?.clause?.value ?? null;
    const own = clauseOf(part, isWide, before);
    const isNew = own !== null && (!last || own.isSaid || last.clause?.isSaid === true);
    if (isNew || !last) said.push({ part, clause: own });
    else {
      const joined = `${last.part}, ${part}`;
      said[said.length - 1] = {
        part: joined,
        clause: clauseOf(joined, isWide, said.at(-2)?.clause?.value ?? null),
      };
    }
  }
  const clauses = said.map(({ clause }) => clause);
  return clauses.length > 0 && clauses.every((clause) => clause !== null) ? clauses : null;
}

/** The clause that holds in a window: what names it most closely. */
function holding(clauses: readonly Clause[], window: number): SaidValue {
  const within = clauses.filter(({ from, to }) => from <= window && window < to);
  const closest = within.reduce<Clause | null>((best, one) => {
    if (!best) return one;
    return one.to < best.to || (one.to === best.to && one.from > best.from) ? one : best;
  }, null);
  if (closest) return closest.value;
  // Where nothing was said, what is said of narrower windows goes on; below all of them, what is said of the next wider.
  const narrower = clauses.filter(({ to }) => to <= window).toSorted((a, b) => b.to - a.to);
  const wider = clauses.toSorted((a, b) => a.from - b.from);
  return (narrower[0] ?? wider[0]!).value;
}

/**
 * Reads a width as editors say it. Narrow windows keep 16 px free on both sides, where nothing else is said.
 * @returns the expression and what else was said, or null when it is no way of saying that is known: then it may be CSS.
 */
export function readPhrase(text: string): SaidWidth | null {
  if (text.length > LONGEST || /\w\(/.test(text)) return null;
  const { text: plain, notes, isWide } = plainWidth(text);
  const clauses = clausesIn(plain, isWide);
  if (!clauses) return null;
  const breaks = [...new Set(clauses.flatMap(({ from, to }) => [from, to]))].filter(Number.isFinite);
  const pieces = [...new Set([0, ...breaks])]
    .sort((a, b) => b - a)
    .map((from) => ({ from, value: holding(clauses, from) }));
  const css = pieces
    .map(({ from, value }) => (from > 0 ? `(min-width: ${from}px) ${value.css}` : value.css))
    .join(', ');
  const rule = parseSizes(css);
  // A row that is all gaps has no room for pictures in any window.
  if (!rule.some(({ vw, px }) => vw * 1920 + px > 0)) return null;
  const [widest] = pieces;
  return {
    ...{ css, rule, gap: widest!.value.gap, fit: widest!.value.fit },
    across: pieces.map(({ from, value }) => ({ from, count: value.count })),
    notes: [
      ...notes,
      ...(plain.includes('text column') ? [`The text column is taken as ${TEXT_COLUMN} px wide.`] : []),
    ],
  };
}
