// Pages of sets through HTTP: what goes out, what links to what, photos of other sets, and short names that stay taken.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { optionsFor, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type {
  Arrangement,
  ArrangementOptions,
  PageEntry,
  PolicyForecast,
  SetPage,
} from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { firstPage } from '@dusky-otter/core/page';
import { unzipSync } from 'fflate';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

const CONTAINER = [{ from: 0, vw: 1, px: -32 }];
const GRID = { ...optionsFor('grid'), perPage: 2, ownPages: true } as ArrangementOptions;

let server: TestServer;
let photos: number[];
let other: number;

const arrangementOf = (shortName: string, options: ArrangementOptions, order?: number[]): Arrangement => ({
  ...{ shortName, title: `The ${shortName}`, options, container: CONTAINER },
  ...(order && { order }),
});
const slotCommands = (arrangement: Arrangement): Command[] => {
  const { cell, large } = slotsOfArrangement(arrangement);
  return [cell, ...(large ? [large] : [])].map((value) => ({ kind: 'slot', slot: value.id, value }));
};
const PAGE: SetPage = {
  ...firstPage('Kiln & diary', [], () => false),
  menu: true,
  description: 'Day by day',
  parts: [
    { kind: 'heading', text: 'The pots' },
    { kind: 'place', slot: 'pots', titled: true },
  ],
};
const ask = (path: string) => server.app.inject(`/api/sets/${server.setId}/${path}`);
const post = (path: string, payload: object, setId = server.setId) =>
  server.app.inject({ method: 'POST', url: `/api/sets/${setId}/${path}`, payload });
const preview = (path: string) => server.app.inject(`/preview/${server.setId}/${path}`);

beforeAll(async () => {
  server = await testServer();
  await server.edit({
    commands: [{ kind: 'site', change: { policy: { modern: 'webp', target: 'lean' } } }],
  });
  for (const [n, x] of [0.3, 0.5, 0.7].entries())
    await server.add(`${n}.jpg`, await photoWithSquare(400 + n, 300, { x, y: 0.5 }));
  const { rows } = await server.state();
  photos = rows.map(({ id }) => id);
  const made = await server.app.inject({
    method: 'POST',
    url: `/api/sites/${(await server.state()).site.id}/sets`,
    payload: { name: 'Shop' },
  });
  other = made.json<{ id: number }>().id;
  const edit = await server.edit({
    commands: [
      ...slotCommands(arrangementOf('pots', GRID, [photos[2]!, photos[0]!])),
      { kind: 'set', change: { slots: ['pots'], page: PAGE } },
    ],
  });
  expect(edit.status).toBe(200);
  await server.prepared();
});
afterAll(() => server.close());

