// Pages: what may be said of one, how it is written, and the pages of single pictures.
import { describe, expect, test } from '@jest/globals';
import { parse } from 'parse5';
import { slotsOfArrangement } from '../arrange/cells.ts';
import { hasOwnPages, optionsFor } from '../arrange/options.ts';
import type {
  Arrangement,
  ArrangementOptions,
  PageEntry,
  PagePart,
  PlanContext,
  SetPage,
} from '../contract/index.ts';
import { applyToSet } from '../edits/apply.ts';
import { pageStyles } from '../markup/designs.ts';
import { galleryPage } from '../markup/pages/gallery-page.ts';
import { ownPages } from '../markup/pages/own-page.ts';
import type { PageOptions } from '../markup/pages/options.ts';
import { pageMarkup } from '../markup/pages/page.ts';
import { passageMarkup } from '../markup/passage.ts';
import { all, attributes } from '../testing/html.ts';
import { CONTEXT, sampleRow } from '../testing/sample.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { firstPage, freeFolder, pageProblem } from './page.ts';
import { beginningOf, passageProblem } from '../html/passage.ts';
import { filledTemplate, SPOT, TITLE_SPOT, templateProblem } from './template.ts';
import { openIn } from '../plan/set-places.ts';

const PAGE: SetPage = firstPage('Kiln <diary>', [], () => false);
const text = (words: string): PagePart => ({
  kind: 'text',
  passage: [{ kind: 'paragraph', runs: [{ text: words }] }],
});

describe('a passage', () => {
  test('is written as paragraphs, lists, emphasis and links, and nothing else', () => {
    const markup = passageMarkup([
      {
        kind: 'paragraph',
        runs: [
          { text: 'Warm & ' },
          { text: '<still>', strong: true, emphasis: true },
          { text: ' here', link: '../shop/?a=1&b=2' },
        ],
      },
      { kind: 'item', runs: [{ text: 'Bowls' }] },
      { kind: 'item', runs: [{ text: 'Jugs\nand cups' }] },
      { kind: 'paragraph', runs: [] },
      { kind: 'item', runs: [{ text: 'Plates', link: 'javascript:alert(1)' }] },
    ]);
    expect(markup).toBe(
      [
        '<p>Warm &amp; <strong><em>&lt;still&gt;</em></strong><a href="../shop/?a=1&amp;b=2"> here</a></p>',
        '<ul>\n  <li>Bowls</li>\n  <li>Jugs<br>and cups</li>\n</ul>',
        '<ul>\n  <li>Plates</li>\n</ul>',
      ].join('\n'),
    );
    expect(passageMarkup([])).toBe('');
  });
  test.each<[unknown, RegExp]>([
    ['text', /made of paragraphs/],
    [[{ kind: 'heading', runs: [] }], /made of paragraphs/],
    [[{ kind: 'paragraph', runs: [{ text: 1 }] }], /made of paragraphs/],
    [[{ kind: 'paragraph', runs: [{ text: 'a', onclick: 'x' }] }], /made of paragraphs/],
    [[{ kind: 'paragraph', runs: [{ text: 'a', strong: 'yes' }] }], /made of paragraphs/],
    [[{ kind: 'paragraph', runs: [{ text: 'a', link: 'data:text/html,x' }] }], /can’t lead/],
    [[{ kind: 'paragraph', runs: [{ text: 'a'.repeat(60_000) }] }], /50000/],
    [[null], /made of paragraphs/],
  ])('%j is refused', (passage, sentence) => expect(passageProblem(passage)).toMatch(sentence));
  test('is named by its beginning', () => {
    const passage = [{ kind: 'paragraph' as const, runs: [{ text: ' We  lit ' }, { text: 'it' }] }];
    expect(beginningOf(passage)).toBe('We lit it');
    expect([beginningOf([]), passageProblem(passage)]).toEqual(['', null]);
  });
});

