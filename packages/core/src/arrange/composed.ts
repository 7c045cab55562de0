// A width inside an arrangement, by the window's width: the one is said by the arrangement's own width.
import type { WidthPiece, WidthRule } from '../contract/index.ts';
import { joined, pieceAt, valueOf } from '../css/width-rule.ts';

/**
 * inner(outer(window)), where `inner` is a rule over the container's width: its `from` is one of the container, and its
 * `vw` a part of the container's width. Both are read as functions that never fall within a piece of `outer`.
 * @throws RangeError where `outer` falls within a piece
 */
export function composed(outer: WidthRule, inner: WidthRule): WidthPiece[] {
  const pieces = outer.flatMap((piece, n): WidthPiece[] => {
    if (piece.vw < 0) throw new RangeError('A container must not get narrower while the window gets wider.');
    const to = outer[n + 1]?.from ?? Infinity;
    const of = ({ vw, px }: WidthPiece, from: number): WidthPiece => ({
      from,
      vw: vw * piece.vw,
      px: vw * piece.px + px,
    });
    const first = of(pieceAt(inner, Math.max(0, valueOf(piece, piece.from))), piece.from);
    if (piece.vw === 0) return [first];
    const later = inner
      // Windows in which the container reaches the width from which a piece holds; whole ones, as in media conditions.
      .map((part) => of(part, Math.ceil((part.from - piece.px) / piece.vw - 1e-9)))
      .filter(({ from }) => from > piece.from && from < to);
    return [first, ...later];
  });
  return joined(pieces);
}
