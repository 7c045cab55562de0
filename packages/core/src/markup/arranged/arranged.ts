// The markup of an arrangement, as it goes into any page beside its stylesheets and scripts.
import { cellsOf } from '../../arrange/cells.ts';
import { asOrdered } from '../../arrange/order.ts';
import type { ArrangementOptions, PhotoRow } from '../../contract/index.ts';
import { cropIn } from '../../plan/plan.ts';
import { indent, tag } from '../../html/html.ts';
import { saidIn, spokenMarkup } from '../../html/languages.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { OWN } from '../styles.ts';
import { pageLinks } from './items.ts';
import { readingIn, type Among, type ArrangedContext, type ArrangedLook } from './look.ts';
import { addressOf } from './links.ts';
import { PARTS, type InnerParts } from './kinds.ts';
import { arrangementClass, partId } from './styles.ts';

export interface ArrangedOptions extends ArrangedLook {
  /** The photos that stand in it, in their order. */
  rows: readonly PhotoRow[];
}

/** How many pages an arrangement of so many pictures has. */
export const pagesOf = (options: ArrangementOptions, pictures: number): number =>
  'perPage' in options && options.perPage !== null ? Math.max(1, Math.ceil(pictures / options.perPage)) : 1;

/** The photos that have their files, in the arrangement's order; with views all of them. */
export const shownIn = (
  { shortName, order }: Pick<ArrangedLook['arrangement'], 'shortName' | 'order'>,
  standing: readonly PhotoRow[],
  viewed = false,
): PhotoRow[] =>
  asOrdered(standing, order).filter(
    ({ variants }) => viewed || variants.some((v) => v.slot === shortName && v.bytes !== null),
  );

/** Where the pictures of one page of a gallery stand, `own` of them on each. */
function amongOf(
  all: readonly PhotoRow[],
  own: number,
  { n, addressOf: pageAt }: NonNullable<ArrangedLook['page']>,
  look: ArrangedLook,
): Among {
  const at = (index: number): string => {
    const one = (index + all.length) % all.length;
    return `${pageAt(Math.floor(one / own) + 1)}#${addressOf({ row: all[one]! }, look)}`;
  };
  const from = (n - 1) * own;
  return { from, all: all.length, before: at(from - 1), behind: at(Math.min(from + own, all.length)) };
}

/** The short text under its title, on its first page. */
function noteOf(look: ArrangedLook): string[] {
  const { note = '', others } = look.arrangement.words ?? {};
  const reading = readingIn(look);
  if (note.trim() === '' || (look.page && look.page.n > 1)) return [];
  const said = saidIn(note.trim(), others?.[reading.language]?.note, reading);
  return [`<p class="${OWN}-note">${spokenMarkup(said, reading.language)}</p>`];
}

/** "" where no photo has its files. Photos whose files are not made are left out, unless views stand for them. */
export function arrangedMarkup({ rows: standing, ...look }: ArrangedOptions): string {
  const { arrangement, viewOf, page } = look;
  const { shortName, title, options } = arrangement;
  const all = shownIn(arrangement, standing, viewOf !== undefined);
  if (all.length === 0) return '';
  const count = page ? pagesOf(options, all.length) : 1;
  const own = count > 1 && 'perPage' in options ? options.perPage! : all.length;
  const rows = all.slice((count > 1 ? page!.n - 1 : 0) * own).slice(0, own);
  // In rows of their own a picture's width hangs on those beside it: on those that are there.
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, shortName, 'own') }));
  const items = cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
  const { phrases } = phrasesIn(look.language ?? 'en');
  const context: ArrangedContext = {
    ...{ ...look, items, phrases },
    ...(count > 1 && { among: amongOf(all, own, page!, look) }),
  };
  // Each kind knows its own options: the table pairs them, which a union of functions can't say.
  const partsOf = PARTS[options.kind] as (of: ArrangementOptions, context: ArrangedContext) => InnerParts;
  const { classes, attributes, inside } = partsOf(options, context);
  // One picture is no landmark.
  const isAlone = options.kind === 'figure' || options.kind === 'zoom';
  const open = tag(isAlone ? 'div' : 'section', {
    // Links lead to it, from this page and from others.
    id: partId(shortName),
    class: [`${OWN}-set`, `${OWN}-${options.kind}`, arrangementClass(shortName), ...classes].join(' '),
    'aria-label': isAlone ? null : title,
    ...attributes,
  });
  const whole = `${open}\n${indent(inside + pageLinks(context, count))}\n</${isAlone ? 'div' : 'section'}>`;
  // Before it, not within: buttons lie over what is within.
  return [...noteOf(look), whole].join('\n');
}