describe('a template', () => {
  const template = `<!doctype html><head><title>${TITLE_SPOT}</title></HEAD ><body><h1>${TITLE_SPOT}</h1>${SPOT}</body>`;
  test('is filled at its spot, and linked in its head', () => {
    const filled = filledTemplate(template, 'A &amp; $& b', '<link>', '<p>$1 </head></p>');
    expect(filled).toBe(
      '<!doctype html><head><title>A &amp; $& b</title><link>\n</HEAD ><body><h1>A &amp; $& b</h1><p>$1 </head></p></body>',
    );
  });
  test.each([
    ['', /needs your HTML file/],
    ['<head></head>', /no marked spot/],
    [`<head></head>${SPOT}${SPOT}`, /2 marked spots/],
    [SPOT, /no <\/head>/],
    ['x'.repeat(300_000), /longer/],
  ])('%j is refused', (wrong, sentence) => expect(templateProblem(wrong)).toMatch(sentence));
  test('may say its spot in its own way', () =>
    expect(templateProblem('<head></head><!--Dusky:PAGE-->')).toBeNull());
});

describe('what is said of a page', () => {
  test.each<[Partial<SetPage>, RegExp]>([
    [{ title: ' ' }, /title/],
    [{ folder: '../shop' }, /folder/],
    [{ folder: '' }, /folder/],
    [{ home: { text: 'Home', address: 'javascript:0' } }, /can’t lead/],
    [{ home: { text: '', address: '../' } }, /text and an address/],
    [{ design: 'own' }, /HTML file/],
    [{ parts: [{ kind: 'heading', text: '' }] }, /heading/],
    [{ parts: [1, 2].map(() => ({ kind: 'place' as const, slot: 'a', titled: true })) }, /once/],
    [{ parts: [{ kind: 'place', slot: 'A b', titled: true }] }, /no such place/],
  ])('%j is refused, by an edit too', (change, sentence) => {
    const page = { ...PAGE, ...change };
    expect(pageProblem(page)).toMatch(sentence);
    const set = { page: null } as Parameters<typeof applyToSet>[0];
    expect(() => applyToSet(set, { kind: 'set', change: { page } })).toThrow(sentence);
  });
  test('the first page is taken back to none', () => {
    const set = { page: null } as Parameters<typeof applyToSet>[0];
    const { inverse } = applyToSet(set, { kind: 'set', change: { page: PAGE } });
    expect(inverse.change).toEqual({ page: null });
    expect(applyToSet({ ...set, page: PAGE }, inverse).change).toEqual({ page: null });
  });
  test('a folder is free', () => {
    expect(freeFolder('Kiln diary', [])).toBe('kiln-diary');
    expect(freeFolder('Kiln diary', ['kiln-diary', 'kiln-diary-2'])).toBe('kiln-diary-3');
    expect(freeFolder('???', ['page'])).toBe('page-2');
    expect(freeFolder('Con', [])).toBe('con-2');
    expect(pageProblem({ ...PAGE, folder: 'aux' })).toContain('Windows can’t make a folder called “aux”');
    expect(pageProblem({ ...PAGE, folder: freeFolder('x'.repeat(200), ['x'.repeat(56)]) })).toBeNull();
  });
});

