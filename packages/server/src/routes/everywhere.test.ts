// An arrangement that stands on every page of its site: what goes out with the others, and what is known of them then.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { optionsFor, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { SetSummary } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { firstPage } from '@dusky-otter/core/page';
import { unzipSync } from 'fflate';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let shop: number;
let kiln: number;
let tea: number;

const HERO = {
  ...{ shortName: 'new', title: 'What is new', options: optionsFor('grid') },
  container: [{ from: 0, vw: 1, px: -32 }],
};
const { cell, large } = slotsOfArrangement(HERO);
const pageOf = (title: string, slot: string) => ({
  ...firstPage(title, [], () => false),
  parts: [{ kind: 'place' as const, slot, titled: false }],
});
const post = (path: string, payload: object = {}) =>
  server.app.inject({ method: 'POST', url: `/api/sets/${shop}/${path}`, payload });
const zipOf = async (setId: number) => {
  const { rawPayload } = await server.app.inject(`/api/sets/${setId}/hand-over.zip`);
  const zip = unzipSync(new Uint8Array(rawPayload));
  const text = (path: string) => new TextDecoder().decode(zip[path]);
  return { paths: Object.keys(zip), text };
};
const added = async (...of: Parameters<TestServer['add']>): Promise<number> => {
  const result = await server.add(...of);
  if (!('photo' in result)) throw new Error('It was refused.');
  return result.photo.id;
};
const isDone = async (setId: number) => (await server.state(setId)).set.handedOver;

beforeAll(async () => {
  server = await testServer();
  await server.edit({
    commands: [{ kind: 'site', change: { policy: { modern: 'webp', target: 'lean' } } }],
  });
  kiln = await added('kiln.jpg', await photoWithSquare(800, 600, { x: 0.3, y: 0.5 }));
  shop = await server.newSet('Shop');
  tea = await added('tea.jpg', await photoWithSquare(700, 700, { x: 0.5, y: 0.5 }), shop);
  const slots: Command[] = [cell, large!].map((value) => ({ kind: 'slot', slot: value.id, value }));
  await server.edit({
    commands: [...slots, { kind: 'set', change: { slots: ['new'], page: pageOf('News', 'new') } }],
  });
  await server.edit(
    { commands: [{ kind: 'set', change: { slots: ['column'], page: pageOf('Shop', 'column') } }] },
    shop,
  );
  const everywhere = [{ set: server.setId, slot: 'new', at: 'above' as const }];
  await server.edit({ commands: [{ kind: 'site', change: { everywhere } }] });
  await server.prepared();
  await server.prepared();
});
afterAll(() => server.close());

