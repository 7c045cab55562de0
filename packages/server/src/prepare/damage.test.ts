// What a disk or a stranger changed: noticed when it is served, handed over or walked over, said, and made again.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { placed } from '../../../core/src/testing/sample.ts';
import { createHash } from 'node:crypto';
import { chmod, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import type { OutputFormat } from '@dusky-otter/core/contract';
import { OriginalModel, VariantModel } from '../database/models.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let photo: Buffer;
let hash: string;
let id: number;
beforeAll(async () => {
  server = await testServer();
  photo = await photoWithSquare(900, 600, { x: 0.3, y: 0.5 });
});
// The same photo in another site: its files are there already, and adding it mends an original that was spoiled.
beforeEach(async () => {
  await server.begin();
  const result = await server.add('a.jpg', photo);
  if (result.kind !== 'new') throw new Error(result.kind);
  hash = result.photo.original.hash;
  id = result.photo.id;
  await server.prepared();
});
afterAll(() => server.close());

const files = async () =>
  (await VariantModel.findAll({ order: [['key', 'ASC']] })).map(({ key, format, contentHash }) => ({
    key,
    format: format as OutputFormat,
    contentHash,
    path: server.parts.vault.variant(key, format as OutputFormat),
  }));
const sha = async (path: string) =>
  createHash('sha256')
    .update(await readFile(path))
    .digest('hex');
const get = (url: string) => server.app.inject(url);
const picturesIn = (zip: Buffer) =>
  Object.keys(unzipSync(new Uint8Array(zip))).filter((path) => path.startsWith('photos/'));
const row = async () => (await server.state()).rows[0]!;
const ways: [string, (path: string) => Promise<void>][] = [
  ['changed', async (path) => writeFile(path, Buffer.concat([await readFile(path), Buffer.from('x')]))],
  ['emptied', (path) => writeFile(path, '')],
  ['lost', (path) => rm(path)],
];

describe.each(ways)('a made file that was %s', (_, spoil) => {
  test('is not served, is told, and is made again as it was', async () => {
    const [file] = await files();
    await spoil(file!.path);
    const response = await get(`/files/variants/${file!.key}/${file!.format}`);
    expect([response.statusCode, response.json<{ code: string }>().code]).toEqual([404, 'being-remade']);
    expect(await server.parts.preparer.untilStored({ key: file!.key, hash })).toBe(true);
    expect(await sha(file!.path)).toBe(file!.contentHash);
    expect((await get(`/files/variants/${file!.key}/${file!.format}`)).statusCode).toBe(200);
    expect(server.reports.at(-1)).toMatch(/^1 stored files were changed or lost/);
  });
  test('breaks off no ZIP', async () => {
    const all = await files();
    for (const { path } of all.slice(0, 3)) await spoil(path);
    const response = await get(`/api/sets/${server.setId}/hand-over.zip`);
    expect(response.statusCode).toBe(200);
    const zip = unzipSync(new Uint8Array(response.rawPayload));
    const hashes = Object.entries(zip)
      .filter(([path]) => path.startsWith('photos/'))
      .map(([, bytes]) => createHash('sha256').update(bytes).digest('hex'));
    expect(hashes.sort()).toEqual(all.map(({ contentHash }) => contentHash).sort());
  });
  test('and is being made again is waited for by a ZIP', async () => {
    const all = await files();
    await spoil(all[0]!.path);
    // It is asked for, and so found out and forgotten, while nothing is made.
    const { preparer, ledgers } = server.parts;
    // The same photo stands in the sets of the tests before, too.
    const pause = (paused: boolean) => [...ledgers.all.keys()].forEach((set) => preparer.pause(set, paused));
    pause(true);
    await get(`/files/variants/${all[0]!.key}/${all[0]!.format}`);
    const refused = await get(`/api/sets/${server.setId}/hand-over.zip`);
    expect([refused.statusCode, refused.json<{ detail: string }>().detail]).toEqual([
      409,
      expect.stringMatching(/^A file of “a\.jpg” \(.*, \d+ px, [A-Z]+\) is still being made\./),
    ]);
    const later = server.app.inject(`/api/sets/${server.setId}/hand-over.zip`);
    pause(false);
    // Asked for while it was paused or after: both answers are honest, and no ZIP is without a file.
    const answer = await later;
    if (answer.statusCode === 200) expect(picturesIn(answer.rawPayload)).toHaveLength(all.length);
    else expect(answer.statusCode).toBe(409);
    const whole = await get(`/api/sets/${server.setId}/hand-over.zip`);
    expect(picturesIn(whole.rawPayload)).toHaveLength(all.length);
  });
  test('is found by the walk over everything', async () => {
    const [file] = await files();
    await spoil(file!.path);
    expect(await server.parts.scrub.everything()).toEqual({ variants: 1, views: 0, originals: 0 });
    expect(await server.parts.preparer.untilStored({ key: file!.key, hash })).toBe(true);
    expect(await server.parts.scrub.everything()).toEqual({ variants: 0, views: 0, originals: 0 });
  });
});

describe('a view', () => {
  test.each(ways)('that was %s is made again before it is served', async (_, spoil) => {
    const { vault } = server.parts;
    const before = (await get(`/files/views/${hash}/row`)).rawPayload;
    await spoil(vault.view(hash, 'row'));
    const response = await get(`/files/views/${hash}/row`);
    expect([response.statusCode, response.rawPayload.equals(before)]).toEqual([200, true]);
    await spoil(vault.view(hash, 'bench'));
    expect(await server.parts.scrub.everything()).toEqual({ variants: 0, views: 1, originals: 0 });
    expect(await server.parts.views.areWhole(hash)).toBe(true);
  });
  test('of a photo taken in before hashes were kept gets one', async () => {
    await OriginalModel.update({ views: null }, { where: { hash } });
    expect((await get(`/files/views/${hash}/bench`)).statusCode).toBe(200);
    expect((await OriginalModel.findByPk(hash))!.views).not.toBeNull();
  });
});

describe('an original that was damaged', () => {
  const spoil = () => writeFile(server.parts.vault.original(hash), 'damaged');
  test('is said in its row, and is mended by adding the same file again', async () => {
    await spoil();
    expect(await server.parts.scrub.everything()).toMatchObject({ originals: 1 });
    expect((await row()).original.damage).toMatch(
      /^The original in the vault was changed or lost on the disk\. Add the photo again/,
    );
    await server.edit({
      label: 'x',
      commands: [{ kind: 'placements', photo: id, placements: placed('viewer') }],
      seen: { photos: { [id]: (await row()).version } },
    });
    await server.prepared();
    expect((await row()).variants.every((v) => v.failure !== null)).toBe(true);
    expect((await server.add('a.jpg', photo)).kind).toBe('already-here');
    await server.prepared();
    const mended = await row();
    expect(mended.original.damage).toBeNull();
    expect(mended.variants.every((v) => v.bytes !== null && v.failure === null)).toBe(true);
    expect(await server.parts.vault.hasWhole(hash)).toBe(true);
  });
  test('is found when files are made of it, without a walk', async () => {
    await spoil();
    await server.edit({
      label: 'x',
      commands: [{ kind: 'placements', photo: id, placements: placed('hero') }],
      seen: { photos: { [id]: (await row()).version } },
    });
    await server.prepared();
    await expect(row()).resolves.toMatchObject({
      original: { damage: expect.stringContaining('changed or lost') as unknown },
    });
  });
});

describe('codec processes that are ended', () => {
  test('while files are made: every file is made all the same', async () => {
    const { pool, preparer } = server.parts;
    await server.edit({
      label: 'x',
      commands: [
        { kind: 'placements', photo: id, placements: placed('hero', 'viewer', 'half', 'column', 'grid') },
      ],
      seen: { photos: { [id]: (await row()).version } },
    });
    let ended = 0;
    let made = 0;
    const stop = server.parts.hub.listen([server.setId], {
      // Each time another file: what ends its process twice is set apart for good reason.
      send: (text) => {
        if (!text.includes('"type":"made"') || made++ % 8 !== 0) return true;
        const busy = pool.pids.find((pid) => pool.busyWith(pid) === 'render');
        if (busy !== undefined && ended < 3) {
          ended += 1;
          process.kill(busy, 'SIGKILL');
        }
        return true;
      },
      cut: () => undefined,
    });
    await server.prepared();
    stop();
    expect(ended).toBeGreaterThan(0);
    expect(preparer.progressOf(server.setId)).toMatchObject({ failed: 0 });
  });
});

describe('who may read', () => {
  test('originals and everything else in the vault are for this user alone', async () => {
    const { vault } = server.parts;
    const [file] = await files();
    for (const path of [vault.original(hash), vault.view(hash, 'row'), file!.path])
      expect((await stat(path)).mode & 0o077).toBe(0);
    for (const name of ['originals', 'variants', 'views', 'incoming'])
      expect((await stat(join(vault.root, name))).mode & 0o077).toBe(0);
    // Folders of an earlier version are closed when they are opened the next time.
    await chmod(join(vault.root, 'originals'), 0o755);
    await vault.open();
    expect((await stat(join(vault.root, 'originals'))).mode & 0o077).toBe(0);
  });
});
