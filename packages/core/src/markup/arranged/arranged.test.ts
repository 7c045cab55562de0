// The markup of arrangements: names, links, languages, and what is left out.
import { describe, expect, test } from '@jest/globals';
import { parse } from 'parse5';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { ARRANGEMENT_KINDS, arrangementProblems, optionsFor } from '../../arrange/options.ts';
import type { ArrangementOptions, Photo, PhotoRow } from '../../contract/index.ts';
import { arrangementOf, markupOf, rowsFor, WORDS } from '../../testing/arranged.ts';
import { CONTEXT, placed } from '../../testing/sample.ts';
import { all, attributes } from '../../testing/html.ts';
import { figureStyles } from '../styles.ts';
import { arrangedMarkup, pagesOf } from './arranged.ts';
import { sketchMarkup } from './sketch.ts';
import { arrangementRules, runtimeFor } from './styles.ts';

describe.each(ARRANGEMENT_KINDS)('a %s', (kind) => {
  test('is well-formed, has its class, one id of its own and no other', () => {
    const wrong: string[] = [];
    const markup = markupOf(optionsFor(kind));
    parse(`<!doctype html><body>${markup}`, { onParseError: ({ code }) => wrong.push(code) });
    expect(wrong).toEqual([]);
    expect(markup).toMatch(
      new RegExp(`^<(section|div) id="dusky-pots" class="dusky-set dusky-${kind} dusky-a-pots`),
    );
    expect(markup.match(/\sid=/g)).toHaveLength(1);
  });
  test('of photos without files is nothing, and with views a sketch', () => {
    const arrangement = arrangementOf(optionsFor(kind));
    const rows = rowsFor(arrangement, [{}, {}], null);
    const options = { arrangement, rows, urlOf: () => 'never', first: false };
    expect(arrangedMarkup(options)).toBe('');
    const sketched = arrangedMarkup({ ...options, viewOf: ({ id }) => `/view/${id}` });
    expect(sketched).toContain('src="/view/1"');
    expect(sketched).not.toContain('never');
  });
});

test('a sketch has the shape of narrow windows, too', () => {
  const arrangement = arrangementOf({ ...optionsFor('rotating'), shape: '3:1', narrowShape: '4:3' } as never);
  const [row] = rowsFor(arrangement, [{}], null);
  const html = sketchMarkup(row!, slotsOfArrangement(arrangement).cell, '/view/1');
  expect(html).toMatch(
    /^<style>@media \(max-width: 639\.98px\) \{ \.dusky-sketch-1 \{ aspect-ratio: (\d+) \/ (\d+) !important; object-position: [^;]+ !important \} \}<\/style>\n<img class="dusky-sketch-1"/,
  );
  const [width, height] = /ratio: (\d+) \/ (\d+) !important/.exec(html)!.slice(1).map(Number);
  expect(width! / height!).toBeCloseTo(4 / 3, 2);
});

