// What may be said of each kind of arrangement: its choices, its bounds, and what it begins with.
import type { Arranged, ArrangementKind, ArrangementOptions, Columns } from '../contract/index.ts';
import { ratioOf } from '../geometry/geometry.ts';
import { lineProblem, othersProblem, textsProblem } from '../html/languages.ts';
import { passageProblem } from '../html/passage.ts';

/** What a number may be, both ends included. */
interface Bounds {
  from: number;
  to: number;
  unit: string;
}

/** A few words to choose from, a number, or something that is judged on its own. */
export type Option =
  | readonly string[]
  | Bounds
  | 'shape'
  | 'otherShape'
  | 'columns'
  | 'width'
  | 'yes'
  | 'seconds'
  | 'perPage'
  | 'between'
  | 'galleries';

/** What surrounds a picture. */
const FRAMED = {
  frame: ['none', 'line', 'mat'],
  corners: { from: 0, to: 60, unit: 'px' },
  shadow: ['none', 'soft', 'deep'],
} as const;

const SEVERAL = {
  captions: ['below', 'over', 'viewer'],
  click: ['viewer', 'nothing'],
  files: 'yes',
  download: 'yes',
  gap: { from: 0, to: 200, unit: 'px' },
  effect: ['lighten', 'grow', 'none'],
  perPage: 'perPage',
  ownPages: 'yes',
  ...FRAMED,
} as const;

/** Every option of every kind; there is no other. */
export const OPTIONS_OF: Record<ArrangementKind, Readonly<Record<string, Option>>> = {
  figure: {
    side: ['left', 'right', 'centre', 'full'],
    width: 'width',
    caption: ['below', 'beside', 'none'],
    shape: 'shape',
    ...FRAMED,
  },
  grid: { shape: 'shape', fit: ['cut', 'whole'], columns: 'columns', ...SEVERAL },
  rows: { height: { from: 60, to: 1200, unit: 'px' }, ...SEVERAL },
  strip: { shape: 'shape', side: ['below', 'beside'] },
  rotating: {
    shape: 'shape',
    narrowShape: 'otherShape',
    change: ['fade', 'slide'],
    seconds: 'seconds',
    arrows: ['inside', 'outside'],
    buttons: { from: 32, to: 72, unit: 'px' },
    signs: ['light', 'dark'],
    texts: ['below', 'over'],
    ink: ['light', 'dark'],
    scrim: { from: 0, to: 0.9, unit: '' },
  },
  zoom: { shape: 'shape', times: { from: 1.5, to: 4, unit: '×' } },
  feed: { direction: ['down', 'sideways'], shape: 'shape', between: 'between' },
  cover: { shape: 'shape', files: 'yes', download: 'yes', ownPages: 'yes' },
  index: { shape: 'shape', columns: 'columns', gap: SEVERAL.gap, galleries: 'galleries' },
};

export const ARRANGEMENT_KINDS = Object.keys(OPTIONS_OF) as ArrangementKind[];

const FIRST_COLUMNS: Columns = [
  { from: 0, count: 2 },
  { from: 600, count: 3 },
];
const FIRST_FRAMED = { frame: 'none', corners: 0, shadow: 'none' } as const;
const FIRST_SEVERAL = {
  captions: 'below',
  click: 'viewer',
  files: true,
  download: false,
  effect: 'lighten',
  perPage: null,
  ownPages: false,
  ...FIRST_FRAMED,
} as const;

const FIRST: { [K in ArrangementKind]: Extract<ArrangementOptions, { kind: K }> } = {
  figure: {
    ...{ kind: 'figure', side: 'full', width: { part: 1 }, caption: 'below', shape: 'own' },
    ...FIRST_FRAMED,
  },
  grid: { kind: 'grid', shape: '3:2', fit: 'cut', columns: FIRST_COLUMNS, gap: 12, ...FIRST_SEVERAL },
  rows: { kind: 'rows', height: 240, gap: 8, ...FIRST_SEVERAL },
  strip: { kind: 'strip', shape: '3:2', side: 'below' },
  rotating: {
    ...{ kind: 'rotating', shape: '3:1', narrowShape: null, change: 'fade', seconds: null },
    ...{ arrows: 'inside', buttons: 44, signs: 'light', texts: 'below', ink: 'light', scrim: 0.6 },
  },
  zoom: { kind: 'zoom', shape: '3:2', times: 2 },
  feed: { kind: 'feed', direction: 'down', shape: 'own', between: [] },
  cover: { kind: 'cover', shape: '3:2', files: true, download: false, ownPages: false },
  index: { kind: 'index', shape: '3:2', columns: FIRST_COLUMNS, gap: 16, galleries: [] },
};

