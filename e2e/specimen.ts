// Pages with arrangements as they go into any site: built from made-up photos by the core, with the runtime's own files,
// inside pages of others.
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import sharp from 'sharp';
import { cellsOf, slotsOfArrangement, wholeOptions, type Cell } from '../packages/core/src/arrange/index.ts';
import { escapeHtml } from '../packages/core/src/html/index.ts';
import {
  arrangedMarkup,
  arrangementRules,
  ElementStyles,
  runtimeFor,
  type StyleSink,
} from '../packages/core/src/markup/index.ts';
import type {
  Arrangement,
  ArrangementOptions,
  PageEntry,
  PhotoRow,
  PlanContext,
  WidthRule,
} from '../packages/core/src/contract/index.ts';
import { spokenIn } from './specimen-words.ts';
import { CONTEXT, samplePhoto, sampleRow } from '../packages/core/src/testing/sample.ts';

/** The body's margins, and a column of 1140 px. */
export const CONTAINER: WidthRule = [
  { from: 0, vw: 1, px: -32 },
  { from: 1172, vw: 0, px: 1140 },
];

const SIZES = [
  [3000, 2000],
  [1800, 2400],
  [2200, 2200],
  [3200, 1600],
  [3000, 2000],
  [2000, 2500],
  [3000, 2000],
] as const;

const SEVERAL = { gap: 12, captions: 'below', click: 'viewer', download: true } as const;
const COLUMNS = [
  { from: 0, count: 2 },
  { from: 600, count: 3 },
];

const SAID: Record<string, Partial<ArrangementOptions> & Pick<ArrangementOptions, 'kind'>> = {
  grid: { kind: 'grid', shape: '3:2', columns: COLUMNS, ...SEVERAL },
  over: { kind: 'grid', shape: '1:1', columns: COLUMNS, ...SEVERAL, captions: 'over', effect: 'grow' },
  rows: { kind: 'rows', height: 240, ...SEVERAL, gap: 8 },
  mats: {
    ...{ kind: 'grid', shape: '1:1', columns: COLUMNS, ...SEVERAL },
    ...{ frame: 'mat', corners: 6, shadow: 'soft' },
  },
  matted: { kind: 'rows', height: 220, ...SEVERAL, gap: 10, frame: 'mat', shadow: 'deep' },
  whole: { kind: 'grid', shape: '3:2', fit: 'whole', columns: COLUMNS, ...SEVERAL, frame: 'line' },
  paged: { kind: 'grid', shape: '1:1', columns: COLUMNS, ...SEVERAL, perPage: 3 },
  figure: { kind: 'figure', side: 'left', width: { part: 0.4 }, caption: 'below', shape: '3:2' },
  beside: {
    kind: 'figure',
    side: 'full',
    width: { part: 1 },
    caption: 'beside',
    shape: '3:2',
    frame: 'line',
  },
  mat: {
    ...{ kind: 'figure', side: 'right', width: { px: 420 }, caption: 'below', shape: '3:2' },
    ...{ frame: 'mat', corners: 8, shadow: 'deep' },
  },
  feed: { kind: 'feed', direction: 'down', shape: '3:2' },
  diary: {
    ...{ kind: 'feed', direction: 'down', shape: '3:2' },
    between: [
      {
        before: 2,
        heading: 'The second day',
        passage: [{ kind: 'paragraph', runs: [{ text: 'We lit it ' }, { text: 'at five', strong: true }] }],
      },
      { before: null, heading: '', passage: [{ kind: 'item', runs: [{ text: 'Bowls', link: '#' }] }] },
    ],
  },
  sideways: { kind: 'feed', direction: 'sideways', shape: '3:2' },
  strip: { kind: 'strip', shape: '3:2', side: 'below' },
  film: { kind: 'strip', shape: '3:2', side: 'beside' },
  fade: { kind: 'rotating', shape: '3:1', change: 'fade', seconds: 3, arrows: 'inside' },
  slide: {
    ...{ kind: 'rotating', shape: '3:1', change: 'slide', seconds: null, arrows: 'outside' },
    ...{ buttons: 56, signs: 'dark' },
  },
  worded: {
    ...{ kind: 'rotating', shape: '2:1', narrowShape: '4:3', change: 'fade', seconds: null },
    ...{ texts: 'over', scrim: 0.7 },
  },
  zoom: { kind: 'zoom', shape: '3:2', times: 2 },
  looked: { kind: 'grid', shape: '1:1', columns: COLUMNS, ...SEVERAL, files: false },
  cover: { kind: 'cover', shape: '3:2', download: false },
  index: {
    ...{ kind: 'index', shape: '3:2', columns: COLUMNS, gap: 16 },
    galleries: [1, 2, 3, 4, 5, 6, 7].map((photo) => ({
      photo,
      set: photo,
      text: photo % 2 ? '' : 'Twelve pots.',
    })),
  },
};

