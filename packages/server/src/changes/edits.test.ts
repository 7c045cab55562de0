// Edits through HTTP: saved at once, taken back in order, refused where somebody else was there in between.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { FocalPoint, PhotoPage, Words } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { placed } from '../../../core/src/testing/sample.ts';
import { EditModel } from '../database/models.ts';
import { photoWithSquare, seenNow, testServer, type TestServer, type WholeRow } from '../testing/server.ts';

let server: TestServer;
let id: number;
let other: number;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  const ids: number[] = [];
  for (const name of ['a.jpg', 'b.jpg']) {
    const result = await server.add(name, await photoWithSquare(1200, 900 + ids.length, { x: 0.2, y: 0.5 }));
    if (result.kind !== 'new') throw new Error(result.kind);
    ids.push(result.photo.id);
  }
  [id, other] = ids as [number, number];
});

const TWO = 'window-two';
const row = async (photo = id, setId?: number): Promise<WholeRow> =>
  (await server.state(setId)).rows.find((r) => r.id === photo)!;
const words = (change: Partial<Words>, photo = id): Command => ({
  kind: 'words',
  photo,
  language: 'en',
  words: change,
});
const focal = (x: number, photo = id): Command => ({
  kind: 'focal',
  photo,
  focal: { x, y: 0.5, confirmed: true } satisfies FocalPoint,
});
const say = (alt: string, version?: number, window?: string) =>
  server.edit({
    label: 'alt text',
    commands: [words({ alt })],
    ...(version !== undefined && { seen: { photos: { [id]: version } } }),
    ...(window && { window }),
  });

describe('edits', () => {
  test('change the photo, raise its version and say when it was saved', async () => {
    const before = await row();
    const { status, body } = await say('Wood kiln', before.version);
    expect(status).toBe(200);
    expect(body.photos).toHaveLength(1);
    expect(body.photos[0]).toMatchObject({ words: { alt: 'Wood kiln' }, version: before.version + 1 });
    expect(body.edits.undo).toBe(1);
    expect(Math.abs(Date.now() - Date.parse(body.edits.savedAt!))).toBeLessThan(60_000);
  });
  test('sent twice under one name are carried out once', async () => {
    const token = randomUUID();
    const edit = { commands: [words({ alt: 'Once' })], token, seen: { photos: { [id]: 1 } } };
    expect((await server.edit(edit)).status).toBe(200);
    await say('Since then');
    const again = await server.edit({ ...edit, window: TWO });
    expect([again.status, again.body.photos[0]!.words.alt]).toEqual([200, 'Since then']);
    expect(await EditModel.count({ where: { token } })).toBeLessThanOrEqual(1);
  });
  test('must say on which version of everything they were made', async () => {
    const bare = { seen: { photos: {} } };
    expect((await server.edit({ commands: [focal(0.1)], ...bare })).body.code).toBe('version-missing');
    const set: Command = { kind: 'set', change: { name: 'New' } };
    expect((await server.edit({ commands: [set], ...bare })).body.code).toBe('version-missing');
    const site: Command = { kind: 'site', change: { name: 'New' } };
    expect((await server.edit({ commands: [site], ...bare })).body.code).toBe('version-missing');
  });
  test('an impossible crop is refused with its sentence', async () => {
    const crop = { x: 0, y: 0, width: 300, height: 300 };
    const { status, body } = await server.edit({
      commands: [{ kind: 'crop', photo: id, shape: '3:1', crop }],
    });
    expect(status).toBe(422);
    expect(body.detail).toMatch(/does not have the shape 3:1/);
  });
  test('several commands are one edit: all or nothing', async () => {
    const places = (photo: number, ...slots: string[]): Command => ({
      kind: 'placements',
      photo,
      placements: placed(...slots),
    });
    const broken = [places(id, 'viewer'), places(other, 'grid', 'grid')];
    expect((await server.edit({ commands: broken })).status).toBe(422);
    expect((await server.state()).rows.map((r) => r.placements)).toEqual([null, null]);
    const { body } = await server.edit({ commands: [places(id, 'viewer'), places(other, 'viewer')] });
    expect(body.photos.map((r) => r.placements)).toEqual([placed('viewer'), placed('viewer')]);
    await server.step('undo');
    expect((await server.state()).rows.map((r) => r.placements)).toEqual([null, null]);
  });
  test.each([
    [{}],
    [{ label: 'x', commands: [] }],
    [{ label: 'x', commands: [{ kind: 'explode', photo: 1 }] }],
    [{ label: 'x', commands: [{ kind: 'focal', photo: 1, focal: { x: 'left', y: 0, confirmed: true } }] }],
    [{ label: 'x', commands: [{ kind: 'words', photo: 1, language: 'en', words: { role: 'poster' } }] }],
    [{ label: 'x', commands: [{ kind: 'words', photo: 1, language: '../en', words: { alt: 'x' } }] }],
    [{ label: 'x', commands: [{ kind: 'quality', photo: 1, slot: 'grid', decision: { pinned: 0 } }] }],
    ['nonsense'],
  ])('a body that makes no sense is a bad request: %j', async (body) => {
    const sent =
      typeof body === 'string'
        ? body
        : { window: TWO, token: randomUUID(), since: 0, seen: { photos: {} }, ...body };
    const url = `/api/sets/${server.setId}/edits`;
    const response = await server.app.inject({ method: 'POST', url, payload: sent });
    expect(response.statusCode).toBeGreaterThanOrEqual(400);
    expect(response.statusCode).toBeLessThan(500);
    expect(response.headers['content-type']).toMatch(/problem\+json/);
  });
  test('fields that nobody knows are dropped, not stored', async () => {
    await server.edit({ commands: [words({ caption: 'Known', colour: 'unknown' } as Partial<Words>)] });
    const now = await row();
    expect(now.words.caption).toBe('Known');
    expect(now.words).not.toHaveProperty('colour');
  });
  test('eight of a set at once all come through', async () => {
    const before = await server.state();
    const seen = seenNow(before);
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, n) =>
        server.edit({ commands: [{ kind: 'set', change: { name: `Name ${n}` } }], seen }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 200));
    expect((await server.state()).set.version).toBe(before.set.version + 8);
  });
});

