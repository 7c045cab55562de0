// Emptying the bin: photos go for good with their originals, others and shared ones stay, undo stays whole.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Command } from '@dusky-otter/core/edits';
import { EditModel, MembershipModel, OriginalModel, PhotoModel, VariantModel } from '../database/models.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let ids: number[];
let hashes: string[];
let count = 0;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  [ids, hashes] = [[], []];
  count++;
  for (const [i, name] of ['a.jpg', 'b.jpg', 'c.jpg'].entries()) {
    const result = await server.add(name, await photoWithSquare(400 + i, 300 + count, { x: 0.5, y: 0.5 }));
    if (result.kind !== 'new') throw new Error(result.kind);
    ids.push(result.photo.id);
    hashes.push(result.photo.original.hash);
  }
  await server.prepared();
});

const edit = (label: string, commands: Command[]) => server.edit({ label, commands });
const empty = () => server.app.inject({ method: 'DELETE', url: `/api/sets/${server.setId}/bin` });
const undo = () => server.step('undo');

describe('emptying the bin', () => {
  test('deletes what is in it with originals, views and versions, and nothing else', async () => {
    const { vault } = server.parts;
    const kept = await VariantModel.findAll({ where: { originalHash: hashes[0]! } });
    await edit('bin', [{ kind: 'bin', photo: ids[1]!, binned: true }]);
    expect((await empty()).json()).toEqual({ gone: [ids[1]] });
    expect((await server.state()).rows.map((row) => row.id)).toEqual([ids[0], ids[2]]);
    expect(await PhotoModel.findByPk(ids[1])).toBeNull();
    expect(await OriginalModel.findByPk(hashes[1])).toBeNull();
    expect(await VariantModel.count({ where: { originalHash: hashes[1]! } })).toBe(0);
    for (const path of [
      vault.original(hashes[1]!),
      vault.view(hashes[1]!, 'row'),
      vault.view(hashes[1]!, 'bench'),
    ])
      expect(await vault.has(path)).toBe(false);
    expect(await vault.has(vault.original(hashes[0]!))).toBe(true);
    expect(await VariantModel.findAll({ where: { originalHash: hashes[0]! } })).toEqual(kept);
    expect((await vault.variantFiles()).size).toBe(await VariantModel.count());
  });
  test('takes a photo that another set shows out of this one only', async () => {
    const other = await server.newSet('Other');
    const here = { position: 'a0', follows: true, binned: false };
    await MembershipModel.create({ setId: other, photoId: ids[1], ...here });
    await edit('bin', [{ kind: 'bin', photo: ids[1]!, binned: true }]);
    await empty();
    expect((await server.state()).rows.map((row) => row.id)).toEqual([ids[0], ids[2]]);
    expect((await server.state(other)).rows.map((row) => row.id)).toEqual([ids[1]]);
    expect(await server.parts.vault.hasWhole(hashes[1]!)).toBe(true);
  });
  test('leaves a history that can be taken back step by step', async () => {
    await edit('one', [{ kind: 'words', photo: ids[1]!, language: 'en', words: { alt: 'Gone' } }]);
    await edit(
      'both',
      ids.map((photo) => ({ kind: 'words', photo, language: 'en', words: { title: `T${photo}` } })),
    );
    await edit('order', [{ kind: 'position', photo: ids[2]!, position: 'Zz' }]);
    await edit('bin', [{ kind: 'bin', photo: ids[1]!, binned: true }]);
    await empty();
    const left = await EditModel.findAll({ where: { setId: server.setId }, order: [['id', 'ASC']] });
    expect(left.map(({ label }) => label)).toEqual(['both', 'order']);
    expect((await undo()).status).toBe(200);
    expect((await undo()).status).toBe(200);
    expect((await server.state()).rows.map((row) => [row.id, row.words.title])).toEqual([
      [ids[0], ''],
      [ids[2], ''],
    ]);
    expect((await undo()).status).toBe(409);
  });
  test('of an empty bin does nothing; of a set that is none says so', async () => {
    expect((await empty()).json()).toEqual({ gone: [] });
    expect((await server.app.inject({ method: 'DELETE', url: '/api/sets/999/bin' })).statusCode).toBe(404);
  });
  test('the same photo may come again, as a new one', async () => {
    await edit('bin', [{ kind: 'bin', photo: ids[1]!, binned: true }]);
    await empty();
    const again = await server.add('b.jpg', await photoWithSquare(401, 300 + count, { x: 0.5, y: 0.5 }));
    expect(again.kind).toBe('new');
  });
});
