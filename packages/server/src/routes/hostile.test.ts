// What nobody should send: wrong kinds of bodies, nulls, depth, other hosts and sites; and sets that can't be read.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { connect as connectTo } from 'node:net';
import type { Command } from '@dusky-otter/core/edits';
import type { WholeSet } from '@dusky-otter/core/reading';
import { MembershipModel, PhotoModel, SetModel } from '../database/models.ts';
import { fuzzRequests } from '../../../../bench/src/fuzz/requests.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let id: number;
let siteId: number;
beforeAll(async () => {
  server = await testServer();
  const result = await server.add('Bay.jpg', await photoWithSquare(600, 400, { x: 0.5, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  id = result.photo.id;
  siteId = (await SetModel.findByPk(server.setId))!.siteId;
  await server.prepared();
});
afterAll(() => server.close());

const edit = (command: object) => server.edit({ commands: [command as Command] });
/** A command on the photo, or what stands in the place of one. */
const onPhoto = (command: object) => (Array.isArray(command) ? command : { photo: id, ...command });

describe('bodies', () => {
  test.each(['attention', 'preparation', 'edits', 'undo'])(
    'an upload’s kind of body is no %s',
    async (route) => {
      const response = await server.app.inject({
        method: route === 'edits' || route === 'undo' ? 'POST' : 'PUT',
        url: `/api/sets/${server.setId}/${route}`,
        headers: { 'content-type': 'application/octet-stream' },
        payload: Buffer.alloc(1000),
      });
      expect(response.statusCode).toBe(415);
      expect(response.json()).toMatchObject({ code: 'wrong-body' });
    },
  );
  test.each(['application/json', 'text/plain', 'multipart/form-data; boundary=x'])(
    'an upload is no %s, and is not read into memory',
    async (type) => {
      const response = await server.app.inject({
        method: 'POST',
        url: `/api/sets/${server.setId}/files?name=a.jpg`,
        headers: { 'content-type': type },
        payload: Buffer.alloc(2_000_000, '1'),
      });
      expect(response.statusCode).toBe(415);
    },
  );
  test.each([
    '[]',
    '"x"',
    '1',
    'null',
    '{"a":',
    '{"__proto__":{}}',
    `{"a":${'['.repeat(20)}${']'.repeat(20)}}`,
    '['.repeat(200_000),
  ])('JSON that is no plain object of a sensible depth is refused: %.30s', async (payload) => {
    const response = await server.app.inject({
      method: 'PUT',
      url: `/api/sets/${server.setId}/attention`,
      headers: { 'content-type': 'application/json' },
      payload,
    });
    expect(response.statusCode).toBe(400);
    expect(response.json()).toMatchObject({ code: 'bad-request', detail: expect.stringMatching(/\.$/) });
  });
  test.each([
    { kind: 'set', change: { slots: null } },
    { kind: 'site', change: { policy: null } },
    { kind: 'site', change: { languages: ['x'.repeat(50)] } },
    { kind: 'site', change: { languages: ['en', 'DE', 'de'] } },
    { kind: 'site', change: { devices: [[]] } },
    { kind: 'slot', slot: 'constructor', value: null },
    { kind: 'quality', slot: 'constructor', decision: null },
    { kind: 'placements', placements: [[]] },
    { kind: 'words', language: 'en', words: { role: '__proto__' } },
    [],
    { kind: 'site', change: { devices: [{ name: 'x', viewport: 1, density: 1, share: 1 }] } },
    { kind: 'slot', slot: 'grid', value: { id: 'grid' } },
    { kind: 'slot', slot: '../x', value: null },
    { kind: 'set', change: { name: null } },
    { kind: 'set', change: null },
    { kind: 'words', language: 'en', words: { alt: null } },
    { kind: 'words', language: 'en', words: { title: null, caption: null } },
    { kind: 'words', language: null, words: { title: 'x' } },
    { kind: 'focal', focal: null },
    { kind: 'crop', shape: '0:0', crop: null },
    { kind: 'crop', shape: '3:0', crop: { x: 0, y: 0, width: 3, height: 1 } },
    { kind: 'crop', shape: '3:1', crop: { x: 0, y: 0, width: 1, height: 1 } },
    { kind: 'placements', placements: [null] },
    { kind: 'placements', placements: [{ slot: 'grid', link: 'javascript:1', words: {}, crops: {} }] },
    { kind: 'placements', placements: [{ slot: 'grid', link: '', words: {}, crops: { '1:1': null } }] },
    { kind: 'frame', frame: { mirrored: false, turns: 5, angle: 0 } },
    { kind: 'position', position: '' },
    { kind: 'position', position: 'a0/../' },
    { kind: 'quality', slot: 'grid', decision: { target: 'perfect' } },
  ])('%j is refused and changes nothing', async (command) => {
    const before = await server.state();
    const { status } = await edit(onPhoto(command));
    expect([400, 422]).toContain(status);
    const after = await server.state();
    const decided = ({ rows, set, site }: WholeSet) => ({
      rows: rows.map((row) => ({ ...row, asOf: 0 })),
      set,
      site,
    });
    expect(decided(after)).toEqual(decided(before));
  });
  test('what is missing of an edit is said to be missing', async () => {
    const { status, body } = await server.edit({ commands: [], since: undefined });
    expect([status, body.code]).toEqual([400, 'bad-request']);
    const step = await server.app.inject({
      method: 'POST',
      url: `/api/sets/${server.setId}/undo`,
      payload: { window: 'window-one' },
    });
    expect(step.json<{ detail: string }>().detail).toMatch(/^since must say/);
  });
  test('what every object has is no file of a preview', async () => {
    for (const name of ['constructor', '__proto__', 'toString', 'photos/constructor'])
      expect((await server.app.inject(`/preview/${server.setId}/${name}`)).statusCode).toBe(404);
  });
  test('a label of any length is cut, since a title may be as long', async () => {
    const response = await server.edit({
      label: `alt text of ${'long '.repeat(200)}`,
      commands: [{ kind: 'words', photo: id, language: 'en', words: { title: 'long '.repeat(200) } }],
    });
    expect(response.status).toBe(200);
    expect(response.body.edits.undoLabel).toHaveLength(300);
    expect((await server.step('undo')).status).toBe(200);
  });
});

describe('who may ask', () => {
  const ask = (url: string, headers: Record<string, string>) =>
    server.app.inject({ url, headers: { host: '127.0.0.1:4780', ...headers } });
  test.each(['0.0.0.0:4780', '10.0.0.5', 'gullmoor.example', '127.0.0.1.gullmoor.example'])(
    'not under the name %j',
    async (host) => expect((await ask('/api/sites', { host })).statusCode).toBe(403),
  );
  test('not from other sites: neither lists nor downloads nor pictures; a link to a page is one', async () => {
    const cross = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' };
    for (const url of [
      `/api/sets/${server.setId}/hand-over.zip`,
      `/files/views/${'0'.repeat(64)}/row`,
      '/api/sites',
      `/preview/${server.setId}/index.html`,
      // As a router reads them, these are the same.
      `/%61pi/sets/${server.setId}/hand-over.zip`,
      `/a%70i/sites`,
      `/%70review/${server.setId}/index.html`,
      `/fil%65s/views/${'0'.repeat(64)}/row`,
      `/proofs/${server.setId}/grid`,
    ]) {
      expect((await ask(url, cross)).statusCode).toBe(403);
      expect((await ask(url, { ...cross, 'sec-fetch-site': 'same-site' })).statusCode).toBe(403);
      expect((await ask(url, { 'sec-fetch-site': 'same-origin' })).statusCode).not.toBe(403);
    }
    expect((await ask('/', { ...cross, 'sec-fetch-mode': 'navigate' })).statusCode).not.toBe(403);
  });
});

describe('many wrong requests', () => {
  test('bring no error of the server, and no state that can’t be read', async () => {
    const { broken } = await fuzzRequests(
      server.app,
      { set: server.setId, photo: id, site: siteId },
      1500,
      20261125,
    );
    expect(broken).toEqual([]);
    expect(server.reports.filter((sentence) => sentence.includes('could not be read'))).toEqual([]);
  });
  test('a sender that leaves in the middle leaves nothing behind', async () => {
    await server.app.listen({ host: '127.0.0.1', port: 0 });
    const address = server.app.server.address();
    if (address === null || typeof address === 'string') throw new Error('no port');
    const socket = connectTo(address.port, '127.0.0.1');
    socket.write(
      `POST /api/sets/${server.setId}/files?name=cut.jpg HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\nContent-Length: 100000\r\n\r\nabc`,
    );
    await new Promise<void>((done) => server.app.server.once('request', () => done()));
    socket.destroy();
    const { vault } = server.parts;
    const { readdir } = await import('node:fs/promises');
    while ((await readdir(vault.incoming)).length > 0) await new Promise((done) => setTimeout(done, 20));
    expect((await server.state()).rows.map((row) => row.fileName)).not.toContain('cut.jpg');
  });
});

describe('a set that can’t be read', () => {
  test('is said and set apart; the start, the list and the other sets go on', async () => {
    const { sequelize, preparer } = server.parts;
    const broken = (await SetModel.findByPk(await server.newSet('Broken')))!;
    const here = { position: 'a0', follows: false, binned: false };
    await MembershipModel.create({ setId: broken.id, photoId: id, ...here });
    await sequelize.query(
      `INSERT INTO photo_placements (set_id, photo_id, slot, \`rank\`, link, words, crops) VALUES (${broken.id}, ${id}, 'hero', 0, '', '{"not', '{}')`,
    );
    server.parts.ledgers.forget(broken.id);
    await preparer.reconcileAll();
    expect(server.reports.at(-1)).toContain(`Set ${broken.id} could not be read`);
    // What it wants is not known: nothing may be cleared away meanwhile.
    expect(preparer.knowsAll).toBe(false);
    const [site] = (await server.app.inject('/api/sites')).json<
      { sets: { id: number; problem: string | null }[] }[]
    >();
    expect(site!.sets.find((set) => set.id === broken.id)!.problem).toMatch(/set apart/);
    expect(site!.sets.find((set) => set.id === server.setId)!.problem).toBeNull();
    const response = await server.app.inject(`/api/sets/${broken.id}`);
    expect([response.statusCode, response.json<{ code: string }>().code]).toEqual([409, 'set-unreadable']);
    expect(
      (await edit({ kind: 'words', photo: id, language: 'en', words: { caption: 'Still works' } })).status,
    ).toBe(200);
    await broken.destroy();
    await preparer.reconcileAll();
    expect(await PhotoModel.count()).toBeGreaterThan(0);
  });
});