describe('two windows', () => {
  test('that change the same: the second is told what is there now, and nothing is written', async () => {
    const { version } = await row();
    await say('Wood kiln', version);
    const { status, body } = await say('Too late', version, TWO);
    expect(status).toBe(409);
    expect(body).toMatchObject({
      code: 'stale',
      photos: [{ id, words: { alt: 'Wood kiln' }, version: version + 1 }],
    });
    expect((await row()).words.alt).toBe('Wood kiln');
  });
  test('that change different parts of one photo are in nobody’s way', async () => {
    const { version } = await row();
    await say('Wood kiln', version);
    const seen = { photos: { [id]: version } };
    expect((await server.edit({ commands: [words({ title: 'Kiln' })], seen, window: TWO })).status).toBe(200);
    expect((await server.edit({ commands: [focal(0.1)], seen, window: TWO })).status).toBe(200);
    expect(await row()).toMatchObject({ words: { alt: 'Wood kiln', title: 'Kiln' }, version: version + 3 });
  });
  test('one’s own edits before are no hindrance, however many', async () => {
    const { version } = await row();
    for (const alt of ['One', 'Two', 'Three']) expect((await say(alt, version)).status).toBe(200);
  });
  test('undo takes back what this window did, never what the other did after it', async () => {
    await say('Mine');
    await server.edit({ label: 'title', commands: [words({ title: 'Theirs' })], window: TWO });
    const { body } = await server.step('undo');
    expect(body.photos[0]!.words).toMatchObject({ alt: '', title: 'Theirs' });
    expect((await server.step('undo')).body.code).toBe('nothing-to-undo');
  });
  test('what the other changed again stays, and that is said', async () => {
    await say('Mine');
    await say('Theirs', undefined, TWO);
    const { status, body } = await server.step('undo');
    expect([status, body.code]).toEqual([409, 'changed-since']);
    expect(body.detail).toMatch(/^“alt text” stays/);
    expect((await row()).words.alt).toBe('Theirs');
    // Once they have taken theirs back, mine is free again.
    await server.step('undo', TWO);
    expect((await server.step('undo')).status).toBe(200);
    expect((await row()).words.alt).toBe('');
    expect((await server.step('redo')).body.photos[0]!.words.alt).toBe('Mine');
  });
  test('that type into one text in turn: their strokes are edits of their own', async () => {
    await say('M', undefined);
    await say('Mi', undefined);
    await say('Th', undefined, TWO);
    await say('Mine', undefined);
    expect(await EditModel.count({ where: { setId: server.setId } })).toBe(3);
  });
  test('edits from before a window came are everybody’s to take back', async () => {
    await say('Before');
    const { newestEdit } = await server.state();
    const url = `/api/sets/${server.setId}/undo`;
    const undo = (since: number) =>
      server.app.inject({ method: 'POST', url, payload: { window: 'window-three', since } });
    expect((await undo(newestEdit - 1)).statusCode).toBe(409);
    expect((await undo(newestEdit)).statusCode).toBe(200);
  });
});

