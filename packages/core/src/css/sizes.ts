// The `sizes` attribute, read and written (HTML standard, 4.8.4.2.2 and 4.8.4.3.10 "parse a sizes attribute").
import { CssError } from './errors.ts';
import { lineThrough } from './fit.ts';
import { INITIAL_CONTEXT, readLength, type LengthContext } from './length.ts';
import { readCondition } from './media.ts';
import type { WidthPiece, WidthRule } from '../contract/index.ts';
import { choose, extreme, pieceAt, valueOf, type Span } from './width-rule.ts';
import { TokenReader } from './tokens.ts';

/** What `sizes` says when nothing in it applies. */
const WHOLE: WidthRule = [{ from: 0, vw: 1, px: 0 }];

interface SourceSize {
  /** Viewport widths it is meant for, or null without a condition. */
  spans: Span[] | null;
  rule: WidthRule;
}

function readEntry(reader: TokenReader, context: LengthContext): SourceSize {
  if (reader.is('name', 'auto')) {
    reader.fail('“auto” leaves the width to the page; there is nothing to work out before it is laid out.');
  }
  const conditional = reader.is('open') || reader.is('name', 'not');
  const spans = conditional ? readCondition(reader, context.density ?? 1) : null;
  if (conditional && (reader.is('comma') || reader.is('end'))) {
    reader.fail('after a condition comes a width, such as 50vw.');
  }
  return { spans, rule: readLength(reader, context) };
}

const combined = (entries: readonly SourceSize[]): WidthRule =>
  [...entries].reverse().reduce((rest, { spans, rule }) => (spans ? choose(spans, rule, rest) : rule), WHOLE);

/**
 * A `sizes` list as display width by viewport width, every mistake named: for what an editor types.
 * @throws CssError that names the character.
 */
export function parseSizes(text: string, context: LengthContext = INITIAL_CONTEXT): WidthRule {
  const reader = new TokenReader(text);
  if (reader.is('end')) throw new CssError(text, 0, 'a width is expected, such as 100vw.');
  const entries: SourceSize[] = [];
  do {
    const start = reader.next;
    if (entries.at(-1)?.spans === null) {
      reader.fail('this is never reached: the width before it has no condition.', start);
    }
    entries.push(readEntry(reader, context));
  } while (reader.accept('comma'));
  if (!reader.is('end')) reader.fail('a comma or the end is expected here.');
  return combined(entries);
}

/** Splits at commas that stand outside parentheses. */
function splitAtCommas(text: string): string[] {
  const parts = [''];
  let depth = 0;
  for (const character of text) {
    if (character === '(') depth++;
    if (character === ')') depth--;
    if (character === ',' && depth <= 0) parts.push('');
    else parts.push((parts.pop() ?? '') + character);
  }
  return parts;
}

/**
 * A `sizes` list as browsers read it: an entry with a mistake is left out, what comes after one without a
 * condition is not looked at, and 100vw holds where nothing else does. A condition on anything but width and
 * resolution counts as a mistake, for it can't be worked out.
 * @param density device px per CSS px.
 * @param height of the window, CSS px; without it an entry that hangs on it is left out.
 */
export function browserSizes(text: string, density = 1, height?: number): WidthRule {
  const entries: SourceSize[] = [];
  for (const part of splitAtCommas(text)) {
    try {
      const reader = new TokenReader(part);
      const entry = readEntry(reader, {
        ...INITIAL_CONTEXT,
        density,
        ...(height !== undefined && { height }),
      });
      if (!reader.is('end')) continue;
      entries.push(entry);
      if (!entry.spans) break;
    } catch (error) {
      if (!(error instanceof CssError)) throw error;
    }
  }
  return combined(entries);
}

/** A number as CSS writes it, to four digits behind the point. */
export const cssNumber = (value: number): string => String(Math.round(value * 10_000) / 10_000);

/** One line as a CSS length without `calc`: "720px", "50vw", "100vw - 32px". */
function bareLength({ vw, px }: Pick<WidthPiece, 'vw' | 'px'>): string {
  if (vw === 0) return `${cssNumber(px)}px`;
  const ofWidth = `${cssNumber(vw * 100)}vw`;
  if (px === 0) return ofWidth;
  return `${ofWidth} ${px < 0 ? '-' : '+'} ${cssNumber(Math.abs(px))}px`;
}

/** One line as a CSS length: "720px", "50vw", "calc(100vw - 32px)". */
export function cssLength(line: Pick<WidthPiece, 'vw' | 'px'>): string {
  const bare = bareLength(line);
  return bare.includes(' ') ? `calc(${bare})` : bare;
}

/** A length that is never more than another: both as CSS. */
const atMost = (length: string, most: string): string => {
  const inside = /^(?:min|calc)\((.*)\)$/.exec(length)?.[1] ?? length;
  return `min(${inside}, ${most})`;
};

/** Lines are compared up to this viewport width in CSS px; beyond it no window is expected. */
const WIDEST = 10_000;
/** Error that `sizes` may have, in CSS px. */
const TOLERANCE = 1;

