// A slot's display width as a piecewise linear function of the viewport width, and what CSS says of it.

/** From this viewport width (CSS px) on, the display width is vw × viewport + px. */
export interface WidthPiece {
  from: number;
  vw: number;
  px: number;
}

/** Ascending by `from`; the first piece starts at 0. */
export type WidthRule = readonly WidthPiece[];

const valueOf = (piece: WidthPiece, viewport: number): number => piece.vw * viewport + piece.px;

/** Display width in CSS px (not rounded) at a viewport width in CSS px. */
export function widthAt(rule: WidthRule, viewport: number): number {
  let current = rule[0];
  if (!current) throw new RangeError('A width rule needs at least one piece.');
  for (const piece of rule) if (piece.from <= viewport) current = piece;
  return Math.max(0, valueOf(current, viewport));
}

/** The rule min(rule, cap): a new rule whose width never passes `cap` CSS px. Pieces must not fall. */
export function capRule(rule: WidthRule, cap: number): WidthRule {
  const result: WidthPiece[] = [];
  rule.forEach((piece, index) => {
    const end = rule[index + 1]?.from ?? Infinity;
    const crossing =
      piece.vw > 0 ? (cap - piece.px) / piece.vw : valueOf(piece, 0) > cap ? -Infinity : Infinity;
    if (crossing > piece.from) result.push(piece);
    if (crossing < end) result.push({ from: Math.max(piece.from, Math.ceil(crossing)), vw: 0, px: cap });
  });
  // Neighbouring pieces that say the same are one piece.
  return result.filter(
    (piece, i) => i === 0 || piece.vw !== result[i - 1]!.vw || piece.px !== result[i - 1]!.px,
  );
}

const trim = (value: number): string => String(Math.round(value * 1000) / 1000);

/** One piece as a CSS length: "720px", "50vw", "calc(100vw - 32px)". */
export function cssLength(piece: Pick<WidthPiece, 'vw' | 'px'>): string {
  if (piece.vw === 0) return `${trim(piece.px)}px`;
  const vw = `${trim(piece.vw * 100)}vw`;
  if (piece.px === 0) return vw;
  return `calc(${vw} ${piece.px < 0 ? '-' : '+'} ${trim(Math.abs(piece.px))}px)`;
}

/**
 * The `sizes` attribute of a rule, largest viewport first, last length without a condition
 * (HTML standard, 4.8.4.2.2). `range` leaves out what a `<source media>` has already excluded.
 */
export function sizesOf(
  rule: WidthRule,
  range: { from: number; to: number } = { from: 0, to: Infinity },
): string {
  const inside = rule.filter(
    (piece, i) => piece.from < range.to && (rule[i + 1]?.from ?? Infinity) > range.from,
  );
  return [...inside]
    .reverse()
    .map((piece, i) =>
      i === inside.length - 1 ? cssLength(piece) : `(min-width: ${piece.from}px) ${cssLength(piece)}`,
    )
    .join(', ');
}

/** The same rule as CSS declarations for a selector: widths on the page and `sizes` can't drift apart. */
export function cssWidths(selector: string, rule: WidthRule): string {
  return rule
    .map((piece) => {
      const body = `${selector} { width: ${cssLength(piece)}; }`;
      return piece.from === 0 ? body : `@media (min-width: ${piece.from}px) { ${body} }`;
    })
    .join('\n');
}