describe('what stands on every page', () => {
  test('goes out with another set’s page, above what it holds, with its files, and not in its words', async () => {
    const { paths, text } = await zipOf(shop);
    const html = text('index.html');
    expect(html.indexOf('What is new')).toBeGreaterThan(0);
    expect(html.indexOf('What is new')).toBeLessThan(html.indexOf('dusky-column'));
    for (const [, path] of html.matchAll(/(?:src|href)="(photos\/[^"]+)"/g)) expect(paths).toContain(path);
    expect(paths.filter((path) => /kiln/.test(path)).length).toBeGreaterThan(1);
    expect(text('script.js').length).toBeGreaterThan(100);
    expect(text('words.csv')).toContain('tea.jpg');
    expect(text('words.csv')).not.toContain('kiln.jpg');
    const check = (await post('hand-over', { photos: null })).json<{ photos: number; guests: number }>();
    expect([check.photos, check.guests]).toEqual([1, 1]);
    // On the page of its own set it stands once, where it stood.
    expect((await zipOf(server.setId)).text('index.html').match(/id="dusky-new"/g)).toHaveLength(1);
  });

  test('makes the others pages to hand over again, where one of its photos is changed, and those alone', async () => {
    const words = (photo: number): Command => ({
      ...{ kind: 'words', photo, language: 'en' },
      words: { alt: `Pot ${photo}, seen from ${Math.random()}` },
    });
    await post('hand-over/publish');
    expect(await isDone(shop)).toBe(true);
    await server.edit({ commands: [words(kiln)] });
    expect(await isDone(shop)).toBe(false);
    await post('hand-over/publish');
    await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/hand-over/publish` });
    await server.edit({ commands: [words(tea)] }, shop);
    expect([await isDone(shop), await isDone(server.setId)]).toEqual([false, true]);
    const more = await added('new.jpg', await photoWithSquare(500, 400, { x: 0.5, y: 0.5 }));
    await server.prepared();
    expect((await zipOf(shop)).text('index.html').match(/<li[ >]/g)).toHaveLength(2);
    await server.edit({ commands: [{ kind: 'bin', photo: more, binned: true }] });
  });

  test('a hand-over and a change of what stands on it, at once: both are done, whichever waits', async () => {
    for (let round = 0; round < 6; round++) {
      const alt = `The kiln, seen for the ${round}th time, ${Math.random()}`;
      const [published, edited] = await Promise.all([
        post('hand-over/publish'),
        server.edit({ commands: [{ kind: 'words', photo: kiln, language: 'en', words: { alt } }] }),
      ]);
      expect([published.statusCode, edited.status]).toEqual([204, 200]);
      expect((await zipOf(shop)).text('index.html')).toContain(alt);
    }
  });

  test('a rule of the site makes every page to hand over again', async () => {
    await post('hand-over/publish');
    expect(await isDone(shop)).toBe(true);
    await server.edit({ commands: [{ kind: 'site', change: { address: 'https://gullmoor.example/' } }] });
    expect(await isDone(shop)).toBe(false);
  });

  test('keeps apart from photos of the other set that stand in its place, and shows one that both have', async () => {
    await server.app.inject({
      ...{ method: 'POST', url: `/api/sets/${shop}/photos`, payload: { photos: [kiln] } },
    });
    await server.edit({ commands: [{ kind: 'set', change: { slots: ['column', 'new'] } }] }, shop);
    await server.prepared();
    const { text } = await zipOf(shop);
    const hero = /id="dusky-new"[\s\S]*?<\/ul>/.exec(text('index.html'))![0];
    expect(hero.match(/<li[ >]/g)).toHaveLength(1);
    expect(hero).toContain(`new-`);
    expect(text('words.csv')).toContain('kiln.jpg');
  });

  test('ends where its set is put away, or its page shows it no more; undo brings it back', async () => {
    await server.edit({ commands: [{ kind: 'set', change: { archived: true } }] });
    expect((await zipOf(shop)).text('index.html')).not.toContain('What is new');
    await server.edit({ commands: [{ kind: 'set', change: { archived: false } }] });
    await server.edit({ commands: [{ kind: 'site', change: { everywhere: [] } }] });
    expect((await zipOf(shop)).text('index.html')).not.toContain('What is new');
    await server.step('undo');
    expect((await zipOf(shop)).text('index.html')).toContain('What is new');
  });

  test.each([
    [[{ set: 1, slot: 'new', at: 'beside' }]],
    [[{ set: 0, slot: 'new', at: 'above' }]],
    [[{ set: 1, slot: '../new', at: 'above' }]],
    [
      [
        { set: 1, slot: 'new', at: 'above' },
        { set: 1, slot: 'new', at: 'below' },
      ],
    ],
    ['all'],
    [[null]],
  ])('%j is refused', async (everywhere) => {
    const before = (await server.state()).site.everywhere;
    const { status } = await server.edit({
      commands: [{ kind: 'site', change: { everywhere } } as unknown as Command],
    });
    expect(status).toBeGreaterThanOrEqual(400);
    expect((await server.state()).site.everywhere).toEqual(before);
  });

  test('of a set that is on no page of the site is nothing', async () => {
    await server.edit({
      commands: [{ kind: 'site', change: { everywhere: [{ set: 4_000_000, slot: 'new', at: 'above' }] } }],
    });
    expect((await server.app.inject(`/preview/${shop}/`)).statusCode).toBe(200);
    const sites = (await server.app.inject('/api/sites')).json<{ sets: SetSummary[] }[]>();
    expect(sites[0]!.sets.length).toBe(2);
  });
});