const container = [{ from: 0, vw: 1, px: -32 }];
const arrangementOf = (shortName: string, options: ArrangementOptions): Arrangement => ({
  ...{ shortName, title: `The ${shortName}`, options, container },
});
const FIGURE = arrangementOf('jug', { ...optionsFor('figure'), side: 'left' } as ArrangementOptions);
const GRID = arrangementOf('pots', { ...optionsFor('grid'), ownPages: true } as ArrangementOptions);
const context: PlanContext = {
  ...CONTEXT,
  slots: [FIGURE, GRID].flatMap((one) => {
    const { cell, large } = slotsOfArrangement(one);
    return large ? [cell, large] : [cell];
  }),
};
const rows = [1, 2, 3].map((id) =>
  sampleRow(
    ['jug', 'pots'],
    { id, words: { ...NO_WORDS, role: 'informative', alt: `Jug ${id}`, title: id === 2 ? '' : `No. ${id}` } },
    { width: 2400, height: 1600 },
    900,
    context,
  ),
);
const place = (slot: string, titled = true): PagePart => ({ kind: 'place', slot, titled });
const entries: PageEntry[] = ['home', 'shop', 'hidden'].map((folder, n) => ({
  ...{ set: n + 1, title: `Our ${folder}`, description: '', folder, menu: folder !== 'hidden', photos: 3 },
  parts: [],
}));
const optionsOf = (page: Partial<SetPage>): PageOptions => ({
  page: { ...PAGE, ...page },
  rows,
  setPlaces: openIn('jug', 'pots'),
  context,
  entries,
  set: 2,
  addressOfPage: ({ folder }) => `../${folder}/`,
  urlOf: (row, { slot, width, format }) => `photos/${row.id}-${slot}-${width}.${format}`,
  ownPageOf: (arrangement, row) => `${arrangement.shortName}/${row.id}.html`,
});
const pageWith = (page: Partial<SetPage>) => pageMarkup(optionsOf(page));

describe('a page', () => {
  test('has its parts in order; texts behind a figure at a side flow around it until something else comes', () => {
    const html = pageWith({
      parts: [
        text('First.'),
        place('jug', false),
        text('Beside.'),
        text('Beside, too.'),
        { kind: 'heading', text: 'More & more' },
        text('Alone.'),
        place('pots'),
      ],
    });
    const main = html.slice(html.indexOf('<main>')).replace(/\s*\n\s*/g, '\n');
    expect(main).toMatch(
      /<div class="part text">\n<p>First.<\/p>\n<\/div>\n<div class="part sized flow in-jug">/,
    );
    expect(main).toMatch(
      /<p>Beside.<\/p>\n<p>Beside, too.<\/p>\n<\/div>\n<h2 class="part text" id="dusky-to-more-and-more">More &amp; more/,
    );
    expect(main).toMatch(/Alone.<\/p>\n<\/div>\n<div class="part sized in-pots">\n<h2>The pots<\/h2>/);
    expect(html.match(/fetchpriority="high"/g)).toHaveLength(1);
  });
  test('has a link home, the menu of the site and a description, and none of them where they are not wanted', () => {
    const html = pageWith({ home: { text: 'Back <home>', address: '/' }, description: 'A "diary"' });
    const document = parse(html);
    expect(html).toContain('<a href="/">Back &lt;home&gt;</a>');
    expect(all(document, 'nav').map((nav) => all(nav, 'a').map(attributes))).toEqual([
      [{ href: '../home/' }, { href: '../shop/', 'aria-current': 'page' }],
    ]);
    expect(html).toContain('<meta name="description" content="A &quot;diary&quot;">');
    expect(pageWith({})).not.toMatch(/name="description"|Back/);
    expect(pageMarkup({ ...optionsOf({}), entries: entries.slice(0, 1) })).not.toContain('<nav');
  });
  test('stands in a template with what it needs, and brings no design of its own', () => {
    const template = `<html><head></head><body>${SPOT}</body></html>`;
    const html = pageWith({ design: 'own', template, parts: [place('pots')] });
    expect(html).toContain('<link rel="stylesheet" href="styles.css">');
    expect(html).toContain('<h1>Kiln &lt;diary&gt;</h1>');
    expect(pageStyles(context, { design: 'own' })).not.toContain('body');
    expect(pageStyles(context, { design: 'own' })).toContain('.in-pots { --wide: calc(100vw - 32px); }');
    const titled = template.replace('<body>', '<body><h1>Ours</h1>');
    expect(all(parse(pageWith({ design: 'own', template: titled })), 'h1')).toHaveLength(1);
  });
  test('passes over places that are gone, and over those without files', () => {
    const html = pageWith({ parts: [place('gone'), place('hero')] });
    expect(html).toMatch(/<main>\s*<\/main>/);
  });
  test.each(['plain', 'wide'] as const)('in the design “%s” says its tone', (design) => {
    expect(pageWith({ design, tone: 'visitor' })).toContain(`<body class="${design} visitor">`);
    expect(pageStyles(context, { design })).toContain('@media (prefers-color-scheme: dark) { body.visitor');
  });
});

