// What the stylesheet says of one arrangement alone; what holds for all of a kind stands in the runtime's stylesheets.
import type { Arrangement, ArrangementKind, Slot, WidthPiece } from '../../contract/index.ts';
import { cssNumber } from '../../css/sizes.ts';
import { BANDS } from '../../arrange/row-widths.ts';
import { OWN } from '../styles.ts';

/** Class of one arrangement: its short name, so that several on a page need no names to fill in. */
export const arrangementClass = (shortName: string): string => `${OWN}-a-${shortName}`;

/** Stylesheets of the runtime that kinds need, in the order in which they stand. */
export const STYLES_OF: Record<ArrangementKind, readonly string[]> = {
  figure: ['set', 'figure'],
  grid: ['set', 'grid', 'viewer'],
  rows: ['set', 'rows', 'viewer'],
  strip: ['set', 'strip'],
  rotating: ['set', 'rotating'],
  zoom: ['set', 'zoom'],
  feed: ['set', 'feed'],
  cover: ['set', 'viewer'],
};

/** Scripts of the runtime that kinds need. */
export const SCRIPTS_OF: Record<ArrangementKind, readonly string[]> = {
  figure: [],
  grid: ['viewer'],
  rows: ['viewer'],
  strip: ['strip'],
  rotating: ['rotating'],
  zoom: ['zoom'],
  feed: [],
  cover: ['viewer'],
};

/** The width of a cell in a row, for each band, as custom properties; see rows.css. */
export const bandWidths = (rule: readonly WidthPiece[]): string =>
  BANDS.map((from, n) => {
    const { vw, px } = rule.find((piece) => piece.from === from)!;
    return `--b${n}: calc(${cssNumber(vw * 100)}% ${px < 0 ? '-' : '+'} ${cssNumber(Math.abs(px))}px)`;
  }).join('; ');

/** The runtime's files that some arrangements need: names of stylesheets and scripts, each once. */
export function runtimeFor(slots: readonly Pick<Slot, 'arranged'>[]): {
  styles: string[];
  scripts: string[];
} {
  const kinds = slots.flatMap(({ arranged }) => (arranged ? [arranged.options.kind] : []));
  const each = (files: Record<ArrangementKind, readonly string[]>) => [
    ...new Set(kinds.flatMap((kind) => files[kind])),
  ];
  return { styles: each(STYLES_OF), scripts: each(SCRIPTS_OF) };
}

/** Rules of one arrangement; "" where its kind says all. */
export function arrangementRules({ shortName, options }: Pick<Arrangement, 'shortName' | 'options'>): string {
  const own = `.${OWN}-set.${arrangementClass(shortName)}`;
  const gap = 'gap' in options ? `${own} { --${OWN}-gap: ${cssNumber(options.gap)}px; }\n` : '';
  if (options.kind === 'figure') {
    const { width, side } = options;
    const wide =
      side === 'full' ? '100%' : 'px' in width ? `${width.px}px` : `${cssNumber(width.part * 100)}%`;
    return `${own} { --${OWN}-width: ${wide}; }\n`;
  }
  if (options.kind !== 'grid') return gap;
  return (
    gap +
    options.columns
      .map(({ from, count }) => {
        const rule = `${own} .${OWN}-cells { --${OWN}-columns: ${count}; }`;
        return from > 0
          ? `@container ${OWN}-set (min-width: ${cssNumber(from)}px) { ${rule} }\n`
          : `${rule}\n`;
      })
      .join('')
  );
}
