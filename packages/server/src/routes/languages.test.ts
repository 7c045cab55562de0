// A page in several languages through HTTP: its texts in each, what links to what, and what falls back.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { optionsFor, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { ArrangementOptions, SetPage, WordsPreview } from '@dusky-otter/core/contract';
import { firstPage } from '@dusky-otter/core/page';
import { unzipSync } from 'fflate';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let files: Map<string, string>;

const { cell, large } = slotsOfArrangement({
  shortName: 'pots',
  title: 'Pots from this firing',
  options: { ...optionsFor('grid'), perPage: 2, ownPages: true } as ArrangementOptions,
  container: [{ from: 0, vw: 1, px: -32 }],
  words: { note: 'All of them are for sale.', others: { de: { title: 'Töpfe aus diesem Brand' } } },
});
const PAGE: SetPage = {
  ...firstPage('Kiln diary', [], () => false),
  menu: true,
  description: 'Day by day',
  home: { text: 'Home', address: '../' },
  others: { de: { title: 'Ofentagebuch', home: 'Anfang' }, ar: { title: 'يوميات الفرن' } },
  parts: [
    { kind: 'languages' },
    { kind: 'heading', text: 'The pots', others: { de: 'Die Töpfe' } },
    {
      kind: 'text',
      passage: [{ kind: 'paragraph', runs: [{ text: 'In the shop.', link: 'shop/' }] }],
    },
    { kind: 'place', slot: 'pots', titled: true },
  ],
};

beforeAll(async () => {
  server = await testServer();
  for (const [n, x] of [0.3, 0.5, 0.7].entries())
    await server.add(`${n}.jpg`, await photoWithSquare(400 + n, 300, { x, y: 0.5 }));
  const { rows, site } = await server.state();
  const [first] = rows;
  const { status } = await server.edit({
    commands: [
      {
        kind: 'site',
        change: {
          languages: ['en', 'de', 'ar'],
          address: 'https://gullmoor.example',
          policy: { ...site.policy, metadata: 'words' },
        },
      },
      ...[cell, large!].map((value) => ({ kind: 'slot' as const, slot: value.id, value })),
      { kind: 'set', change: { slots: ['pots'], page: PAGE } },
      {
        ...{ kind: 'words', photo: first!.id, language: 'en' },
        words: { alt: 'A jug on a shelf', title: 'Jug' },
      },
      { kind: 'words', photo: first!.id, language: 'de', words: { alt: 'Ein Krug im Regal', title: 'Krug' } },
      {
        ...{ kind: 'placements', photo: first!.id },
        placements: [
          {
            ...{ slot: 'pots', link: '', crops: {} },
            words: { caption: 'Sold here' },
            others: { de: { caption: 'Hier zu haben' } },
          },
        ],
      },
    ],
  });
  expect(status).toBe(200);
  await server.prepared();
  const zip = unzipSync(
    new Uint8Array((await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`)).rawPayload),
  );
  files = new Map(Object.entries(zip).map(([path, bytes]) => [path, new TextDecoder().decode(bytes)]));
});
afterAll(() => server.close());

const page = (path: string): string => files.get(path)!;

describe('a page in three languages', () => {
  test('says its texts in each; what falls back is marked, with its direction', () => {
    const german = page('de/index.html');
    expect(german).toContain('<html lang="de">');
    expect(german).toContain('<title>Ofentagebuch</title>');
    expect(german).toContain('<h1>Ofentagebuch</h1>');
    expect(german).toContain('>Die Töpfe</h2>');
    expect(german).toContain('<h2>Töpfe aus diesem Brand</h2>');
    expect(german).toContain('aria-label="Töpfe aus diesem Brand"');
    expect(german).toContain('<meta name="description" content="Day by day" lang="en">');
    expect(german).toMatch(/<p class="dusky-note"><span lang="en">All of them/);
    expect(german).toMatch(/<div lang="en">\s*<p><a href="..\/shop\/">In the shop/);
    expect(german).toContain('Hier zu haben');
    expect(german).not.toContain('Sold here');
    const arabic = page('ar/index.html');
    expect(arabic).toContain('<html lang="ar" dir="rtl">');
    expect(arabic).toContain('<span lang="en" dir="ltr">The pots</span></h2>');
    expect(arabic).toContain('<figure lang="en" dir="ltr">');
    expect(arabic).toContain('Sold here');
    expect(page('index.html')).not.toMatch(/<(span|div|figure|title) lang=/);
  });
  test('links home lead home from every folder', () => {
    expect(page('index.html')).toContain('<a href="../">Home</a>');
    expect(page('de/index.html')).toContain('<a href="../../">Anfang</a>');
  });
  test('every page leads to itself in the others, whole addresses in its head, and to files that are there', () => {
    const pages = [...files.keys()].filter((path) => path.endsWith('.html'));
    // A policy may allow no styles within a page: they stand in its stylesheet.
    const classes = pages.flatMap((path) => page(path).match(/dusky-s-\w+/g) ?? []);
    for (const name of classes) expect(page('styles.css')).toContain(`.${name} { `);
    expect(pages.some((path) => / style=/.test(page(path)))).toBe(false);
    expect(classes.length).toBeGreaterThan(3);
    expect(pages).toHaveLength(3 * (1 + 1 + 3));
    const from = 'https://gullmoor.example/kiln-diary/';
    const withIndex = (path: string) => (/(^|\/)$/.test(path) ? `${path}index.html` : path);
    for (const path of pages) {
      const html = page(path);
      expect(html).toContain(`<link rel="canonical" href="${from}${path.replace(/index\.html$/, '')}">`);
      const alternates = [...html.matchAll(/<link rel="alternate" hreflang="([\w-]+)" href="([^"]+)">/g)].map(
        ([, language, address]) => [language, address!],
      );
      expect(alternates.map(([language]) => language)).toEqual(['en', 'de', 'ar', 'x-default']);
      for (const [, address] of alternates)
        expect(files.has(withIndex(address!.replace(from, '')))).toBe(true);
      // What is led to leads back.
      expect(alternates.map(([, address]) => address)).toContain(
        `${from}${path.replace(/index\.html$/, '')}`,
      );
      const nav = /<nav class="part text languages"[\s\S]*?<\/nav>/.exec(html)![0];
      const links = [...nav.matchAll(/href="([^"]+)"/g)].map(([, link]) => new URL(link!, from + path).href);
      expect(links).toEqual(alternates.slice(0, 3).map(([, address]) => address));
      expect(nav).toContain('>Deutsch</a>');
      expect(nav.match(/aria-current="page"/g)).toHaveLength(1);
    }
  });
  test('every picture that a page names is among the files, whatever words are in it', () => {
    for (const [path, html] of files) {
      if (!path.endsWith('.html')) continue;
      const named = [...html.matchAll(/(?:srcset|src)="([^"]+)"/g)].flatMap(([, list]) =>
        list!.split(', ').map((one) => one.split(' ')[0]!),
      );
      expect(named.length).toBeGreaterThan(1);
      for (const one of named)
        expect([path, one, files.has(new URL(one, `http://x/${path}`).pathname.slice(1))]).toEqual([
          path,
          one,
          true,
        ]);
    }
  });
});