/** Pictures of the diary that lead to a film. */
const FILM = 3;

export const OPTIONS: Record<string, ArrangementOptions> = Object.fromEntries(
  Object.entries(SAID).map(([name, options]) => [name, wholeOptions(options as ArrangementOptions)]),
);

export const arrangementOf = (name: string, language = 'en'): Arrangement => ({
  shortName: name,
  title: spokenIn(language).named(name),
  options: OPTIONS[name]!,
  container: CONTAINER,
});

const photos = SIZES.map(([width, height], n) => samplePhoto({ id: n + 1 }, { width, height }));
const arranged = photos.map(({ id, original: { width, height } }) => ({ id, size: { width, height } }));

/** The places of an arrangement with the photos that stand in them. */
export function itemsOf(name: string, language = 'en'): (Cell & { row: PhotoRow })[] {
  const { titles, alt, caption } = spokenIn(language);
  const cells = cellsOf(arrangementOf(name), arranged);
  return cells.map((cell, n) => {
    const slots = [cell.cell, ...(cell.large ? [cell.large] : [])];
    const context: PlanContext = {
      ...CONTEXT,
      slots,
      policy: { ...CONTEXT.policy, modern: 'webp' },
    };
    const words = {
      ...photos[n]!.words,
      title: titles[n]!,
      alt: alt(titles[n]!),
      caption: n % 2 ? '' : caption(titles[n]!),
    };
    const [width, height] = SIZES[n]!;
    const leads = name === 'diary' && n + 1 === FILM ? '/film.webm' : name === 'worded' ? '/shop/' : '';
    const captions = { en: '/film.en.vtt', de: '/film.de.vtt' };
    const placements = [{ slot: name, link: leads, words: {}, crops: {}, captions }];
    const row = sampleRow(
      slots.map(({ id }) => id),
      { id: n + 1, words, ...(leads && { placements }) },
      { width, height },
      undefined,
      context,
    );
    return { ...cell, row };
  });
}

const urlOf = (row: PhotoRow, v: { width: number; height: number; format: string; slot: string }) =>
  `/photos/${row.id}-${v.slot}-${v.width}x${v.height}.${v.format}`;

export const markupOf = (name: string, language = 'en', first = false, n = 1, sink?: StyleSink): string =>
  arrangedMarkup({
    ...(sink && { sink }),
    arrangement: arrangementOf(name, language),
    rows: itemsOf(name, language).map(({ row }) => row),
    urlOf,
    first,
    language,
    page: { n, addressOf: (to) => `?${new URLSearchParams({ names: name, page: String(to) })}` },
    pages: { of: pageOfSet, addressOf: ({ folder }) => `../${folder}/` },
  });

const pageOfSet = (set: number): PageEntry => ({
  ...{
    set,
    title: spokenIn('en').titles[set - 1]!,
    description: '',
    folder: `pots-${set}`,
    menu: true,
    photos: set,
    parts: [],
  },
});

const RUNTIME = new URL('../packages/runtime/dist/', import.meta.url);
export const runtimeFile = (file: string): string => readFileSync(new URL(file, RUNTIME), 'utf8');

const runtimeOf = (names: readonly string[]) =>
  runtimeFor(
    names.map((name) => ({
      ...slotsOfArrangement(arrangementOf(name)).cell,
      films: name === 'diary',
    })),
  );

const stylesOf = (names: readonly string[]): string =>
  runtimeOf(names)
    .styles.map((file) => runtimeFile(`${file}.css`))
    .concat(names.map((name) => arrangementRules(arrangementOf(name))))
    .join('\n');

const scriptOf = (names: readonly string[]): string =>
  runtimeOf(names)
    .scripts.map((file) => runtimeFile(`${file}.js`))
    .join('\n');

/** Pages of others: what their stylesheets say of pictures, lists, buttons and boxes. */
export const HOSTS: Record<string, string> = {
  plain: '',
  reset: `*, *::before, *::after { margin: 0; padding: 0; border: 0; font: inherit; vertical-align: baseline }
    figure, picture, img { display: inline; width: auto; max-width: none; height: 100% } ul, ol { list-style: none }`,
  framework: `#page .article img, #page img { width: auto; height: 300px; max-width: 50%; float: left; margin: 0 2em 2em 0;
      padding: 4px; border: 1px solid #ccc; border-radius: 8px; object-fit: contain }
    #page figure { margin: 1em 40px; padding: 12px } #page picture { width: 50% } #page div { min-width: 10px }
    #page li { list-style: square; margin: 0 0 8px 24px; padding-left: 8px; width: 50% } #page li::before { content: '→ ' }
    #page a { display: inline; padding: 2px } button { width: 100%; padding: 20px; text-transform: uppercase }`,
  boxes: `* { box-sizing: content-box; float: left; max-width: 700px; position: relative } body, main { float: none }
    main, main > .ours { max-width: none; width: 100% } ul, section { overflow: hidden; padding: 10px; border: 2px solid red }
    img { height: 50vh; opacity: .99 } figure { display: inline-block }`,
};