/** Options with those that were not said: arrangements that were kept before there were as many. */
export const wholeOptions = <O extends ArrangementOptions>(options: O): O => ({
  ...FIRST[options.kind],
  ...options,
});

/** What a kind begins with; what was said of the kind before holds on where both have it. */
export function optionsFor(kind: ArrangementKind, before?: ArrangementOptions): ArrangementOptions {
  const first = FIRST[kind];
  if (!before) return first;
  const kept = Object.fromEntries(
    Object.entries(before).filter(([name, value]) => {
      const option = OPTIONS_OF[kind][name];
      return option !== undefined && problemOf(name, option, value) === null;
    }),
  );
  return { ...first, ...kept, kind } as ArrangementOptions;
}

function columnsProblem(value: unknown): string | null {
  const columns = value as Columns;
  const isList = Array.isArray(value) && columns.length > 0 && columns.length <= 6;
  const rising =
    isList &&
    columns.every(
      (one) => typeof one === 'object' && typeof (one as { from?: unknown } | null)?.from === 'number',
    ) &&
    columns.every(({ from }, n) => (n === 0 ? from === 0 : from > columns[n - 1]!.from && from <= 4000));
  if (!rising)
    return 'The first number of columns holds from 0 px on, and each other from a wider one, up to 4000 px.';
  return columns.every(({ count }) => Number.isInteger(count) && count >= 1 && count <= 12)
    ? null
    : 'There are 1 to 12 columns.';
}

function widthProblem(value: unknown): string | null {
  const sentence = 'A figure is 40 to 4000 px wide, or a tenth to all of what it stands in.';
  if (typeof value !== 'object' || value === null || Object.keys(value).length !== 1) return sentence;
  const { px, part } = value as { px?: unknown; part?: unknown };
  const fits =
    (typeof px === 'number' && px >= 40 && px <= 4000) ||
    (typeof part === 'number' && part >= 0.1 && part <= 1);
  return fits ? null : sentence;
}

function shapeProblem(value: unknown): string | null {
  try {
    ratioOf(value as never, { width: 3, height: 2 });
    return null;
  } catch {
    return 'A shape is “own” or a ratio such as 3:2.';
  }
}

const MOST_PARTS = 200;
const MOST_ORDERED = 10_000;
const LONGEST_HEADING = 200;
/** Of what an index says of a gallery; characters. */
export const LONGEST_ABOUT = 1000;

const isId = (value: unknown): boolean => Number.isInteger(value) && isBetween(value, 1, 4_294_967_295);

/** Objects with these names, perhaps with some more, and no others. */
const isMadeOf = (
  value: unknown,
  names: readonly string[],
  more: readonly string[] = [],
): value is Record<string, unknown> =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(value).every((name) => names.includes(name) || more.includes(name)) &&
  names.every((name) => Object.hasOwn(value, name));

function betweenProblem(value: unknown): string | null {
  if (!Array.isArray(value) || value.length > MOST_PARTS)
    return `Up to ${MOST_PARTS} texts stand between the pictures of a feed.`;
  for (const part of value as unknown[]) {
    if (!isMadeOf(part, ['before', 'heading', 'passage'], ['others']))
      return 'A text of a feed stands before a picture.';
    const { before, heading, passage } = part;
    if (before !== null && !isId(before)) return 'A text of a feed stands before a picture.';
    if (typeof heading !== 'string' || heading.length > LONGEST_HEADING)
      return `A heading has up to ${LONGEST_HEADING} characters.`;
    const problem =
      passageProblem(passage) ??
      othersProblem(
        part.others,
        textsProblem({ heading: lineProblem(LONGEST_HEADING), passage: passageProblem }),
      );
    if (problem) return problem;
  }
  return null;
}

