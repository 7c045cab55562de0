// What may be said of each kind of arrangement: its choices, its bounds, and what it begins with.
import type { Arranged, ArrangementKind, ArrangementOptions, Columns } from '../contract/index.ts';
import { ratioOf } from '../geometry/geometry.ts';

/** What a number may be, both ends included. */
interface Bounds {
  from: number;
  to: number;
  unit: string;
}

/** A few words to choose from, a number, or something that is judged on its own. */
export type Option = readonly string[] | Bounds | 'shape' | 'columns' | 'width' | 'yes' | 'seconds';

const SEVERAL = {
  captions: ['below', 'over', 'viewer'],
  click: ['viewer', 'nothing'],
  download: 'yes',
  gap: { from: 0, to: 200, unit: 'px' },
} as const;

/** Every option of every kind; each is there, and no other. */
export const OPTIONS_OF: Record<ArrangementKind, Readonly<Record<string, Option>>> = {
  figure: {
    side: ['left', 'right', 'centre', 'full'],
    width: 'width',
    caption: ['below', 'beside', 'none'],
    shape: 'shape',
  },
  grid: { shape: 'shape', columns: 'columns', ...SEVERAL },
  rows: { height: { from: 60, to: 1200, unit: 'px' }, ...SEVERAL },
  strip: { shape: 'shape', side: ['below', 'beside'] },
  rotating: {
    shape: 'shape',
    change: ['fade', 'slide'],
    seconds: 'seconds',
    arrows: ['inside', 'outside'],
  },
  zoom: { shape: 'shape', times: { from: 1.5, to: 4, unit: '×' } },
  feed: { direction: ['down', 'sideways'], shape: 'shape' },
  cover: { shape: 'shape', download: 'yes' },
};

export const ARRANGEMENT_KINDS = Object.keys(OPTIONS_OF) as ArrangementKind[];

const FIRST: { [K in ArrangementKind]: Extract<ArrangementOptions, { kind: K }> } = {
  figure: { kind: 'figure', side: 'full', width: { part: 1 }, caption: 'below', shape: 'own' },
  grid: {
    kind: 'grid',
    shape: '3:2',
    columns: [
      { from: 0, count: 2 },
      { from: 600, count: 3 },
    ],
    gap: 12,
    captions: 'below',
    click: 'viewer',
    download: false,
  },
  rows: { kind: 'rows', height: 240, gap: 8, captions: 'below', click: 'viewer', download: false },
  strip: { kind: 'strip', shape: '3:2', side: 'below' },
  rotating: { kind: 'rotating', shape: '3:1', change: 'fade', seconds: null, arrows: 'inside' },
  zoom: { kind: 'zoom', shape: '3:2', times: 2 },
  feed: { kind: 'feed', direction: 'down', shape: 'own' },
  cover: { kind: 'cover', shape: '3:2', download: false },
};

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

const isBetween = (value: unknown, from: number, to: number): boolean =>
  typeof value === 'number' && value >= from && value <= to;

/** Why a value can't stand for an option, as a sentence, or null. */
function problemOf(name: string, option: Option, value: unknown): string | null {
  if (option === 'columns') return columnsProblem(value);
  if (option === 'width') return widthProblem(value);
  if (option === 'shape') return shapeProblem(value);
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
export function arrangementProblems({ options, container }: Arranged): string[] {
  const known = Object.hasOwn(OPTIONS_OF, options.kind) ? OPTIONS_OF[options.kind] : null;
  if (!known) return ['There is no such kind of arrangement.'];
  const said = options as unknown as Record<string, unknown>;
  const wrong = Object.entries(known).flatMap(([name, option]) => problemOf(name, option, said[name]) ?? []);
  const unknown = Object.keys(said).find(
    (name) => name !== 'kind' && said[name] !== undefined && !(name in known),
  );
  if (unknown !== undefined) wrong.push(`This kind of arrangement has no “${unknown}”.`);
  if (container.length === 0 || container[0]!.from !== 0 || container.some(({ vw }) => !(vw >= 0)))
    wrong.push('What an arrangement stands in must not get narrower in wider windows.');
  return wrong;
}
