// What each kind of arrangement is made of: the classes that its stylesheet speaks of, the attributes that its script begins
// with, and its pictures.
import type { ArrangementKind, ArrangementOptions } from '../../contract/index.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import type { Phrases } from '../../html/phrases.ts';
import { evenShapeOf } from '../../slots/slots.ts';
import { belowPicture, figcaptionOf } from '../picture.ts';
import { OWN } from '../styles.ts';
import { cells, covers, figureOf, slides, templateOf, type Below } from './items.ts';
import { figureIn, pictureFor, pictureIn, type ArrangedContext } from './look.ts';
import { addressOf, fileOf, wayTo } from './links.ts';
import { bandWidths } from './styles.ts';

export interface InnerParts {
  classes: string[];
  attributes: Record<string, string | null>;
  inside: string;
}

/** What a script says, in the page's language. */
const saidBy = (
  names: readonly (keyof Phrases['script'])[],
  { phrases, language = 'en' }: ArrangedContext,
  more: object = {},
): string =>
  JSON.stringify({
    ...more,
    lang: language,
    ...Object.fromEntries(names.map((name) => [name, phrases.script[name]])),
  });

/** Which files are offered. */
type Offers = Pick<Options<'cover'>, 'files' | 'download'>;

/** A viewer offers the file only where that is wanted. */
const viewerWords = ({ files, download }: Offers): (keyof Phrases['script'])[] => [
  ...(['of', 'back', 'on', 'play', 'pause', 'close'] as const),
  ...(files && download ? (['save'] as const) : []),
];
const ROTATING = ['controls', 'to', 'back', 'on', 'play', 'pause'] as const;

/** It goes through all pictures of a gallery, on whichever page they stand. */
const viewer = (options: Offers, context: ArrangedContext) => ({
  [`data-${OWN}-viewer`]: saidBy(viewerWords(options), context, context.among),
});

/** The first picture alone. */
const alone = (context: ArrangedContext, shown: Below): string =>
  context.items[0] ? (figureOf(context.items[0], 0, context, shown) ?? '') : '';

/** The picture that stands large at first. */
function stage(context: ArrangedContext): string {
  const [shown] = context.items;
  if (!shown?.large) return '';
  const options = pictureIn(shown, shown.large, context.first, context);
  const picture = pictureFor(options, context);
  return picture ? figureIn(shown, [picture, ...figcaptionOf(belowPicture(options))], context) : '';
}

/** Links to all pictures behind a cover's first, for who has no script and who wants one of them. */
function othersOf(context: ArrangedContext): string[] {
  const { items, phrases } = context;
  return items.slice(1).flatMap((item, n) => {
    const file = fileOf(item, context);
    if (!file) return [];
    const name = item.row.words.title.trim() || phrases.picture(n + 2, items.length);
    const open = tag('a', { ...wayTo(item, file, context), [`data-${OWN}-open`]: addressOf(item, context) });
    const inside = [`${open}${escapeHtml(name)}</a>`, ...templateOf(item, context)];
    return [`<li>\n${indent(inside.join('\n'))}\n</li>`];
  });
}

function cover(context: ArrangedContext): string {
  const [first] = context.items;
  if (!first) return '';
  const picture = [alone(context, 'all'), ...templateOf(first, context)];
  const front = `<div>\n${indent(picture.join('\n'))}\n</div>`;
  const others = othersOf(context);
  if (others.length === 0) return front;
  const summary = `<summary>${escapeHtml(context.phrases.all(context.items.length))}</summary>`;
  const list = `<ul role="list">\n${indent(others.join('\n'))}\n</ul>`;
  return `${front}\n<details>\n${indent(`${summary}\n${list}`)}\n</details>`;
}

type Options<K extends ArrangementKind> = Extract<ArrangementOptions, { kind: K }>;