describe('a page', () => {
  test('goes out with its further pages and own pages, and every link in it has its file', async () => {
    const zip = unzipSync(new Uint8Array((await ask('hand-over.zip')).rawPayload));
    const pages = Object.keys(zip).filter((path) => path.endsWith('.html'));
    expect(pages.sort()).toEqual(
      ['index.html', 'pots-2.html', ...photos.map((id) => `pots/picture-${id}.html`)].sort(),
    );
    for (const path of pages) {
      const html = new TextDecoder().decode(zip[path]);
      const links = [...html.matchAll(/(?:href|src|srcset)="([^"#]*)"/g)].flatMap(([, value]) =>
        value!.split(', ').map((one) => one.split(' ')[0]!),
      );
      expect(links.length).toBeGreaterThan(4);
      for (const link of links) {
        const target = new URL(link, `http://site/kiln-and-diary/${path}`).pathname.replace(
          '/kiln-and-diary/',
          '',
        );
        expect([path, link, Object.keys(zip)]).toEqual([
          path,
          link,
          expect.arrayContaining([target === '' ? 'index.html' : target]),
        ]);
      }
    }
    const text = (path: string) => new TextDecoder().decode(zip[path]);
    expect(text('index.html')).toContain('<meta name="description" content="Day by day">');
    expect(text('styles.css')).toContain('.dusky-pages');
    // The order is the arrangement's own: the third first, the second alone behind.
    const shown = (path: string) =>
      [...text(path).matchAll(/data-dusky-open="pots-(\d+)"/g)].map(([, id]) => Number(id));
    expect(shown('index.html')).toEqual([photos[2], photos[0]]);
    expect(shown('pots-2.html')).toEqual([photos[1]]);
    // The gallery alone, under its own title.
    expect(text('pots-2.html')).toMatch(/<h1>[^<]+, page 2 of 2<\/h1>/);
    expect(text('index.html').match(/class="part /g)!.length).toBeGreaterThan(1);
    expect(text('pots-2.html').match(/class="part /g)).toHaveLength(1);
  });
  test('is previewed with all of them, and leads to the previews of other pages', async () => {
    expect((await preview('')).payload).toContain('Kiln &amp; diary');
    expect((await preview('pots-2.html')).statusCode).toBe(200);
    expect((await preview('pots-3.html')).statusCode).toBe(404);
    expect((await preview(`pots/picture-${photos[0]}.html`)).payload).toContain('href="../"');
    const { pages } = (await ask('pages')).json<{ pages: PageEntry[] }>();
    expect(pages.map(({ set, folder, menu, photos: count }) => [set, folder, menu, count])).toEqual([
      [server.setId, 'kiln-and-diary', true, 3],
      [other, 'shop', false, 0],
    ]);
  });
  test('is taken back to what follows from where photos stand, with undo', async () => {
    const { edits } = await server.state();
    expect(edits.undo).toBeGreaterThan(0);
    expect((await server.edit({ commands: [{ kind: 'set', change: { page: null } }] })).status).toBe(200);
    expect((await preview('')).payload).not.toContain('The pots</h2>\n      <div');
    expect((await server.state()).set.page).toBeNull();
    await server.edit({ commands: [{ kind: 'set', change: { page: PAGE } }] });
  });
  test.each<[string, object]>([
    ['a part of no kind', { parts: [{ kind: 'script', text: 'x' }] }],
    ['a text of no shape', { parts: [{ kind: 'text', passage: [{ kind: 'item' }] }] }],
    ['a link that runs something', { home: { text: 'a', address: 'javascript:x' } }],
    ['a folder above', { folder: '..' }],
    ['no title', { title: '' }],
    ['no such design', { design: 'neon' }],
    ['a template without a spot', { design: 'own', template: '<p>' }],
    ['a template that never ends', { template: 'x'.repeat(300_000) }],
    ['parts that are none', { parts: 'all' }],
    ['nothing', { title: null }],
  ])('with %s is refused, and nothing is changed', async (_, change) => {
    const page = { ...PAGE, ...change };
    const { status } = await server.edit({ commands: [{ kind: 'set', change: { page } }] });
    expect(status).toBeGreaterThanOrEqual(400);
    expect((await server.state()).set.page).toEqual(PAGE);
  });
});

describe('photos of other sets', () => {
  test('come into a set once, behind its own, and stand where they are put', async () => {
    for (let twice = 0; twice < 2; twice++) {
      const answer = await post('photos', { photos: [photos[1], photos[0]] }, other);
      expect(answer.statusCode).toBe(200);
      expect(answer.json<{ photos: { id: number }[] }>().photos.map(({ id }) => id)).toEqual([
        photos[1],
        photos[0],
      ]);
    }
    expect((await server.state(other)).rows.map(({ id }) => id)).toEqual([photos[1], photos[0]]);
  });
  test.each([[{ photos: [4_000_000] }], [{ photos: ['1'] }], [{ photos: null }], [{}]])(
    '%j is refused',
    async (payload) => {
      expect((await post('photos', payload, other)).statusCode).toBeGreaterThanOrEqual(400);
    },
  );
  test('of another site stay there', async () => {
    const site = await server.app.inject({ method: 'POST', url: '/api/sites', payload: { name: 'Other' } });
    const set = await server.app.inject({
      method: 'POST',
      url: `/api/sites/${site.json<{ id: number }>().id}/sets`,
      payload: { name: 'Theirs' },
    });
    const { id } = set.json<{ id: number }>();
    expect((await post('photos', { photos: [photos[0]] }, id)).statusCode).toBe(404);
  });
});

describe('an arrangement', () => {
  test('is weighed before it is kept: files, and what screens load of it', async () => {
    const [value] = slotCommands(arrangementOf('pots', GRID)).map((one) =>
      'value' in one ? one.value : null,
    );
    const forecast = async (slot: unknown) => post('arrangements/forecast', { slot: 'pots', value: slot });
    const same = (await forecast(value)).json<PolicyForecast>();
    expect(same.phone.now).toBeGreaterThan(0);
    expect([same.phone.then, same.files.toMake, same.tried]).toEqual([same.phone.now, 0, 0]);
    const single = { ...GRID, columns: [{ from: 0, count: 1 }] } as ArrangementOptions;
    const wide = slotsOfArrangement(arrangementOf('pots', single)).cell;
    const then = (await forecast(wide)).json<PolicyForecast>();
    expect(then.phone.then).toBeGreaterThan(then.phone.now);
    // As foretold: every file is made for it, and weighs that.
    await server.edit({ commands: slotCommands(arrangementOf('pots', single)) });
    await server.prepared();
    const now = (await forecast(wide)).json<PolicyForecast>();
    expect([now.phone.now, now.laptop.now, now.files.now]).toEqual([
      then.phone.then,
      then.laptop.then,
      then.files.then,
    ]);
    for (const wrong of [null, { ...wide, rule: [] }, { ...wide, arranged: undefined }])
      expect((await forecast(wrong)).statusCode).toBeGreaterThanOrEqual(400);
  });
  test('that is gone leaves its short name to nobody; undo brings it back', async () => {
    const jug = slotCommands(arrangementOf('jug', optionsFor('figure')));
    await server.edit({ commands: jug });
    await server.edit({ commands: [{ kind: 'slot', slot: 'jug', value: null }] });
    const { site } = await server.state();
    expect(site.retired).toEqual(['jug']);
    await server.edit({ commands: jug });
    expect((await server.state()).site.slots.map(({ id }) => id)).toContain('jug');
  });
});