describe('an arrangement', () => {
  const grid = optionsFor('grid');
  test('leads where its photos lead, else to the large file, and names what has no words', () => {
    const changes: Partial<Photo>[] = [
      { words: { ...WORDS, role: 'functional', link: '/shop?a=1&b=2', newWindow: true } },
      { words: { ...WORDS, role: 'decorative', alt: '', title: '' } },
      {
        placements: placed('pots').map((placement) => ({
          ...placement,
          words: { alt: 'Here another text' },
        })),
      },
    ];
    const markup = markupOf(grid, changes);
    expect(markup).toContain('href="/shop?a=1&amp;b=2" target="_blank" rel="noopener"');
    expect(markup).toContain('(opens in a new window)');
    expect(markup).toMatch(
      /href="pots-large-\d+\.jpeg" data-dusky-open="pots-2" aria-label="Picture 2 of 3"/,
    );
    expect(markup).toContain('alt="Here another text"');
    // What leads elsewhere opens no viewer.
    expect(markup.match(/data-dusky-open/g)).toHaveLength(2);
  });
  test('opens nothing where a click does nothing, and offers a file only where that is wanted', () => {
    expect(markupOf({ ...grid, click: 'nothing' } as ArrangementOptions)).not.toMatch(
      /<a |data-dusky|<template/,
    );
    expect(markupOf(grid)).not.toContain('&quot;save&quot;');
    expect(markupOf({ ...grid, download: true } as ArrangementOptions)).toContain('&quot;save&quot;');
  });
  test('speaks the page’s language, and marks figures in another', () => {
    const markup = markupOf(grid, [{}, {}], {
      language: 'de',
      wordsLanguage: ({ id }) => (id === 1 ? 'de' : 'en'),
    });
    expect(markup).toContain('Nächstes Bild');
    // In the list and in the template.
    expect(markup.match(/<figure lang="en">/g)).toHaveLength(2);
    expect(markup.match(/<figure>/g)).toHaveLength(2);
  });
  test('loads its first picture at once where it stands first, and no other', () => {
    const markup = markupOf(optionsFor('rotating'), [{}, {}, {}], { first: true });
    expect(markup.match(/fetchpriority="high"/g)).toHaveLength(1);
    expect(markup.match(/loading="lazy"/g)).toHaveLength(2);
  });
  test('has widths of rows for the photos that are there', () => {
    const rows = optionsFor('rows');
    const arrangement = arrangementOf(rows);
    const [first, second] = rowsFor(arrangement, [{}, {}]);
    const [, gone] = rowsFor(arrangement, [{}, {}], null);
    const widths = (list: PhotoRow[]) =>
      arrangedMarkup({ arrangement, rows: list, urlOf: () => 'a', first: false }).match(/--b3: [^;]+/g);
    expect(widths([first!, gone!])).toEqual(widths([first!]));
    expect(widths([first!, second!])).toHaveLength(2);
  });
});

describe('an arrangement with pages', () => {
  const grid = { ...optionsFor('grid'), perPage: 2 } as ArrangementOptions;
  const five: Partial<Photo>[] = [{}, {}, {}, {}, {}];
  const at = (n: number) =>
    markupOf(grid, five, { page: { n, addressOf: (page) => (page === 1 ? './' : `pots-${page}.html`) } });
  const links = (markup: string) =>
    all(parse(markup.slice(markup.indexOf('<nav'))), 'a').map((a) => attributes(a).href);
  test('shows its own, and links to the others', () => {
    expect([1, 2, 3].map((n) => all(parse(at(n)), 'figure').length)).toEqual([2, 2, 1]);
    expect(links(at(1))).toEqual(['./', 'pots-2.html', 'pots-3.html', 'pots-2.html']);
    expect(links(at(2))).toEqual(['./', './', 'pots-2.html', 'pots-3.html', 'pots-3.html']);
    expect(at(3)).toContain('aria-label="Page 3" aria-current="page"');
    expect(at(2)).toContain('<nav class="dusky-pages" aria-label="Pages of Pots &amp; jugs">');
  });
  test('tells the viewer where its pictures stand among all, and what lies beside them', () => {
    const told = (n: number) => {
      const [section] = all(parse(at(n)), 'section');
      const {
        from,
        all: many,
        before,
        behind,
      } = JSON.parse(attributes(section!)['data-dusky-viewer']!) as Record<string, unknown>;
      return [from, many, before, behind];
    };
    expect(told(1)).toEqual([0, 5, 'pots-3.html#pots-jug-5', 'pots-2.html#pots-jug-3']);
    expect(told(2)).toEqual([2, 5, './#pots-jug-2', 'pots-3.html#pots-jug-5']);
    expect(told(3)).toEqual([4, 5, 'pots-2.html#pots-jug-4', './#pots-jug-1']);
    expect(markupOf(grid, five)).not.toContain('&quot;behind&quot;');
  });
  test('has all on one where nobody knows its pages, and no links where one is enough', () => {
    expect(all(parse(markupOf(grid, five)), 'figure')).toHaveLength(5);
    expect(markupOf(grid, five)).not.toContain('<nav');
    expect(markupOf(grid, [{}, {}], { page: { n: 1, addressOf: String } })).not.toContain('<nav');
    expect(pagesOf(grid, 5)).toBe(3);
    expect(pagesOf(optionsFor('feed'), 500)).toBe(1);
  });
  test('stands in its own order', () => {
    const arrangement = { ...arrangementOf(grid), order: [3, 1] };
    const markup = arrangedMarkup({
      arrangement,
      rows: rowsFor(
        arrangement,
        [1, 2, 3].map((n) => ({ words: { ...WORDS, alt: `Jug ${n}` } })),
      ),
      urlOf: () => 'a.jpg',
      first: false,
    });
    expect(all(parse(markup), 'img').map((img) => attributes(img).alt)).toEqual(['Jug 3', 'Jug 1', 'Jug 2']);
  });
});

