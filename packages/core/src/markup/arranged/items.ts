// The pictures of an arrangement: each as a figure that works without a script, in lists, with what scripts show of it.
import type { Cell } from '../../arrange/cells.ts';
import type { Arrangement, Language, PhotoRow, RowVariant, Slot } from '../../contract/index.ts';
import { slugOf } from '../../naming/naming.ts';
import { wordsIn } from '../../plan/plan.ts';
import { escapeHtml, indent, tag } from '../html.ts';
import type { Phrases } from '../phrases.ts';
import { altOf, belowPicture, pictureMarkup, storedOf, targetIn, type PictureOptions } from '../picture.ts';
import { OWN } from '../styles.ts';
import { sketchMarkup } from './sketch.ts';

/** One picture of an arrangement, with where it stands. */
export interface ArrangedItem extends Cell {
  row: PhotoRow;
}

export interface ArrangedLook extends Pick<PictureOptions, 'language' | 'both'> {
  arrangement: Arrangement;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** It stands in the first screen: its first picture loads at once. */
  first: boolean;
  /** Language of a photo's words, where it is not the page's. */
  wordsLanguage?: (row: PhotoRow) => Language;
  /** Address of a view of a photo, for pictures whose files are not made: arrangements are tried with them. */
  viewOf?: (row: PhotoRow) => string;
}

/** What markup of an arrangement is made from. */
export interface ArrangedContext extends ArrangedLook {
  items: readonly ArrangedItem[];
  phrases: Phrases;
}

/** The picture with its files, or as a sketch where that is wanted and some are missing. */
export const pictureFor = (options: PictureOptions, { viewOf }: ArrangedContext): string | null =>
  pictureMarkup(options) ?? (viewOf ? sketchMarkup(options.row, options.slot, viewOf(options.row)) : null);

export const pictureIn = (
  item: ArrangedItem,
  slot: Slot,
  first: boolean,
  context: ArrangedContext,
): PictureOptions => ({
  row: item.row,
  slot,
  first,
  urlOf: (variant) => context.urlOf(item.row, variant),
  ...(context.both !== undefined && { both: context.both }),
  ...(context.language !== undefined && { language: context.language }),
  ...(context.wordsLanguage && { wordsLanguage: context.wordsLanguage(item.row) }),
});

/** A figure, marked where its words are in another language than the page. */
export function figureIn({ row }: ArrangedItem, inside: readonly string[], context: ArrangedContext): string {
  const own = context.wordsLanguage?.(row);
  const lang = own !== undefined && own !== context.language ? own : null;
  return `${tag('figure', { lang })}\n${indent(inside.join('\n'))}\n</figure>`;
}

/** Its largest file that every browser reads: where a link leads without scripts. */
export function fileOf({ row, large }: ArrangedItem, { urlOf, viewOf }: ArrangedContext): string | null {
  if (!large) return null;
  const plain = storedOf(row, large, large.shapes[0]!.shape).filter(
    ({ format }) => format !== 'avif' && format !== 'webp',
  );
  const widest = plain.at(-1);
  return widest ? urlOf(row, widest) : (viewOf?.(row) ?? null);
}

/** Names a picture's address within its page: what it shows, and which photo it is. */
export const addressOf = ({ row }: ArrangedItem, { arrangement }: ArrangedContext): string =>
  [arrangement.shortName, slugOf(row.words.title || row.words.alt, 32), row.id].filter(Boolean).join('-');

/** The picture of a cell: alone, as a link to where it leads, or to its large file. */
function clickable(item: ArrangedItem, n: number, context: ArrangedContext): string | null {
  const first = context.first && n === 0;
  const options = pictureIn(item, item.cell, first, context);
  const picture = pictureFor(options, context);
  if (!picture) return null;
  const words = wordsIn(item.row, item.cell.id);
  const target = targetIn(item.row, item.cell.id);
  const file = target ? null : fileOf(item, context);
  if (!target && !file) return picture;
  // A picture without words of its own still leads somewhere, and that has a name.
  const unnamed = altOf(words) === '';
  const { phrases, items } = context;
  const said = words.title.trim() || phrases.picture(n + 1, items.length);
  const link = tag('a', {
    href: target?.address ?? file!,
    ...(target?.newWindow && { target: '_blank', rel: 'noopener' }),
    [`data-${OWN}-open`]: target ? null : addressOf(item, context),
    'aria-label': unnamed ? said : null,
  });
  const window = target?.newWindow
    ? `\n<span class="${OWN}-said">(${escapeHtml(phrases.newWindow)})</span>`
    : '';
  return `${link}\n${indent(picture + window)}\n</a>`;
}

/** A figure of the picture with what stands below it. */
export function figureOf(
  item: ArrangedItem,
  n: number,
  context: ArrangedContext,
  caption: boolean,
): string | null {
  const picture = clickable(item, n, context);
  if (!picture) return null;
  const below = caption ? belowPicture(pictureIn(item, item.cell, false, context)) : [];
  return figureIn(item, [picture, ...below], context);
}

/** The large picture with all of its words, for a script to show: nothing of it is loaded before. */
export function templateOf(item: ArrangedItem, context: ArrangedContext): string[] {
  if (!item.large) return [];
  const options = pictureIn(item, item.large, false, context);
  const picture = pictureFor(options, context);
  if (!picture) return [];
  const inside = figureIn(item, [picture, ...belowPicture(options)], context);
  return [`<template>\n${indent(inside)}\n</template>`];
}

interface CellsLook {
  /** Of each item. */
  style?: (n: number) => string;
  scrolls?: boolean;
}

export function cells(
  context: ArrangedContext,
  caption: boolean,
  { style, scrolls = false }: CellsLook = {},
): string {
  const { items } = context;
  const list = items.flatMap((item, n) => {
    const figure = figureOf(item, n, context, caption);
    if (!figure) return [];
    const inside = [figure, ...templateOf(item, context)].join('\n');
    return [`${tag('li', { style: style?.(n) ?? null })}\n${indent(inside)}\n</li>`];
  });
  // What scrolls is reached by keyboard, and has a name.
  const open = tag('ul', {
    class: `${OWN}-cells`,
    role: 'list',
    tabindex: scrolls ? 0 : null,
    'aria-label': scrolls ? context.phrases.slides : null,
  });
  return `${open}\n${indent(list.join('\n'))}\n</ul>`;
}

export function slides(context: ArrangedContext): string {
  const { items, phrases } = context;
  const list = items.flatMap((item, n) => {
    const figure = figureOf(item, n, context, true);
    if (!figure) return [];
    const slide = tag('div', {
      role: 'group',
      'aria-roledescription': phrases.slide,
      'aria-label': phrases.picture(n + 1, items.length),
    });
    return [`${slide}\n${indent(figure)}\n</div>`];
  });
  // Without a script it scrolls, and by keyboard that takes the focus.
  const row = tag('div', {
    class: `${OWN}-slides`,
    tabindex: 0,
    role: 'group',
    'aria-label': phrases.slides,
  });
  return `${row}\n${indent(list.join('\n'))}\n</div>`;
}