const EVERYWHERE: Span = { from: 0, to: Infinity };

interface Part {
  from: number;
  to: number;
  piece: WidthPiece;
}

const valueBefore = (part: Part): number => valueOf(part.piece, Math.min(part.to, WIDEST));
const valueFrom = (part: Part): number => valueOf(part.piece, part.from);

/** A run of parts as one CSS length, or null when no single length says it within the tolerance. */
function asOneLength(parts: readonly Part[]): string | null {
  if (parts.length === 1) return cssLength(parts[0]!.piece);
  const line = lineThrough(
    parts.flatMap((part) => [
      { viewport: part.from, width: valueFrom(part) },
      { viewport: Math.min(part.to, WIDEST), width: valueBefore(part) },
    ]),
    TOLERANCE,
  );
  if (line) return cssLength(line);
  const bends = parts.slice(1).map((part, i) => part.piece.vw - parts[i]!.piece.vw);
  const jumps = parts.slice(1).map((part, i) => Math.abs(valueFrom(part) - valueBefore(parts[i]!)));
  if (jumps.some((jump) => jump > TOLERANCE / 2)) return null;
  const turn = bends.findIndex((bend) => bend > 0 !== bends[0]! > 0);
  return turn < 0 ? bentOnce(parts, bends[0]! > 0) : bentTwice(parts, turn, bends);
}

const bareOf = (part: Part): string => bareLength(part.piece);

/** A bend downward is the smaller of two lines, a bend upward the larger. */
const bentOnce = (parts: readonly Part[], upward: boolean): string =>
  `${upward ? 'max' : 'min'}(${parts.map(bareOf).join(', ')})`;

/** Bends one way up to the part `turn`, then the other way: the larger of smallers, or the smaller of largers. */
function bentTwice(parts: readonly Part[], turn: number, bends: readonly number[]): string | null {
  const upward = bends[0]! > 0;
  if (bends.slice(turn).some((bend) => bend > 0 === upward)) return null;
  const [first, rest] = [parts.slice(0, turn), parts.slice(turn)];
  const [outer, inner] = upward ? (['max', 'min'] as const) : (['min', 'max'] as const);
  const line = ({ piece }: Part): WidthRule => [{ ...piece, from: 0 }];
  const inside = rest.map(line).reduce((a, b) => extreme(a, b, inner));
  const said = first.map(line).reduce((a, b) => extreme(a, b, outer), inside);
  // Lines that meet once may meet again: compared wherever either changes its line.
  const ends = [...parts.map(({ from }) => from), ...said.map(({ from }) => from), parts.at(-1)!.to];
  const differs = ends.some((end) => {
    const at = Math.min(Math.max(end, parts[0]!.from), Math.min(parts.at(-1)!.to, WIDEST));
    const own = parts.findLast(({ from }) => from <= at)!;
    return Math.abs(valueOf(pieceAt(said, at), at) - valueOf(own.piece, at)) > TOLERANCE / 2;
  });
  if (differs) return null;
  const [least, wanted, most] = parts.map(bareOf);
  if (upward && parts.length === 3) return `clamp(${least}, ${wanted}, ${most})`;
  return `${outer}(${first.map(bareOf).join(', ')}, ${inner}(${rest.map(bareOf).join(', ')}))`;
}

/**
 * The `sizes` attribute of a rule with the fewest conditions that keep the error within 1 CSS px, largest
 * viewport first, the last length without a condition. `range` leaves out what a `<source media>` has already
 * excluded; `also` is a condition that every entry has besides; no entry is more than `most`, a CSS length. From the
 * top, each length takes in as many pieces as it can say; since a length that says a run says each part of it, no other
 * split needs fewer.
 */
export function sizesOf(
  rule: WidthRule,
  range: Span = EVERYWHERE,
  also: string | null = null,
  most: string | null = null,
): string {
  const parts: Part[] = rule
    .map((piece, i) => ({
      from: Math.max(piece.from, range.from),
      to: Math.min(rule[i + 1]?.from ?? Infinity, range.to),
      piece,
    }))
    .filter((part) => part.from < part.to);
  const lengths: { from: number; text: string }[] = [];
  let end = parts.length;
  while (end > 0) {
    let begin = end - 1;
    let text = asOneLength(parts.slice(begin, end))!;
    for (let longer = begin - 1; longer >= 0; longer--) {
      const said = asOneLength(parts.slice(longer, end));
      if (said === null) break;
      [begin, text] = [longer, said];
    }
    lengths.push({ from: parts[begin]!.from, text });
    end = begin;
  }
  if (lengths.length === 0) lengths.push({ from: range.from, text: cssLength(pieceAt(rule, range.from)) });
  return lengths
    .map(({ from, text }, i) => {
      const width = i === lengths.length - 1 ? null : `(min-width: ${cssNumber(from)}px)`;
      const conditions = [also, width].filter((condition) => condition !== null).join(' and ');
      const length = most === null ? text : atMost(text, most);
      return conditions ? `${conditions} ${length}` : length;
    })
    .join(', ');
}