describe('a feed', () => {
  const text = { kind: 'paragraph' as const, runs: [{ text: 'We lit it <at> five.' }] };
  test('has its texts before their pictures; those of pictures that are gone at the end', () => {
    const between = [
      { before: 2, heading: 'Dusk', passage: [text] },
      { before: 77, heading: 'Gone', passage: [] },
      { before: null, heading: '', passage: [{ ...text, runs: [{ text: 'Done.' }] }] },
      { before: 1, heading: ' ', passage: [] },
    ];
    const markup = markupOf({ ...optionsFor('feed'), between } as ArrangementOptions);
    const order = [
      '<figure>',
      '<h2>Dusk</h2>',
      'We lit it &lt;at&gt; five.',
      '<figure>',
      '<h2>Gone</h2>',
      'Done.',
    ];
    let from = 0;
    for (const part of order) {
      from = markup.indexOf(part, from) + 1;
      expect([part, from]).not.toEqual([part, 0]);
    }
    expect(markup.match(/<li/g)).toHaveLength(5);
  });
  test('has a poster where a picture leads to a film, and brings along what plays it', () => {
    const placements = placed('pots').map((placement) => ({ ...placement, link: 'kiln.webm?v=1' }));
    const markup = markupOf(optionsFor('feed'), [{ placements }, {}]);
    expect(
      markup.match(/<a href="kiln.webm\?v=1" data-dusky-film="{&quot;title&quot;:&quot;Jug&quot;}">/g),
    ).toHaveLength(1);
    expect(markup).toContain('<span class="dusky-poster">Play the film: Jug</span>');
    const { cell } = slotsOfArrangement(arrangementOf(optionsFor('feed')));
    expect(runtimeFor([{ ...cell, films: true }])).toEqual({
      styles: ['set', 'feed', 'film'],
      scripts: ['film'],
    });
  });
});