describe('undo and redo', () => {
  test('walk back and forth; a new edit ends redo', async () => {
    const start = await row();
    await server.edit({ label: 'focal', commands: [focal(0.1)] });
    await server.edit({ label: 'role', commands: [words({ role: 'decorative' })] });
    await server.step('undo');
    expect((await row()).words.role).toBe(start.words.role);
    const { body } = await server.step('undo');
    expect((await row()).frame).toEqual(start.frame);
    expect(body.edits).toMatchObject({ undo: 0, redo: 2, redoLabel: 'focal' });
    expect((await server.step('undo')).body.code).toBe('nothing-to-undo');
    await server.step('redo');
    expect((await row()).frame.focal).toEqual({ x: 0.1, y: 0.5, confirmed: true });
    await server.edit({ label: 'title', commands: [words({ title: 'T' })] });
    expect((await server.step('redo')).body.code).toBe('nothing-to-redo');
  });
  test('a set’s name and places, its site’s policy and a place of it come back, too', async () => {
    const before = await server.state();
    const grid = before.site.slots.find((slot) => slot.id === 'grid')!;
    const commands: Command[] = [
      { kind: 'set', change: { name: 'Renamed', slots: ['hero'] } },
      { kind: 'site', change: { policy: { modern: 'webp', target: 'lean' } } },
      { kind: 'slot', slot: 'grid', value: { ...grid, budget: 25_000 } },
      { kind: 'slot', slot: 'strip', value: { ...grid, id: 'strip', name: 'Strip' } },
    ];
    const { status, body } = await server.edit({ commands });
    expect(status).toBe(200);
    expect(body.set).toMatchObject({ name: 'Renamed', slots: ['hero'] });
    const changed = await server.state();
    expect(changed.site.slots.map((slot) => slot.id)).toEqual([
      ...before.site.slots.map((s) => s.id),
      'strip',
    ]);
    const variants = changed.rows.flatMap((r) => r.variants);
    expect(variants.every((v) => v.slot === 'hero' && v.format !== 'avif')).toBe(true);
    expect(variants.length).toBeGreaterThan(0);
    await server.step('undo');
    const after = await server.state();
    expect({ ...after.set, version: 0 }).toEqual({ ...before.set, version: 0 });
    expect({ ...after.site, version: 0 }).toEqual({ ...before.site, version: 0 });
  });
  test('words of another language of the site are its own, and come back', async () => {
    const german = (alt: string): Command => ({ kind: 'words', photo: id, language: 'de', words: { alt } });
    expect((await server.edit({ commands: [german('Ofen')] })).status).toBe(422);
    await server.edit({
      commands: [{ kind: 'site', change: { languages: ['en', 'de'] } }, words({ alt: 'Kiln' })],
    });
    await server.edit({ label: 'german', commands: [german('Ofen')] });
    const inGerman = async () => {
      const path = `/api/sets/${server.setId}/photos?ids=${id}&language=de`;
      return (await server.app.inject(path)).json<PhotoPage>().photos[0]!.words.alt;
    };
    expect([(await row()).words.alt, await inGerman()]).toEqual(['Kiln', 'Ofen']);
    await server.step('undo');
    expect([(await row()).words.alt, await inGerman()]).toEqual(['Kiln', '']);
    const unknown = await server.app.inject(`/api/sets/${server.setId}/photos?ids=${id}&language=fr`);
    expect(unknown.statusCode).toBe(400);
  });
  test('frames and decisions on quality come back, and are in what is planned', async () => {
    const before = await row();
    const frame = { ...before.frame, turns: 1 as const, angle: 3, crops: {} };
    await server.edit({
      commands: [
        { kind: 'frame', photo: id, frame },
        { kind: 'quality', photo: id, slot: 'grid', decision: { target: 'lean', format: 'webp' } },
      ],
    });
    const changed = await row();
    expect(changed.frame).toEqual(frame);
    expect(changed.variants.map((v) => v.key)).not.toEqual(before.variants.map((v) => v.key));
    expect(changed.variants.some((v) => v.slot === 'grid' && v.format === 'webp')).toBe(true);
    await server.step('undo');
    expect((await row()).variants.map((v) => v.key)).toEqual(before.variants.map((v) => v.key));
  });
  test('a set that another window changed is told with what it is now', async () => {
    const seen = seenNow(await server.state());
    await server.edit({ commands: [{ kind: 'set', change: { name: 'First' } }], seen });
    const late = await server.edit({
      commands: [{ kind: 'set', change: { name: 'Late' } }],
      seen,
      window: TWO,
    });
    expect(late.status).toBe(409);
    expect(late.body.set.name).toBe('First');
  });
  test('strokes of one text are one edit, and undo takes back the whole text', async () => {
    for (const alt of ['T', 'Th', 'The bay']) await say(alt);
    expect((await server.state()).edits.undo).toBe(1);
    await server.step('undo');
    expect((await row()).words.alt).toBe('');
    await server.step('redo');
    expect((await row()).words.alt).toBe('The bay');
  });
});
