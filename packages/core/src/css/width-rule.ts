// A display width as a piecewise linear function of the viewport width, and arithmetic on such functions.

import type { WidthPiece, WidthRule } from '../contract/index.ts';

/** The line of a rule that holds at a viewport width; the last that starts at or before it. */
export function pieceAt(rule: WidthRule, viewport: number): WidthPiece {
  let current = rule[0];
  if (!current) throw new RangeError('A width rule needs at least one piece.');
  for (const piece of rule) if (piece.from <= viewport) current = piece;
  return current;
}

/** Value of one line at a viewport width, both in CSS px; may be negative. */
export const valueOf = (piece: Pick<WidthPiece, 'vw' | 'px'>, viewport: number): number =>
  piece.vw * viewport + piece.px;

/** Display width in CSS px (not rounded, never negative) at a viewport width in CSS px. */
export const widthAt = (rule: WidthRule, viewport: number): number =>
  Math.max(0, valueOf(pieceAt(rule, viewport), viewport));

/** Numbers closer than this are the same: floats of CSS lengths are never meant finer. */
const SAME = 1e-9;

/** Leaves out pieces that say the same as the one before. */
export function joined(rule: WidthRule): WidthPiece[] {
  const result: WidthPiece[] = [];
  for (const piece of rule) {
    const last = result.at(-1);
    if (last && Math.abs(last.vw - piece.vw) < SAME && Math.abs(last.px - piece.px) < SAME) continue;
    result.push(piece);
  }
  return result;
}

export const constant = (px: number): WidthRule => [{ from: 0, vw: 0, px }];

export const scaled = (rule: WidthRule, factor: number): WidthRule =>
  rule.map(({ from, vw, px }) => ({ from, vw: vw * factor, px: px * factor }));

/** All viewport widths at which one of the rules changes, ascending, 0 first. */
const breaksOf = (rules: readonly WidthRule[]): number[] =>
  [...new Set([0, ...rules.flatMap((rule) => rule.map((piece) => piece.from))])].sort((a, b) => a - b);

export function sum(a: WidthRule, b: WidthRule): WidthRule {
  return joined(
    breaksOf([a, b]).map((from) => {
      const [p, q] = [pieceAt(a, from), pieceAt(b, from)];
      return { from, vw: p.vw + q.vw, px: p.px + q.px };
    }),
  );
}

/** The smaller (or larger) of two rules at every viewport; new pieces start where the lines cross. */
export function extreme(a: WidthRule, b: WidthRule, which: 'min' | 'max'): WidthRule {
  const breaks = breaksOf([a, b]);
  const result: WidthPiece[] = [];
  breaks.forEach((from, index) => {
    const to = breaks[index + 1] ?? Infinity;
    const [p, q] = [pieceAt(a, from), pieceAt(b, from)];
    const crossing = p.vw === q.vw ? NaN : (q.px - p.px) / (p.vw - q.vw);
    const cuts = crossing > from && crossing < to ? [from, crossing] : [from];
    cuts.forEach((cut, i) => {
      const end = cuts[i + 1] ?? to;
      // Between two cuts the order doesn't change: any point inside tells it.
      const inside = end === Infinity ? cut + 1 : (cut + end) / 2;
      const first = valueOf(p, inside) <= valueOf(q, inside) === (which === 'min');
      const { vw, px } = first ? p : q;
      result.push({ from: cut, vw, px });
    });
  });
  return joined(result);
}

/** A span of viewport widths, from ≤ width < to, in CSS px. */
export interface Span {
  from: number;
  to: number;
}

/** `then` inside the spans, `otherwise` elsewhere. */
export function choose(spans: readonly Span[], then: WidthRule, otherwise: WidthRule): WidthRule {
  const edges = spans.flatMap(({ from, to }) => [from, to]).filter((edge) => edge < Infinity);
  const cuts = [...new Set([...breaksOf([then, otherwise]), ...edges])].sort((a, b) => a - b);
  return joined(
    cuts.map((from) => {
      const inside = spans.some((span) => span.from <= from && from < span.to);
      return { ...pieceAt(inside ? then : otherwise, from), from };
    }),
  );
}
