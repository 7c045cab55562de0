// What the stylesheet says of one arrangement alone; what holds for all of a kind stands in the runtime's stylesheets.
import type { Arrangement, ArrangementKind, Slot, WidthPiece } from '../../contract/index.ts';
import { cssNumber } from '../../css/sizes.ts';
import { wholeOptions } from '../../arrange/options.ts';
import { ROW_BANDS } from '../../arrange/row-widths.ts';
import { evenShapeOf } from '../../slots/slots.ts';
import { OWN } from '../styles.ts';

/** Id of one arrangement or place in a page: a link may lead to it, and no host page has the like. */
export const partId = (shortName: string): string => `${OWN}-${shortName}`;

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
  index: ['set', 'grid', 'index'],
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
  index: [],
};

/** The width of a cell in a row, for each band, as custom properties; see rows.css. */
export const bandWidths = (rule: readonly WidthPiece[]): string =>
  ROW_BANDS.map((from, n) => {
    const { vw, px } = rule.find((piece) => piece.from === from)!;
    return `--b${n}: calc(${cssNumber(vw * 100)}% ${px < 0 ? '-' : '+'} ${cssNumber(Math.abs(px))}px)`;
  }).join('; ');

/** An arrangement's place, and whether one of its pictures is the poster of a film. */
export type Used = Pick<Slot, 'arranged'> & { films?: boolean };

/** The runtime's files that some arrangements need: names of stylesheets and scripts, each once. */
export function runtimeFor(used: readonly Used[]): { styles: string[]; scripts: string[] } {
  const each = used.flatMap(({ arranged, films }) =>
    arranged ? [{ options: wholeOptions(arranged.options), films }] : [],
  );
  return {
    styles: [
      ...new Set(
        each.flatMap(({ options, films }) => [
          ...STYLES_OF[options.kind],
          ...('perPage' in options && options.perPage !== null ? ['pages'] : []),
          ...(options.kind === 'rotating' && options.texts === 'over' ? ['worded'] : []),
          ...(films ? ['film'] : []),
        ]),
      ),
    ],
    scripts: [
      ...new Set(
        each.flatMap(({ options, films }) => [...SCRIPTS_OF[options.kind], ...(films ? ['film'] : [])]),
      ),
    ],
  };
}

/** Rules of one arrangement; "" where its kind says all. */
export function arrangementRules({ shortName, options }: Pick<Arrangement, 'shortName' | 'options'>): string {
  const own = `.${OWN}-set.${arrangementClass(shortName)}`;
  const even = evenShapeOf(options);
  const said = [
    ...('gap' in options ? [`--${OWN}-gap: ${cssNumber(options.gap)}px;`] : []),
    ...('corners' in options && options.corners > 0
      ? [`--${OWN}-corner: ${cssNumber(options.corners)}px;`]
      : []),
    ...(even === null ? [] : [`--${OWN}-cell: ${even.replace(':', ' / ')};`]),
    ...(options.kind === 'rotating' && options.buttons !== 44
      ? [`--${OWN}-control: ${cssNumber(options.buttons)}px;`]
      : []),
    ...(options.kind === 'rotating' && options.texts === 'over'
      ? [`--${OWN}-scrim: ${cssNumber(options.scrim)};`]
      : []),
  ];
  const rules = said.length > 0 ? `${own} { ${said.join(' ')} }\n` : '';
  if (options.kind === 'figure') {
    const { width, side } = options;
    const wide =
      side === 'full' ? '100%' : 'px' in width ? `${width.px}px` : `${cssNumber(width.part * 100)}%`;
    return `${own} { ${[`--${OWN}-width: ${wide};`, ...said].join(' ')} }\n`;
  }
  if (options.kind !== 'grid' && options.kind !== 'index') return rules;
  return (
    rules +
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
