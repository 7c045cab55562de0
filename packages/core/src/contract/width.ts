// A display width by the window's width.

/** From this viewport width (CSS px) on, the display width is vw × viewport + px. */
export interface WidthPiece {
  from: number;
  vw: number;
  px: number;
}

/** Ascending by `from`; the first piece starts at 0. */
export type WidthRule = readonly WidthPiece[];