describe('a table of words', () => {
  const title = 'Pots from this firing';
  const read = async (text: string, language: string) =>
    (
      await server.app.inject({
        ...{ method: 'POST', url: `/api/sets/${server.setId}/words`, payload: { text, language } },
      })
    ).json<WordsPreview>();
  test('holds what is said in one place alone, in its language', () => {
    expect(page('words.csv')).toMatch(new RegExp(`^[^\\r]*,caption in ${title}\\r\\n[^\\r]*,Sold here\\r`));
    expect(page('de/words.csv')).toMatch(/,Hier zu haben\r/);
    expect(page('ar/words.csv').split('\r\n')[0]).not.toContain(' in ');
  });
  test('says what it would change there, and what it can’t', async () => {
    const table = `file,caption in ${title},alt in pots,title in Hero,alt in Nowhere\n0.jpg,Other,Here,A,B\n1.jpg,New,,,\n`;
    const { changes, unclear } = await read(table.replace('Hero', 'Full-width hero'), 'de');
    expect(changes.map(({ here }) => here)).toEqual([
      [
        {
          ...{ slot: 'pots', now: { caption: 'Hier zu haben' } },
          ...{ added: { alt: 'Here' }, conflicts: { caption: 'Other' } },
        },
      ],
      [{ slot: 'pots', now: {}, added: { caption: 'New' }, conflicts: {} }],
    ]);
    expect(changes[0]!.unknownPlaces).toEqual(['Nowhere']);
    expect(unclear.map(({ sentence }) => sentence)).toEqual([
      'It does not stand in Full-width hero: its words there are left out.',
    ]);
  });
});

describe('nothing is said of languages', () => {
  test('where a site has one; and no address of a page that is nowhere', async () => {
    await server.edit({
      commands: [{ kind: 'site', change: { languages: ['en'], address: 'not an address' } }],
    });
    const html = (await server.app.inject(`/preview/${server.setId}/`)).payload;
    expect(html).toContain('Kiln diary');
    expect(html).not.toMatch(/hreflang|canonical|class="part text languages"/);
  });
});

test('what a photo says in one place in another language is kept, and judged', async () => {
  const { rows } = await server.state();
  expect(rows[0]!.placements![0]!.others).toEqual({ de: { caption: 'Hier zu haben' } });
  for (const others of [{ de: { role: 'text' } }, { de: 'x' }, { '<b>': { alt: 'x' } }, 'de']) {
    const placement = { ...rows[0]!.placements![0]!, others };
    const { status } = await server.edit({
      commands: [{ kind: 'placements', photo: rows[0]!.id, placements: [placement as never] }],
    });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
  }
});