/** One that insists: its resets are !important, and stronger than any class. */
const INSISTING = `html body *, html body *::before, html body *::after, html body #x#x *, html body dialog::backdrop {
    all: unset !important; display: block !important; float: left !important; width: 100px !important;
    height: 20px !important; max-width: 80px !important; margin: 7px !important; padding: 9px !important;
    position: static !important; color: #999 !important; background: #eee !important; content: '#' !important;
    border: 5px solid red !important; text-transform: uppercase !important; opacity: 0.3 !important;
    font: 10px serif !important; transform: rotate(2deg) !important; aspect-ratio: 1 !important }`;

export interface Specimen {
  origin: string;
  close: () => void;
}

/**
 * `/?names=grid,rows&host=reset&scripts=0&twice=1&dir=rtl&first=1`; with `strict=1` under a policy that allows nothing but
 * files of the page's own host, without styles or scripts in the page.
 */
export async function startSpecimen(): Promise<Specimen> {
  const made = new Map<string, Promise<Buffer>>();
  const picture = (path: string): Promise<Buffer> => {
    const [, id, width, height, format] = /(\d+)-[\w-]+-(\d+)x(\d+)\.(\w+)$/.exec(path)!;
    const hue = ['#a03028', '#385868', '#787068', '#205080', '#907838', '#486838', '#583828'][
      Number(id) - 1
    ]!;
    return sharp({
      create: { width: Number(width), height: Number(height), channels: 3, background: hue },
    })
      .toFormat(format as 'webp')
      .toBuffer();
  };
  const server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url!, 'http://host');
    const photo = /\/photos\/.*$/.exec(pathname)?.[0];
    if (photo !== undefined) {
      made.set(photo, made.get(photo) ?? picture(photo));
      void made.get(photo)!.then((bytes) => {
        response.writeHead(200, { 'content-type': `image/${photo.split('.').at(-1)!}` });
        response.end(bytes);
      });
      return;
    }
    const names = (searchParams.get('names') ?? '').split(',');
    const asked = searchParams.get('host') ?? 'plain';
    const host = asked === 'insisting' ? INSISTING : HOSTS[asked]!;
    const page = `body { margin: 0 16px; font: 16px/1.5 sans-serif } main { max-width: 1140px; margin: 0 auto } ${host}`;
    const own = new ElementStyles();
    const isStrict = searchParams.has('strict');
    const language = searchParams.get('lang') ?? 'en';
    const all = () =>
      names.map((name, n) =>
        markupOf(
          ...([name, language, searchParams.has('first') && n === 0] as const),
          Number(searchParams.get('page') ?? 1),
          isStrict ? own.sink : undefined,
        ),
      );
    if (pathname === '/strict.css') {
      all();
      response.writeHead(200, { 'content-type': 'text/css' });
      response.end([page, stylesOf(names), own.rules].join('\n'));
      return;
    }
    if (pathname === '/strict.js') {
      response.writeHead(200, { 'content-type': 'text/javascript' });
      response.end(scriptOf(names));
      return;
    }
    if (pathname !== '/') {
      response.writeHead(404).end();
      return;
    }
    const parts = all();
    // At addresses of their own: where a larger file is there already, a browser keeps it.
    const apart = searchParams.get('apart');
    const ours = (html: string) => (apart ? html.replaceAll('/photos/', `/${apart}/photos/`) : html);
    const text = '<p class="theirs">We lit the kiln at five and fed it until the cones fell.</p>';
    response.writeHead(200, {
      'content-type': 'text/html',
      ...(isStrict && { 'content-security-policy': "default-src 'self'" }),
    });
    const query = escapeHtml(searchParams.toString());
    const head = isStrict
      ? `<link rel="stylesheet" href="/strict.css?${query}"><script src="/strict.js?${query}" defer></script>`
      : `<link rel="icon" href="data:,"><style>${page}</style>\n<style>${stylesOf(names)}</style>`;
    const scripts =
      isStrict || searchParams.get('scripts') === '0' ? '' : `<script>${scriptOf(names)}</script>`;
    response.end(`<!doctype html><html lang="${language}" dir="${searchParams.get('dir') ?? 'ltr'}"><meta charset="utf-8">
<title>Specimen</title><meta name="viewport" content="width=device-width">
${head}
<main id="page" class="article"><h1 class="theirs">A page of others</h1>${text}
<div class="ours">${ours(parts.join(`\n${text}\n`))}</div>${searchParams.has('twice') ? `<div class="ours">${parts.join('\n')}</div>` : ''}
${text}</main>${scripts}</html>`);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  return { origin: `http://127.0.0.1:${port}`, close: () => server.close() };
}
