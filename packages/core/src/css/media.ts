// Media conditions on the width of the viewport and on the resolution (Media Queries Level 4) as spans of viewport widths.
import type { Span } from './width-rule.ts';
import { INITIAL_CONTEXT, readLength } from './length.ts';
import { TokenReader } from './tokens.ts';

const ALL: readonly Span[] = [{ from: 0, to: Infinity }];

/** A viewport of exactly this width and no other; widths of windows are told apart to a millionth of a px. */
const EXACT = 1e-6;

const intersection = (a: readonly Span[], b: readonly Span[]): Span[] =>
  a.flatMap((p) =>
    b.flatMap((q) => {
      const [from, to] = [Math.max(p.from, q.from), Math.min(p.to, q.to)];
      return from < to ? [{ from, to }] : [];
    }),
  );

/** Sorted, touching spans made one. */
function union(spans: readonly Span[]): Span[] {
  const result: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const last = result.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else result.push({ ...span });
  }
  return result;
}

function complement(spans: readonly Span[]): Span[] {
  const result: Span[] = [];
  let from = 0;
  for (const span of union(spans)) {
    if (span.from > from) result.push({ from, to: span.from });
    from = span.to;
  }
  if (from < Infinity) result.push({ from, to: Infinity });
  return result;
}

const compare = (sign: string, px: number): Span[] => {
  switch (sign) {
    case '>=':
      return [{ from: px, to: Infinity }];
    case '>':
      return [{ from: px + EXACT, to: Infinity }];
    case '<':
      return [{ from: 0, to: px }];
    case '<=':
      return [{ from: 0, to: px + EXACT }];
    default:
      return [{ from: px, to: px + EXACT }];
  }
};

/** "400px <= width" read from the other side: width >= 400px. */
const MIRROR: Record<string, string> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=', '=': '=' };
const SIGNS = Object.keys(MIRROR);

function fixedLength(reader: TokenReader): number {
  const at = reader.next;
  const rule = readLength(reader, INITIAL_CONTEXT);
  if (rule.length !== 1 || rule[0]!.vw !== 0) {
    reader.fail('a condition can’t hang on the viewport it asks about; use px or em.', at);
  }
  return Math.max(0, rule[0]!.px);
}

function sign(reader: TokenReader): string {
  if (reader.next.kind !== 'sign' || !SIGNS.includes(reader.next.text)) {
    reader.fail('one of <, <=, =, >=, > is expected here.');
  }
  return reader.take().text;
}

/** Device px per CSS px of the units of resolution. */
const RESOLUTIONS = new Map(Object.entries({ dppx: 1, x: 1, dpi: 1 / 96, dpcm: 2.54 / 96 }));
/** "96dpi" is 1×: what differs less than this is the same. */
const SAME_DENSITY = 1e-6;

/** All viewport widths where the screen's density is as asked, else none. */
function resolution(reader: TokenReader, density: number): Span[] {
  const name = reader.take();
  reader.expect('colon', 'a colon is expected here, as in (min-resolution: 2dppx).');
  const value = reader.expect('number', 'a resolution is expected here, such as 2dppx.');
  const unit = RESOLUTIONS.get(value.unit);
  if (unit === undefined) reader.fail(`“${value.unit}” is no unit of resolution; use dppx, x or dpi.`, value);
  const more = density - value.value * unit;
  const holds =
    name.text === 'min-resolution'
      ? more >= -SAME_DENSITY
      : name.text === 'max-resolution'
        ? more <= SAME_DENSITY
        : Math.abs(more) <= SAME_DENSITY;
  return holds ? [...ALL] : [];
}

/** What stands inside the parentheses of one feature. */
function feature(reader: TokenReader, density: number): Span[] {
  if (/^(?:min-|max-)?resolution$/.test(reader.next.text)) return resolution(reader, density);
  if (reader.next.kind !== 'name' || reader.peek(1).kind === 'open') {
    // "400px <= width", perhaps "400px <= width < 700px".
    const first = fixedLength(reader);
    const left = compare(MIRROR[sign(reader)]!, first);
    widthName(reader);
    if (reader.is('close')) return left;
    return intersection(left, compare(sign(reader), fixedLength(reader)));
  }
  if (!reader.is('name', 'width') && !reader.is('name', 'min-width') && !reader.is('name', 'max-width')) {
    reader.fail(`only conditions on width and resolution can be worked out here, not “${reader.next.text}”.`);
  }
  const name = reader.take();
  if (name.text === 'width' && reader.is('close')) return [{ from: EXACT, to: Infinity }];
  if (name.text === 'width' && !reader.is('colon')) return compare(sign(reader), fixedLength(reader));
  reader.expect('colon', 'a colon is expected here, as in (min-width: 700px).');
  const px = fixedLength(reader);
  return compare({ width: '=', 'min-width': '>=', 'max-width': '<=' }[name.text]!, px);
}

function widthName(reader: TokenReader): void {
  if (!reader.is('name', 'width')) reader.fail('“width” is expected here.');
  reader.take();
}

function inParentheses(reader: TokenReader, density: number): Span[] {
  reader.expect('open', 'a condition in parentheses is expected here, such as (min-width: 700px).');
  const nested = reader.is('open') || reader.is('name', 'not');
  const spans = nested ? readCondition(reader, density) : feature(reader, density);
  reader.expect('close', 'a closing parenthesis is missing.');
  return spans;
}

/**
 * Reads a media condition: the viewport widths at which it holds on a screen of this density.
 * @throws CssError that names the character.
 */
export function readCondition(reader: TokenReader, density: number): Span[] {
  if (reader.accept('name', 'not')) return complement(inParentheses(reader, density));
  let spans = inParentheses(reader, density);
  const word = reader.next.text;
  if (word !== 'and' && word !== 'or') return spans;
  while (reader.accept('name', word)) {
    const more = inParentheses(reader, density);
    spans = word === 'and' ? intersection(spans, more) : union([...spans, ...more]);
  }
  if (reader.is('name', 'and') || reader.is('name', 'or')) {
    reader.fail('“and” and “or” can’t be mixed without parentheses.');
  }
  return spans;
}

/**
 * The viewport widths at which a media query list of conditions on width and resolution holds: "(min-width: 700px), (width < 20em)".
 * An empty list always holds.
 * @throws CssError that names the character.
 */
export function parseMedia(text: string, density = 1): Span[] {
  const reader = new TokenReader(text);
  if (reader.is('end')) return [...ALL];
  const spans: Span[] = [];
  do {
    // "all and (…)" and "screen and (…)": both are true of a page on a screen.
    const typed = reader.accept('name', 'all') || reader.accept('name', 'screen');
    if (typed && !reader.accept('name', 'and')) spans.push(...ALL);
    else spans.push(...readCondition(reader, density));
  } while (reader.accept('comma'));
  if (!reader.is('end')) reader.fail('a comma or the end is expected here.');
  return union(spans);
}

/** True when a media query list holds at a viewport width and density. @throws CssError */
export const mediaHolds = (text: string, viewport: number, density = 1): boolean =>
  parseMedia(text, density).some((span) => span.from <= viewport && viewport < span.to);
