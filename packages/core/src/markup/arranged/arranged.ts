// The markup of arrangements: figures in lists, which work without a script, with what the runtime's scripts begin with.
import { justifiedWidths } from '../../arrange/row-widths.ts';
import { cellsOf, type Cell } from '../../arrange/cells.ts';
import type { Arrangement, PhotoRow, RowVariant, Slot } from '../../contract/index.ts';
import { cropIn, wordsIn } from '../../plan/plan.ts';
import { slugOf } from '../../naming/naming.ts';
import { escapeHtml, indent, tag } from '../html.ts';
import { phrasesIn, type Phrases } from '../phrases.ts';
import { altOf, belowPicture, pictureMarkup, storedOf, targetIn, type PictureOptions } from '../picture.ts';
import { OWN } from '../styles.ts';
import { sketchMarkup } from './sketch.ts';
import { arrangementClass, bandWidths } from './styles.ts';

/** One picture of an arrangement, with where it stands. */
export interface ArrangedItem extends Cell {
  row: PhotoRow;
}

export interface ArrangedOptions extends Pick<PictureOptions, 'language' | 'both'> {
  arrangement: Arrangement;
  items: readonly ArrangedItem[];
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** It stands in the first screen: its first picture loads at once. */
  first: boolean;
  /** Address of a view of a photo, for pictures whose files are not made: arrangements are tried with them. */
  viewOf?: (row: PhotoRow) => string;
}

type Context = ArrangedOptions & { phrases: Phrases };

/** The picture with its files, or as a sketch where that is wanted and some are missing. */
const pictureFor = (options: PictureOptions, { viewOf }: Context): string | null =>
  pictureMarkup(options) ?? (viewOf ? sketchMarkup(options.row, options.slot, viewOf(options.row)) : null);

const pictureIn = (item: ArrangedItem, slot: Slot, first: boolean, context: Context): PictureOptions => ({
  row: item.row,
  slot,
  first,
  urlOf: (variant) => context.urlOf(item.row, variant),
  ...(context.both !== undefined && { both: context.both }),
  ...(context.language !== undefined && { language: context.language }),
});

/** Its largest file that every browser reads: where a link leads without scripts. */
function fileOf({ row, large }: ArrangedItem, { urlOf, viewOf }: Context): string | null {
  if (!large) return null;
  const plain = storedOf(row, large, large.shapes[0]!.shape).filter(
    ({ format }) => format !== 'avif' && format !== 'webp',
  );
  const widest = plain.at(-1);
  return widest ? urlOf(row, widest) : (viewOf?.(row) ?? null);
}

/** Names a picture's address within its page: what it shows, and which photo it is. */
const addressOf = ({ row }: ArrangedItem, { arrangement }: Context): string =>
  [arrangement.shortName, slugOf(row.words.title || row.words.alt, 32), row.id].filter(Boolean).join('-');

