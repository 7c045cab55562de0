// The markup of an arrangement, as it goes into any page beside its stylesheets and scripts.
import { cellsOf } from '../../arrange/cells.ts';
import type { ArrangementOptions, PhotoRow } from '../../contract/index.ts';
import { cropIn } from '../../plan/plan.ts';
import { indent, tag } from '../html.ts';
import { phrasesIn } from '../phrases.ts';
import { OWN } from '../styles.ts';
import type { ArrangedContext, ArrangedLook } from './items.ts';
import { PARTS, type Parts } from './kinds.ts';
import { arrangementClass } from './styles.ts';

export interface ArrangedOptions extends ArrangedLook {
  /** The photos that stand in it, in their order. */
  rows: readonly PhotoRow[];
}

/** "" where no photo has its files. Photos whose files are not made are left out, unless views stand for them. */
export function arrangedMarkup({ rows: standing, ...look }: ArrangedOptions): string {
  const { arrangement, viewOf } = look;
  const { shortName, title, options } = arrangement;
  const rows = standing.filter(
    ({ variants }) => viewOf !== undefined || variants.some((v) => v.slot === shortName && v.bytes !== null),
  );
  if (rows.length === 0) return '';
  // In rows of their own a picture's width hangs on those beside it: on those that are there.
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, shortName, 'own') }));
  const items = cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
  const { phrases } = phrasesIn(look.language ?? 'en');
  // Each kind knows its own options: the table pairs them, which a union of functions can't say.
  const partsOf = PARTS[options.kind] as (of: ArrangementOptions, context: ArrangedContext) => Parts;
  const { classes, attributes, inside } = partsOf(options, { ...look, items, phrases });
  // One picture is no landmark.
  const isAlone = options.kind === 'figure' || options.kind === 'zoom';
  const open = tag(isAlone ? 'div' : 'section', {
    class: [`${OWN}-set`, `${OWN}-${options.kind}`, arrangementClass(shortName), ...classes].join(' '),
    'aria-label': isAlone ? null : title,
    ...attributes,
  });
  return `${open}\n${indent(inside)}\n</${isAlone ? 'div' : 'section'}>`;
}