describe('an index', () => {
  const galleries = [
    { photo: 1, set: 8, text: 'All from <this> firing' },
    { photo: 2, set: 9, text: '' },
  ];
  const index = { ...optionsFor('index'), galleries } as ArrangementOptions;
  const page = {
    set: 8,
    title: 'Kiln & ash',
    description: '',
    folder: 'kiln-ash',
    menu: true,
    photos: 12,
    parts: [],
  };
  test('leads to the pages of sets by cover, title, count and text; the cover itself is quiet', () => {
    const markup = markupOf(index, [{}, {}], {
      pages: { of: (set) => (set === 8 ? page : null), addressOf: ({ folder }) => `../${folder}/` },
    });
    expect(markup).toMatch(/<a href="..\/kiln-ash\/">\s*<picture>/);
    expect(markup).toContain('<strong>Kiln &amp; ash</strong> <small>12 pictures</small>');
    expect(markup).toContain('<figcaption>All from &lt;this&gt; firing</figcaption>');
    // The second one's set has no page any more: it is a picture with its words.
    expect(all(parse(markup), 'img').map((img) => attributes(img).alt)).toEqual(['', 'A jug']);
    expect(all(parse(markup), 'a')).toHaveLength(1);
  });
  test('leads to an arrangement on a page under its own title; to one that is gone there, nowhere', () => {
    const parts = [{ slot: 'still-warm', title: 'Still warm', photos: 5 }];
    const to = (part: string) =>
      markupOf({ ...index, galleries: [{ photo: 1, set: 8, part, text: '' }] } as ArrangementOptions, [{}], {
        pages: { of: () => ({ ...page, parts }), addressOf: ({ folder }) => `../${folder}/` },
      });
    const [link] = all(parse(to('still-warm')), 'a');
    expect(attributes(link!).href).toBe('../kiln-ash/#dusky-still-warm');
    expect(to('still-warm')).toContain('<strong>Still warm</strong> <small>5 pictures</small>');
    expect(all(parse(to('gone')), 'a')).toHaveLength(0);
  });
  test.each([
    [{ photo: 1, set: 8, part: 'pots', text: '' }, 0],
    [{ photo: 1, set: 8, part: 'a"><script>', text: '' }, 1],
    [{ photo: 1, set: 8, part: 7, text: '' }, 1],
    [{ photo: 1, set: 8, more: 'x', text: '' }, 1],
  ])('%j is judged before it is kept', (gallery, wrong) => {
    const options = { ...index, galleries: [gallery] } as unknown as ArrangementOptions;
    expect(arrangementProblems({ options, container: [{ from: 0, vw: 1, px: 0 }] })).toHaveLength(wrong);
  });
});

describe('words over a rotating hero', () => {
  const over = { ...optionsFor('rotating'), texts: 'over', ink: 'dark', scrim: 0.4 } as ArrangementOptions;
  test('are a title, a caption and a button that says where it leads', () => {
    const placements = placed('pots').map((placement) => ({ ...placement, link: '/shop/' }));
    const leading = { ...WORDS, role: 'functional' as const, alt: 'To the <shop>', caption: 'Warm still' };
    const markup = markupOf(over, [{ words: leading, placements }, { placements }, {}]);
    expect(markup).toContain('<strong>Jug</strong>');
    expect(markup).toContain('<span>Warm still</span>');
    expect(markup).toContain('<a class="dusky-more" href="/shop/">To the &lt;shop&gt;</a>');
    // Named by the title where the alt text says what is seen; the title is not said twice then.
    expect(markup).toContain('<a class="dusky-more" href="/shop/">Jug</a>');
    expect(markup.match(/<strong>Jug<\/strong>/g)).toHaveLength(2);
    expect(all(parse(markup), 'img').map((img) => attributes(img).alt)).toEqual(['', 'A jug', 'A jug']);
    expect(markup).toMatch(/dusky-worded dusky-dark/);
    expect(arrangementRules(arrangementOf(over))).toContain('--dusky-scrim: 0.4;');
    expect(runtimeFor([slotsOfArrangement(arrangementOf(over)).cell]).styles).toContain('worded');
  });
});

describe('styles', () => {
  test('say of an arrangement what its kind does not', () => {
    expect(arrangementRules(arrangementOf(optionsFor('grid')))).toContain(
      '@container dusky-set (min-width: 600px) { .dusky-set.dusky-a-pots .dusky-cells { --dusky-columns: 3; } }',
    );
    expect(arrangementRules(arrangementOf(optionsFor('feed')))).toBe('');
  });
  test('name the files that are used, each once, and plain places none', () => {
    const slots = (['grid', 'rows', 'strip'] as const).map(
      (kind) => slotsOfArrangement(arrangementOf(optionsFor(kind))).cell,
    );
    expect(runtimeFor(slots)).toEqual({
      styles: ['set', 'grid', 'viewer', 'rows', 'strip'],
      scripts: ['viewer', 'strip'],
    });
    expect(runtimeFor(CONTEXT.slots)).toEqual({ styles: [], scripts: [] });
    expect(figureStyles({ slots })).not.toContain('dusky-in-pots');
  });
});