/** What an arrangement may be called in markup. */
const SHORT_NAME = /^[a-z0-9-]{1,64}$/;

function galleriesProblem(value: unknown): string | null {
  const fits =
    Array.isArray(value) &&
    value.length <= MOST_PARTS &&
    (value as unknown[]).every(
      (one) =>
        isMadeOf(one, ['photo', 'set', 'text'], ['part', 'others']) &&
        othersProblem(one.others, lineProblem(LONGEST_ABOUT)) === null &&
        (!('part' in one) || (typeof one.part === 'string' && SHORT_NAME.test(one.part))) &&
        isId(one.photo) &&
        isId(one.set) &&
        typeof one.text === 'string' &&
        one.text.length <= LONGEST_ABOUT,
    );
  if (!fits) return `An index leads to up to ${MOST_PARTS} galleries, each with a cover and a short text.`;
  const photos = (value as { photo: number }[]).map(({ photo }) => photo);
  return new Set(photos).size === photos.length ? null : 'A photo is the cover of one gallery.';
}

function orderProblem(order: unknown): string | null {
  const fits =
    order === undefined ||
    (Array.isArray(order) &&
      order.length <= MOST_ORDERED &&
      order.every(isId) &&
      new Set(order).size === order.length);
  return fits ? null : `An order names up to ${MOST_ORDERED} photos, each once.`;
}

const isBetween = (value: unknown, from: number, to: number): boolean =>
  typeof value === 'number' && value >= from && value <= to;

/** Why a value can't stand for an option, as a sentence, or null. */
function problemOf(name: string, option: Option, value: unknown): string | null {
  if (option === 'columns') return columnsProblem(value);
  if (option === 'width') return widthProblem(value);
  if (option === 'shape') return shapeProblem(value);
  if (option === 'otherShape') return value === null ? null : shapeProblem(value);
  if (option === 'perPage')
    return value === null || (Number.isInteger(value) && isBetween(value, 2, 200))
      ? null
      : 'A page has 2 to 200 pictures, or all of them.';
  if (option === 'between') return betweenProblem(value);
  if (option === 'galleries') return galleriesProblem(value);
  if (option === 'yes') return typeof value === 'boolean' ? null : `“${name}” is yes or no.`;
  if (option === 'seconds')
    return value === null || isBetween(value, 3, 60) ? null : 'A picture stands for 3 to 60 seconds.';
  if ('unit' in option)
    return isBetween(value, option.from, option.to)
      ? null
      : `“${name}” is ${option.from} to ${option.to} ${option.unit}.`;
  return option.includes(value as string) ? null : `“${name}” is one of ${option.join(', ')}.`;
}

/** What is wrong with options or container, as sentences; none where it can be built. Whatever is sent may be looked at. */
export function arrangementProblems({ options, container, order }: Arranged): string[] {
  const known = Object.hasOwn(OPTIONS_OF, options.kind) ? OPTIONS_OF[options.kind] : null;
  if (!known) return ['There is no such kind of arrangement.'];
  const said = wholeOptions(options) as unknown as Record<string, unknown>;
  const wrong = Object.entries(known).flatMap(([name, option]) => problemOf(name, option, said[name]) ?? []);
  const unknown = Object.keys(said).find(
    (name) => name !== 'kind' && said[name] !== undefined && !(name in known),
  );
  if (unknown !== undefined) wrong.push(`This kind of arrangement has no “${unknown}”.`);
  if (container.length === 0 || container[0]!.from !== 0 || container.some(({ vw }) => !(vw >= 0)))
    wrong.push('What an arrangement stands in must not get narrower in wider windows.');
  return [...wrong, ...[orderProblem(order)].filter((problem) => problem !== null)];
}

/** Whether each of its pictures has a page of its own: where a click shows it large. */
export const hasOwnPages = ({ options }: Pick<Arranged, 'options'>): boolean =>
  'ownPages' in options && options.ownPages && (!('click' in options) || options.click === 'viewer');
