// Places as photos stand in them, what a change costs, and what markup says of where files lie.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { PlaceCost, PlaceUse, Slot } from '@dusky-otter/core/contract';
import { readWidth, SHIPPED_SLOTS } from '@dusky-otter/core/slots';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let ids: number[];
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const grid = SHIPPED_SLOTS.find(({ id }) => id === 'grid')!;
const uses = async () =>
  (await server.app.inject(`/api/sets/${server.setId}/places`)).json<Record<string, PlaceUse>>();
const cost = async (slot: string, value: Slot | null, setId = server.setId) => {
  const response = await server.app.inject({
    method: 'POST',
    url: `/api/sets/${setId}/places/cost`,
    payload: { slot, value },
  });
  return { status: response.statusCode, body: response.json<PlaceCost & { detail?: string }>() };
};
const put = (value: Slot) => server.edit({ commands: [{ kind: 'slot', slot: value.id, value }] });

beforeAll(async () => {
  await server.begin();
  ids = [];
  for (const n of [1, 2]) {
    const result = await server.add(
      `pot-${n}.jpg`,
      await photoWithSquare(1600, 1200, { x: 0.3 * n, y: 0.5 }),
    );
    if (result.kind === 'new') ids.push(result.photo.id);
  }
  await server.prepared();
});

describe('places in use', () => {
  test('count their photos and what a phone is sent of them', async () => {
    const { grid: use, hero } = await uses();
    expect([use!.photos, use!.weights.length, use!.shown.length, hero!.photos]).toEqual([2, 2, 2, 0]);
    expect(use!.heaviest!.bytes).toBe(use!.weights[0]);
    expect(use!.weights[0]).toBeGreaterThanOrEqual(use!.weights[1]!);
    expect(ids).toContain(use!.heaviest!.id);
  });
  test('leave out what lies in the bin', async () => {
    await server.edit({ commands: [{ kind: 'bin', photo: ids[1]!, binned: true }] });
    expect((await uses()).grid!.photos).toBe(1);
    await server.step('undo');
  });
});

describe('the cost of a change', () => {
  test('nothing where nothing is changed, everything where a place is new or goes', async () => {
    const same = (await cost('grid', grid)).body;
    expect(same).toMatchObject({ photos: 2, toMake: 0, toGo: 0 });
    expect((await cost('grid', null)).body).toEqual({ photos: 2, files: 0, toMake: 0, toGo: same.files });
    const wide: Slot = { ...grid, rule: readWidth('300px').rule, said: '300px' };
    const changed = (await cost('grid', wide)).body;
    expect([changed.toMake, changed.toGo]).toEqual([changed.files, same.files]);
  });
  test('is what is then made', async () => {
    const narrow: Slot = { ...grid, rule: readWidth('150px').rule, said: '150px' };
    const said = (await cost('grid', narrow)).body;
    const before = new Set(
      (await server.state()).rows.flatMap(({ variants }) => variants.map(({ key }) => key)),
    );
    await put(narrow);
    const after = new Set(
      (await server.state()).rows.flatMap(({ variants }) => variants.map(({ key }) => key)),
    );
    expect([...after].filter((key) => !before.has(key))).toHaveLength(said.toMake);
    expect([...before].filter((key) => !after.has(key))).toHaveLength(said.toGo);
    await server.step('undo');
  });
  test.each([
    ['another short name', 'grid', { ...grid, id: 'hero' }, 'keeps its short name'],
    ['no shapes', 'grid', { ...grid, shapes: [] }, 'shapes'],
    ['a width that was not said', 'grid', { ...grid, said: '7px' }, 'not the width of the rule'],
    ['a width that can’t be read', 'grid', { ...grid, said: 'min(' }, 'At the end'],
    ['no name', 'grid', { ...grid, name: '' }, 'name'],
    ['a name of a path', '../x', { ...grid, id: '../x' }, ''],
    ['a rule of nothing', 'grid', { ...grid, rule: [] }, '1 to 40'],
    ['a box of text', 'grid', { ...grid, fit: { width: 'a', height: 1 } }, ''],
    [
      'a measurement of nonsense',
      'grid',
      { ...grid, measured: { page: 'x', on: 'today', windows: 1, worst: 0 } },
      '',
    ],
  ])('%s is refused', async (_, slot, value, sentence) => {
    const { status, body } = await cost(slot, value as Slot);
    expect([400, 422]).toContain(status);
    expect(body.detail).toContain(sentence);
  });
  test('of a set that is not there', async () => {
    expect((await cost('grid', grid, 9999)).status).toBe(404);
    expect((await server.app.inject('/api/sets/9999/places')).statusCode).toBe(404);
  });
});

describe('a place of one’s own', () => {
  const shelf: Slot = {
    id: 'shop-shelf',
    name: 'Shop shelf',
    hint: '',
    said: '4 across with 16 px between in 1200 px',
    rule: readWidth('4 across with 16 px between in 1200 px').rule,
    shapes: [{ shape: '1:1', from: 0, to: null }],
    budget: 20_000,
    loading: 'lazy',
    fit: null,
  };
  test('is made, used, undone and done again', async () => {
    await put(shelf);
    await server.edit({ commands: [{ kind: 'set', change: { slots: ['shop-shelf'] } }] });
    expect((await uses())['shop-shelf']!.photos).toBe(2);
    expect((await server.state()).rows[0]!.variants.every(({ slot }) => slot === 'shop-shelf')).toBe(true);
    await server.step('undo');
    await server.step('undo');
    expect((await uses())['shop-shelf']).toBeUndefined();
    await server.step('redo');
    expect((await uses())['shop-shelf']!.photos).toBe(0);
  });
});

describe('where files lie', () => {
  const policy = { modern: 'avif', target: 'clean' } as const;
  const prefixed = (prefix: string) =>
    server.edit({ commands: [{ kind: 'site', change: { policy: { ...policy, prefix } } }] });
  const markup = async (more = '') =>
    (await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/markup?slot=grid${more}` }))
      .body;
  test('stands before every address of copied markup, and not in the ZIP’s own page', async () => {
    expect((await prefixed('/media/2026')).status).toBe(200);
    await server.prepared();
    const text = await markup();
    const addresses = [...text.matchAll(/(?:src|srcset)="([^"]+)"/g)].flatMap(([, list]) =>
      list!.split(', '),
    );
    expect(addresses.length).toBeGreaterThan(4);
    for (const address of addresses) expect(address).toMatch(/^\/media\/2026\/photos\/pot-/);
    expect(text).toContain('class="dusky-row dusky-row-grid"');
    const page = await server.app.inject(`/preview/${server.setId}/index.html`);
    expect(page.body).not.toContain('/media/2026');
  });
  test('as one img each', async () => {
    const text = await markup('&form=img');
    expect([text.match(/<img/g)!.length, text.includes('<picture')]).toEqual([2, false]);
    expect(
      (await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/markup?form=table` }))
        .statusCode,
    ).toBe(400);
  });
  test('is refused where a browser would run it', async () => {
    const { status, body } = await prefixed('javascript:alert(1)');
    expect([status, body.detail]).toEqual([422, expect.stringContaining('can’t be loaded')]);
  });
});
