// Photos in two sets, and orders whose photos come and go.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Words } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { MembershipModel } from '../database/models.ts';
import { photoWithSquare, testServer, type TestServer, type WholeRow } from '../testing/server.ts';

let server: TestServer;
let id: number;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  for (const [n, name] of ['a.jpg', 'b.jpg'].entries()) {
    const result = await server.add(name, await photoWithSquare(1200, 900 + n, { x: 0.2, y: 0.5 }));
    if (result.kind === 'new' && n === 0) id = result.photo.id;
  }
});

const TWO = 'window-two';
const row = async (photo = id, setId?: number): Promise<WholeRow> =>
  (await server.state(setId)).rows.find((r) => r.id === photo)!;
const words = (change: Partial<Words>): Command => ({
  kind: 'words',
  photo: id,
  language: 'en',
  words: change,
});
const focal = (x: number): Command => ({ kind: 'focal', photo: id, focal: { x, y: 0.5, confirmed: true } });

/** Another set with the first photo. */
async function secondSet(): Promise<number> {
  const second = await server.newSet('Second');
  await MembershipModel.create({ setId: second, photoId: id, position: 'a0', follows: true, binned: false });
  await server.parts.settle({ photos: [id] });
  return second;
}

describe('two sets that share photos', () => {
  test('lose no edit of either, and both are told', async () => {
    const second = await secondSet();
    const heard: string[] = [];
    const stop = server.parts.hub.listen([second], {
      send: (text) => heard.push(text) > 0,
      cut: () => undefined,
    });
    const { version } = await row();
    const seen = { photos: { [id]: version } };
    const pairs = Array.from({ length: 12 }, (_, n) => [
      server.edit({ commands: [words({ title: `T${n}` })], seen }),
      server.edit({ commands: [focal(n / 20)], seen, window: TWO }, second),
    ]).flat();
    expect((await Promise.all(pairs)).map(({ status }) => status)).toEqual(pairs.map(() => 200));
    const here = await row();
    const there = await row(id, second);
    expect(here.version).toBe(version + 24);
    expect([there.words, there.frame, there.version]).toEqual([here.words, here.frame, here.version]);
    server.parts.batcher.now();
    expect(heard.some((text) => text.includes(`"changed":[[${id},`))).toBe(true);
    stop();
  });
  test('undo in one does not take back what was done to the photo in the other since', async () => {
    const second = await secondSet();
    await server.edit({ label: 'alt text', commands: [words({ alt: 'Here' })] });
    await server.edit({ commands: [words({ alt: 'There' })], window: TWO }, second);
    expect((await server.step('undo')).body.code).toBe('changed-since');
    expect((await row()).words.alt).toBe('There');
  });
});

describe('orders', () => {
  const order = async () => (await server.state()).rows.map((r) => r.id);
  test('a move, another photo and undo: the move is taken back, the photo stays', async () => {
    const [first, second] = await order();
    await server.edit({ commands: [{ kind: 'position', photo: second!, position: 'Zz' }] });
    expect(await order()).toEqual([second, first]);
    const added = await server.add('c.jpg', await photoWithSquare(640, 480, { x: 0.5, y: 0.5 }));
    if (added.kind !== 'new') throw new Error(added.kind);
    expect((await server.step('undo')).status).toBe(200);
    expect(await order()).toEqual([first, second, added.photo.id]);
  });
});