describe('a further page of a gallery', () => {
  const paged = arrangementOf('pots', { ...optionsFor('grid'), perPage: 2 } as ArrangementOptions);
  const turned = new Map([['pots', { n: 2, addressOf: (n: number) => (n === 1 ? './' : `pots-${n}.html`) }]]);
  const { cell, large } = slotsOfArrangement(paged);
  const options = {
    ...optionsOf({ parts: [text('First.'), place('jug'), place('pots')] }),
    context: {
      ...context,
      slots: [...context.slots.filter(({ id }) => !id.startsWith('pots')), cell, large!],
    },
    turned,
  };
  test('holds the gallery alone, says which it is, and leads back', () => {
    const html = galleryPage(options, paged, 2, 2);
    const document = parse(html);
    expect(html).toContain(`<title>${paged.title}, page 2 of 2</title>`);
    expect(html).toContain(`<h1>${paged.title}, page 2 of 2</h1>`);
    expect(html).not.toContain('First.');
    expect(all(document, 'h2')).toEqual([]);
    expect(all(document, 'img').map((img) => attributes(img).alt)).toEqual(['Jug 3']);
    expect(all(document, 'img').map((img) => attributes(img).loading)).toEqual(['eager']);
    expect(html).toMatch(/<a href="\.\/">All of Kiln &lt;diary&gt;<\/a>/);
    expect(html).toContain('aria-label="Page 2" aria-current="page"');
  });
  test('in the page’s language', () => {
    expect(galleryPage({ ...options, language: 'de' }, paged, 2, 2)).toContain(', Seite 2 von 2</h1>');
  });
});

describe('own pages of pictures', () => {
  const options = optionsOf({ parts: [place('pots')] });
  const pages = ownPages({ ...options, base: '../' }, GRID);
  test('each has its picture large, and leads to those beside it and back', () => {
    expect(pages.map(({ photo }) => photo)).toEqual([1, 2, 3]);
    const document = parse(pages[1]!.html);
    expect(all(document, 'h1').map((h) => h.childNodes)).toHaveLength(1);
    expect(pages[1]!.html).toContain('<title>Jug 2, 2 of 3 – ');
    expect(pages[1]!.html).toContain('<h1>Jug 2</h1>');
    expect(pages[1]!.html).toMatch(/>Previous picture: [^<]+<\/a>/);
    expect(new Set(pages.map(({ html }) => /<title>(.*)<\/title>/.exec(html)![1])).size).toBe(3);
    expect(all(document, 'a').map((a) => attributes(a).href)).toEqual(['../', 'no-1-1.html', 'no-3-3.html']);
    expect(all(document, 'img').map((img) => attributes(img).loading)).toEqual(['eager']);
    expect(pages[1]!.html).toContain('photos/2-pots-large-');
    expect(pages[0]!.html).not.toContain('Previous picture');
  });
  test('pictures lead there without scripts; elsewhere to their files', () => {
    const html = pageWith({ parts: [place('pots')] });
    expect(html).toContain('<a href="pots/2.html" data-dusky-open="pots-jug-2-2">');
    expect(hasOwnPages({ options: { ...GRID.options, click: 'nothing' } as ArrangementOptions })).toBe(false);
    expect(pageWith({ parts: [place('jug')] })).not.toContain('.html');
  });
});
