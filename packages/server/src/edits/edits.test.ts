// Edits through HTTP: saved at once, taken back in order, refused when stale.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { EditDepth, PhotoRow } from '@dusky-otter/core';
import { EditModel } from '../database/models.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';
import { mergeTyping } from './typing.ts';

let server: TestServer;
let id: number;
beforeAll(async () => {
  server = await testServer();
  const result = await server.add('a.jpg', await photoWithSquare(1200, 900, { x: 0.2, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  id = result.row.id;
  await server.add('b.jpg', await photoWithSquare(1200, 901, { x: 0.2, y: 0.5 }));
});
afterAll(() => server.close());

const row = async (): Promise<PhotoRow> => (await server.state()).rows.find((r) => r.id === id)!;
const step = async (direction: 'undo' | 'redo') => {
  const response = await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/${direction}` });
  return {
    status: response.statusCode,
    body: response.json<{ rows: PhotoRow[]; edits: EditDepth; code?: string }>(),
  };
};
const say = (alt: string, version: number) =>
  server.edit({
    label: 'alt text',
    commands: [{ kind: 'words', photo: id, words: { alt } }],
    photos: { [id]: version },
  });

describe('edits', () => {
  test('change the row, raise its version and say when it was saved', async () => {
    const before = await row();
    const { status, body } = await say('Wood kiln', before.version);
    expect(status).toBe(200);
    expect(body.rows).toHaveLength(1);
    expect(body.rows[0]).toMatchObject({ words: { alt: 'Wood kiln' }, version: before.version + 1 });
    expect(body.edits.undo).toBe(1);
    expect(Math.abs(Date.now() - Date.parse(body.edits.savedAt!))).toBeLessThan(60_000);
  });
  test('a stale version is answered with 409 and the newer state, and nothing is written', async () => {
    const now = await row();
    const { status, body } = await say('Too late', now.version - 1);
    expect(status).toBe(409);
    expect(body).toMatchObject({
      code: 'stale',
      rows: [{ id, words: { alt: 'Wood kiln' }, version: now.version }],
    });
    expect((await row()).words.alt).toBe('Wood kiln');
  });
  test('an impossible crop is refused with its sentence', async () => {
    const command = { kind: 'crop', photo: id, shape: '3:1', crop: { x: 0, y: 0, width: 300, height: 300 } };
    const { status, body } = await server.edit({ label: 'crop', commands: [command], photos: {} });
    expect(status).toBe(422);
    expect(body.detail).toMatch(/does not have the shape 3:1/);
  });
  test('several commands are one edit: all or nothing', async () => {
    const before = await server.state();
    const other = before.rows.find((r) => r.id !== id)!.id;
    const broken = [
      { kind: 'slots', photo: id, slots: ['viewer'] },
      { kind: 'slots', photo: other, slots: ['nowhere'] },
    ];
    expect((await server.edit({ label: 'slots', commands: broken, photos: {} })).status).toBe(422);
    expect((await server.state()).rows.map((r) => r.slots)).toEqual(before.rows.map((r) => r.slots));
    const good = [id, other].map((photo) => ({ kind: 'slots', photo, slots: ['viewer'] }));
    const { body } = await server.edit({ label: 'slots', commands: good, photos: {} });
    expect(body.rows.map((r) => r.slots)).toEqual([['viewer'], ['viewer']]);
    await step('undo');
    expect((await server.state()).rows.map((r) => r.slots)).toEqual([null, null]);
  });
  test.each([
    [{}],
    [{ label: 'x', commands: [], photos: {} }],
    [{ label: 'x', commands: [{ kind: 'explode', photo: 1 }], photos: {} }],
    [
      {
        label: 'x',
        commands: [{ kind: 'focal', photo: 1, focal: { x: 'left', y: 0, confirmed: true } }],
        photos: {},
      },
    ],
    [{ label: 'x', commands: [{ kind: 'words', photo: 1, words: { role: 'poster' } }], photos: {} }],
    ['nonsense'],
  ])('a body that makes no sense is a bad request: %j', async (body) => {
    const response = await server.app.inject({
      method: 'POST',
      url: `/api/sets/${server.setId}/edits`,
      payload: body,
    });
    expect(response.statusCode).toBeGreaterThanOrEqual(400);
    expect(response.statusCode).toBeLessThan(500);
    expect(response.headers['content-type']).toMatch(/problem\+json/);
  });
  test('fields that nobody knows are dropped, not stored', async () => {
    const { version } = await row();
    const words = { caption: 'Known', colour: 'unknown' };
    await server.edit({
      label: 'x',
      commands: [{ kind: 'words', photo: id, words }],
      photos: { [id]: version },
    });
    expect((await row()).words).not.toHaveProperty('colour');
  });
});

describe('undo and redo', () => {
  test('walk back and forth; a new edit ends redo', async () => {
    await EditModel.destroy({ where: {} });
    const start = await row();
    await server.edit({
      label: 'focal',
      commands: [{ kind: 'focal', photo: id, focal: { x: 0.1, y: 0.2, confirmed: true } }],
      photos: {},
    });
    await server.edit({
      label: 'role',
      commands: [{ kind: 'words', photo: id, words: { role: 'decorative' } }],
      photos: {},
    });
    await step('undo');
    expect((await row()).words.role).toBe(start.words.role);
    const { body } = await step('undo');
    expect((await row()).focal).toEqual(start.focal);
    expect(body.edits).toMatchObject({ undo: 0, redo: 2, redoLabel: 'focal' });
    expect((await step('undo')).body.code).toBe('nothing-to-undo');
    await step('redo');
    expect((await row()).focal).toEqual({ x: 0.1, y: 0.2, confirmed: true });
    await server.edit({
      label: 'title',
      commands: [{ kind: 'words', photo: id, words: { title: 'T' } }],
      photos: {},
    });
    expect((await step('redo')).body.code).toBe('nothing-to-redo');
  });
  test('a set’s name, places, order and policy come back, too', async () => {
    const before = (await server.state()).set;
    const change = {
      name: 'Renamed',
      slots: ['hero'],
      order: [...before.order].reverse(),
      policy: { modern: 'webp', target: 'lean' },
    };
    const { status, body } = await server.edit({
      label: 'set',
      commands: [{ kind: 'set', change }],
      photos: {},
      set: before.version,
    });
    expect(status).toBe(200);
    expect(body.set).toMatchObject(change);
    expect(body.rows.every((r) => r.variants.every((v) => v.slot === 'hero' && v.format !== 'avif'))).toBe(
      true,
    );
    await step('undo');
    expect((await server.state()).set).toMatchObject({ ...before, version: before.version + 2 });
  });
  test('a stale set is answered with the newer set', async () => {
    const { status, body } = await server.edit({
      label: 'set',
      commands: [{ kind: 'set', change: { name: 'Late' } }],
      photos: {},
      set: 1,
    });
    expect(status).toBe(409);
    expect(body.set.name).toBe('Test set');
  });
  test('strokes of one text are one edit, and undo takes back the whole text', async () => {
    await EditModel.destroy({ where: {} });
    const before = (await row()).words.alt;
    for (const alt of ['T', 'Th', 'The bay']) await say(alt, (await row()).version);
    expect((await server.state()).edits.undo).toBe(1);
    await step('undo');
    expect((await row()).words.alt).toBe(before);
    await step('redo');
    expect((await row()).words.alt).toBe('The bay');
  });
});

describe('merging of typing', () => {
  const words = (photo: number, change: object) => [{ kind: 'words' as const, photo, words: change }];
  const last = {
    label: 'x',
    commands: words(1, { alt: 'a' }),
    undone: false,
    updatedAt: new Date(1_000_000),
  };
  const next = { label: 'x', commands: words(1, { alt: 'ab' }) };
  test('same photo, same field, soon after', () =>
    expect(mergeTyping(last, next, 1_005_000)).toEqual(next.commands));
  test.each([
    ['after a pause', last, next, 1_009_000],
    ['another field', last, { label: 'x', commands: words(1, { title: 'ab' }) }, 1_001_000],
    ['another photo', last, { label: 'x', commands: words(2, { alt: 'ab' }) }, 1_001_000],
    ['another act', { ...last, label: 'x mended' }, next, 1_001_000],
    ['an undone one', { ...last, undone: true }, next, 1_001_000],
    [
      'a role',
      { ...last, commands: words(1, { role: 'text' }) },
      { label: 'x', commands: words(1, { role: 'complex' }) },
      1_001_000,
    ],
  ] as const)('not %s', (_, before, edit, now) => {
    expect(
      mergeTyping(
        { ...before, commands: [...before.commands] },
        { ...edit, commands: [...edit.commands] },
        now,
      ),
    ).toBeNull();
  });
});