/** The picture of a cell: alone, as a link to where it leads, or to its large file. */
function clickable(item: ArrangedItem, n: number, context: Context): string | null {
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
function figureOf(item: ArrangedItem, n: number, context: Context, caption: boolean): string | null {
  const picture = clickable(item, n, context);
  if (!picture) return null;
  const below = caption ? belowPicture(pictureIn(item, item.cell, false, context)) : [];
  return `<figure>\n${indent([picture, ...below].join('\n'))}\n</figure>`;
}

/** The large picture with all of its words, for a script to show: nothing of it is loaded before. */
function templateOf(item: ArrangedItem, context: Context): string[] {
  if (!item.large) return [];
  const options = pictureIn(item, item.large, false, context);
  const picture = pictureFor(options, context);
  if (!picture) return [];
  const inside = `<figure>\n${indent([picture, ...belowPicture(options)].join('\n'))}\n</figure>`;
  return [`<template>\n${indent(inside)}\n</template>`];
}

interface CellsLook {
  /** Of each item. */
  style?: (n: number) => string;
  scrolls?: boolean;
}

function cells(context: Context, caption: boolean, { style, scrolls = false }: CellsLook = {}): string {
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

/** What a script says, in the page's language. */
const saidBy = (names: readonly (keyof Phrases['script'])[], { phrases, language = 'en' }: Context): string =>
  JSON.stringify({
    lang: language,
    ...Object.fromEntries(names.map((name) => [name, phrases.script[name]])),
  });

/** A viewer offers the file only where that is wanted. */
const viewerWords = ({ download }: { download: boolean }): (keyof Phrases['script'])[] => [
  ...(['of', 'back', 'on', 'play', 'pause', 'close'] as const),
  ...(download ? (['save'] as const) : []),
];
const ROTATING = ['controls', 'to', 'back', 'on', 'play', 'pause'] as const;

function slides(context: Context): string {
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

/** Classes, attributes and content of each kind. */
function partsOf(context: Context): {
  classes: string[];
  attributes: Record<string, string | null>;
  inside: string;
} {
  const { arrangement, items } = context;
  const { options } = arrangement;
  const none = {};
  switch (options.kind) {
    case 'grid':
    case 'rows': {
      const rules =
        options.kind === 'rows'
          ? justifiedWidths(
              items.map(({ row, cell }) => {
                const { width, height } = cropIn(row, cell.id, 'own');
                return width / height;
              }),
              options.height,
              options.gap,
            )
          : null;
      return {
        classes: options.captions === 'over' ? [`${OWN}-over`] : [],
        attributes:
          options.click === 'viewer'
            ? { [`data-${OWN}-viewer`]: saidBy(viewerWords(options), context) }
            : none,
        inside: cells(
          context,
          options.captions !== 'viewer',
          rules ? { style: (n) => bandWidths(rules[n]!) } : {},
        ),
      };
    }
    case 'feed':
      return {
        classes: options.direction === 'sideways' ? [`${OWN}-sideways`] : [],
        attributes: none,
        inside: cells(context, true, { scrolls: options.direction === 'sideways' }),
      };
    case 'figure':
      return {
        classes: [`${OWN}-${options.side}`, ...(options.caption === 'beside' ? [`${OWN}-beside`] : [])],
        attributes: none,
        inside: items[0] ? (figureOf(items[0], 0, context, options.caption !== 'none') ?? '') : '',
      };
    case 'zoom':
      return {
        classes: [],
        attributes: { [`data-${OWN}-zoom`]: saidBy(['how'], context), 'data-times': String(options.times) },
        inside: items[0] ? (figureOf(items[0], 0, context, true) ?? '') : '',
      };
    case 'strip': {
      const [shown] = items;
      const picture =
        shown?.large && pictureFor(pictureIn(shown, shown.large, context.first, context), context);
      const large = shown &&
        picture && [picture, ...belowPicture(pictureIn(shown, shown.large!, false, context))];
      const stage = large ? `<figure>\n${indent(large.join('\n'))}\n</figure>` : '';
      return {
        classes: options.side === 'beside' ? [`${OWN}-beside`] : [],
        attributes: { [`data-${OWN}-strip`]: '{}' },
        inside: `<div class="${OWN}-film">\n${indent(`<div class="${OWN}-large">\n${indent(stage)}\n</div>\n${cells({ ...context, first: false }, false)}`)}\n</div>`,
      };
    }
    case 'cover': {
      const [cover, ...others] = items;
      const rest = others.flatMap((item, n) => {
        const file = fileOf(item, context);
        const name = item.row.words.title.trim() || context.phrases.picture(n + 2, items.length);
        const link =
          file &&
          `${tag('a', { href: file, [`data-${OWN}-open`]: addressOf(item, context) })}${escapeHtml(name)}</a>`;
        return link ? [`<li>\n${indent([link, ...templateOf(item, context)].join('\n'))}\n</li>`] : [];
      });
      const figure = cover ? (figureOf(cover, 0, context, true) ?? '') : '';
      const inside = cover ? [figure, ...templateOf(cover, context)] : [];
      const list = `<details>\n${indent(`<summary>${escapeHtml(context.phrases.all(items.length))}</summary>\n<ul role="list">\n${indent(rest.join('\n'))}\n</ul>`)}\n</details>`;
      return {
        classes: [],
        attributes: { [`data-${OWN}-viewer`]: saidBy(viewerWords(options), context) },
        inside: `<div>\n${indent(inside.join('\n'))}\n</div>${rest.length > 0 ? `\n${list}` : ''}`,
      };
    }
    case 'rotating':
      return {
        classes: [
          ...(options.change === 'fade' ? [`${OWN}-fades`] : []),
          ...(options.arrows === 'outside' ? [`${OWN}-outside`] : []),
        ],
        attributes: {
          [`data-${OWN}-rotating`]: saidBy(ROTATING, context),
          'data-seconds': options.seconds === null ? null : String(options.seconds),
          'aria-roledescription': context.phrases.carousel,
        },
        inside: slides(context),
      };
  }
}

/** The photos that stand in an arrangement's place, in their order, each with the cell that it has there. */
export function itemsIn(arrangement: Arrangement, rows: readonly PhotoRow[]): ArrangedItem[] {
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, arrangement.shortName, 'own') }));
  return cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
}

/**
 * An arrangement as it goes into any page, beside its stylesheets and scripts. Photos whose files are not made yet are left
 * out; "" where none is left.
 */
export function arrangedMarkup(options: ArrangedOptions): string {
  const { arrangement } = options;
  const { phrases } = phrasesIn(options.language ?? 'en');
  const items = options.items.filter(
    ({ row, cell }) =>
      options.viewOf !== undefined || row.variants.some((v) => v.slot === cell.id && v.bytes !== null),
  );
  if (items.length === 0) return '';
  const { classes, attributes, inside } = partsOf({ ...options, items, phrases });
  const { kind } = arrangement.options;
  const alone = kind === 'figure' || kind === 'zoom';
  const name = [`${OWN}-set`, `${OWN}-${kind}`, arrangementClass(arrangement.shortName), ...classes].join(
    ' ',
  );
  // One picture is no landmark.
  const open = tag(alone ? 'div' : 'section', {
    class: name,
    'aria-label': alone ? null : arrangement.title,
    ...attributes,
  });
  return `${open}\n${indent(inside)}\n</${alone ? 'div' : 'section'}>`;
}
