// The site's own terms: kept with the site, undone as anything, counted over the page's alt texts; no page is older by them.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Command } from '@dusky-otter/core/edits';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
const photos: number[] = [];

const inEvery = async (): Promise<string[]> =>
  (await server.app.inject(`/api/sets/${server.setId}/terms`)).json<{ inEvery: string[] }>().inEvery;
const terms = async (): Promise<readonly string[]> => (await server.state(server.setId)).site.terms;
const words = (photo: number, alt: string): Command => ({
  kind: 'words',
  photo,
  language: 'en',
  words: { alt, role: 'informative' },
});

beforeAll(async () => {
  server = await testServer();
  for (const [n, name] of ['bowl', 'jug', 'plate'].entries()) {
    const result = await server.add(`${name}.jpg`, await photoWithSquare(300 + n, 200, { x: 0.5, y: 0.5 }));
    if (!('photo' in result)) throw new Error('It was refused.');
    photos.push(result.photo.id);
  }
});
afterAll(() => server.close());

test('are counted over the alt texts of the set, without those in the bin', async () => {
  expect(await inEvery()).toEqual([]);
  await server.edit({ commands: [{ kind: 'site', change: { terms: ['stoneware', 'wood kiln'] } }] });
  await server.edit({
    commands: [
      words(photos[0]!, 'A stoneware bowl'),
      words(photos[1]!, 'A stoneware jug from the wood kiln'),
      words(photos[2]!, 'Plates of stoneware'),
    ],
  });
  expect(await inEvery()).toEqual(['stoneware']);
  await server.edit({ commands: [{ kind: 'bin', photo: photos[2]!, binned: true }] });
  expect(await inEvery()).toEqual([]);
});

test('make no page older, and are taken back by undo', async () => {
  await server.edit({ commands: [{ kind: 'set', change: { rehearsed: true } }] });
  await server.edit({ commands: [{ kind: 'site', change: { terms: ['salt glaze'] } }] });
  expect((await server.state(server.setId)).set.rehearsed).toBe(true);
  expect(await terms()).toEqual(['salt glaze']);
  await server.step('undo');
  expect(await terms()).toEqual(['stoneware', 'wood kiln']);
});

test.each([
  ['text instead of a list', 'stoneware'],
  ['numbers', [1, 2]],
  ['too many', Array.from({ length: 101 }, (_, n) => `term ${n}`)],
  ['too long ones', ['a'.repeat(61)]],
])('%s are refused, and nothing is changed', async (_, hostile) => {
  const before = await terms();
  const { set, site } = await server.state(server.setId);
  const answer = await server.app.inject({
    method: 'POST',
    url: `/api/sets/${server.setId}/edits`,
    payload: {
      label: 'hostile',
      commands: [{ kind: 'site', change: { terms: hostile } }],
      seen: { photos: {}, set: set.version, site: site.version },
      token: crypto.randomUUID(),
      window: 'hostile-window',
      since: 0,
    },
  });
  expect(answer.statusCode).toBe(400);
  expect(await terms()).toEqual(before);
});