/** Classes of what surrounds pictures. */
const framed = ({ frame, shadow }: Pick<Options<'figure'>, 'frame' | 'shadow'>): string[] => [
  ...(frame === 'none' ? [] : [`${OWN}-${frame}`]),
  ...(shadow === 'none' ? [] : [`${OWN}-${shadow}`]),
];

/** Classes of a grid or of rows, and the attribute that opens the viewer. */
const several = (options: Options<'grid' | 'rows'>, context: ArrangedContext) => ({
  classes: [
    ...(options.captions === 'over' ? [`${OWN}-over`] : []),
    ...(options.effect === 'lighten' ? [] : [`${OWN}-${options.effect === 'grow' ? 'grows' : 'still'}`]),
    ...(evenShapeOf(options) === null ? [] : [`${OWN}-whole`]),
    ...framed(options),
  ],
  attributes: options.click === 'viewer' ? viewer(options, context) : {},
});

/** The viewer shows what stands nowhere else, where there is one. */
const wordsOf = ({ captions, click }: Options<'grid' | 'rows'>): Below =>
  captions !== 'viewer' ? 'all' : click === 'viewer' ? 'nothing' : 'description';

export const PARTS: {
  [K in ArrangementKind]: (options: Options<K>, context: ArrangedContext) => InnerParts;
} = {
  grid: (options, context) => ({
    ...several(options, context),
    inside: cells(context, wordsOf(options)),
  }),
  rows: (options, context) => ({
    ...several(options, context),
    inside: cells(context, wordsOf(options), {
      style: (n) => bandWidths(context.items[n]!.inside!),
    }),
  }),
  feed: ({ direction, between }, context) => ({
    classes: direction === 'sideways' ? [`${OWN}-sideways`] : [],
    attributes: {},
    inside: cells(context, 'all', { scrolls: direction === 'sideways', between }),
  }),
  figure: ({ side, caption, frame, shadow }, context) => ({
    classes: [
      `${OWN}-${side}`,
      ...(caption === 'beside' ? [`${OWN}-beside`] : []),
      ...framed({ frame, shadow }),
    ],
    attributes: {},
    inside: alone(context, caption === 'none' ? 'description' : 'all'),
  }),
  zoom: ({ times }, context) => ({
    classes: [],
    attributes: { [`data-${OWN}-zoom`]: saidBy(['how'], context), 'data-times': String(times) },
    inside: [
      alone(context, 'all'),
      ...context.items.slice(0, 1).flatMap((one) => templateOf(one, context)),
    ].join('\n'),
  }),
  strip: ({ side }, context) => {
    const large = `<div class="${OWN}-large">\n${indent(stage(context))}\n</div>`;
    const strip = cells({ ...context, first: false }, 'nothing');
    return {
      classes: side === 'beside' ? [`${OWN}-beside`] : [],
      attributes: { [`data-${OWN}-strip`]: '{}' },
      inside: `<div class="${OWN}-film">\n${indent(`${large}\n${strip}`)}\n</div>`,
    };
  },
  cover: (options, context) => ({
    classes: [],
    attributes: viewer(options, context),
    inside: cover(context),
  }),
  rotating: ({ change, arrows, signs, seconds, texts, ink }, context) => ({
    classes: [
      ...(change === 'fade' ? [`${OWN}-fades`] : []),
      ...(arrows === 'outside' ? [`${OWN}-outside`] : []),
      ...(signs === 'dark' ? [`${OWN}-bright`] : []),
      ...(texts === 'over' ? [`${OWN}-worded`] : []),
      ...(texts === 'over' && ink === 'dark' ? [`${OWN}-dark`] : []),
    ],
    attributes: {
      [`data-${OWN}-rotating`]: saidBy(ROTATING, context),
      'data-seconds': seconds === null ? null : String(seconds),
      'aria-roledescription': context.phrases.carousel,
    },
    inside: slides(context, texts === 'over'),
  }),
  index: ({ galleries }, context) => ({
    classes: [`${OWN}-grid`],
    attributes: {},
    inside: covers(context, galleries),
  }),
};
