// The second pass: smaller files under keys of their own, never worse ones, in nobody's way.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { RowVariant } from '@dusky-otter/core/contract';
import { thoroughKey } from '@dusky-otter/core/plan';
import { unzipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { VariantModel } from '../database/models.ts';
import { placed } from '../../../core/src/testing/sample.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';
import { StoredVariants } from '../store/stored-variants.ts';
import { sweepVariants } from './sweep.ts';

let server: TestServer;
let id: number;
beforeEach(async () => {
  server = await testServer();
  const result = await server.add('a.jpg', await photoWithSquare(420, 300, { x: 0.3, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  id = result.photo.id;
  await server.edit({
    label: 'x',
    commands: [
      { kind: 'placements', photo: id, placements: placed('grid') },
      // AVIF takes a hundred times as long.
      { kind: 'quality', photo: id, slot: 'grid', decision: { format: 'webp' } },
    ],
    seen: { photos: { [id]: result.photo.version } },
  });
  await server.prepared();
});
afterEach(() => server.close());

const variants = async (): Promise<RowVariant[]> => (await server.state()).rows[0]!.variants;
const ask = (now: boolean) =>
  server.app.inject({ method: 'PUT', url: `/api/sets/${server.setId}/thorough`, payload: { now } });
const sha = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const progress = async () => (await server.state()).preparation.thorough;

/** Resolves when the pass has gone through every file of the set. */
async function through(): Promise<void> {
  for (;;) {
    const { wanted, made, now } = await progress();
    if (!now && made === wanted) return;
    await new Promise((done) => setTimeout(done, 20));
  }
}

describe('the thorough pass', () => {
  test('stands smaller files in the place of every quick one, and hands those over', async () => {
    const before = await variants();
    expect(await progress()).toEqual({ wanted: before.length, made: 0, saved: 0, now: false });
    expect((await ask(true)).json()).toMatchObject({ thorough: { now: true } });
    await through();
    const after = await variants();
    expect(after.map(({ key }) => key)).toEqual(before.map(({ key }) => key));
    for (const [i, variant] of after.entries()) {
      const quick = before[i]!;
      expect(quick.file).toBe(quick.key);
      expect(variant.file).toBe(thoroughKey(quick.key));
      expect(variant.bytes!).toBeLessThanOrEqual(quick.bytes!);
      expect(variant.difference!).toBeLessThanOrEqual(variant.target!);
    }
    const bytes = (list: RowVariant[]) => list.reduce((sum, v) => sum + v.bytes!, 0);
    expect(bytes(after)).toBeLessThan(bytes(before));
    expect((await progress()).saved).toBe(bytes(before) - bytes(after));
    expect((await server.state()).counts.phone.sent).toBeGreaterThan(0);
    const served = await server.app.inject(`/files/variants/${after[0]!.file}/${after[0]!.format}`);
    expect(sha(served.rawPayload)).toBe(after[0]!.contentHash);
    const zip = await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`);
    const hashes = Object.entries(unzipSync(new Uint8Array(zip.rawPayload)))
      .filter(([path]) => path.startsWith('photos/'))
      .map(([, file]) => sha(file));
    expect(hashes.sort()).toEqual(after.map(({ contentHash }) => contentHash).sort());
  }, 120_000);

  test('makes the same bytes for the same key, and leaves the quick files to go', async () => {
    const quick = await variants();
    await ask(true);
    await through();
    const first = await variants();
    for (const { file } of first) await server.parts.stored.forget(file);
    await server.parts.preparer.reconcile(server.setId);
    expect((await variants()).map(({ file }) => file)).toEqual(quick.map(({ file }) => file));
    await ask(true);
    await through();
    expect((await variants()).map((v) => v.contentHash)).toEqual(first.map((v) => v.contentHash));
    const { vault, stored, preparer } = server.parts;
    const wanted = (hash: string, key: string) => preparer.isWanted(hash, key);
    const now = Date.now();
    const kept = new Set(first.map(({ file }) => file));
    const others = [...stored.all.keys()].filter((key) => !kept.has(key)).length;
    expect(others).toBeGreaterThanOrEqual(quick.length);
    await sweepVariants(vault, stored, wanted, new Date(now));
    expect(await sweepVariants(vault, stored, wanted, new Date(now + 8 * 24 * 3600_000))).toBe(others);
    // Nothing is made again for them.
    await preparer.reconcile(server.setId);
    expect((await variants()).map((v) => v.contentHash)).toEqual(first.map((v) => v.contentHash));
    expect(preparer.progressOf(server.setId)).toMatchObject({ wanted: first.length, made: first.length });
  }, 180_000);

  test('is known again after a restart', async () => {
    await ask(true);
    await through();
    const stored = new StoredVariants();
    expect(await stored.load(server.parts.vault)).toEqual({ rowsDropped: 0, filesDropped: 0 });
    for (const { key, file } of await variants()) expect(stored.get(key)!.standIn).toBe(file);
  }, 120_000);

  test('a thorough file that was damaged gives way to the quick one, in the ZIP as well', async () => {
    const quick = await variants();
    await ask(true);
    await through();
    const [victim] = await variants();
    await writeFile(server.parts.vault.variant(victim!.file, victim!.format), 'damaged');
    const zip = await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`);
    expect(zip.statusCode).toBe(200);
    expect(Object.keys(unzipSync(new Uint8Array(zip.rawPayload))).length).toBeGreaterThan(quick.length);
    const [now] = await variants();
    expect([now!.file, now!.contentHash]).toEqual([quick[0]!.file, quick[0]!.contentHash]);
    expect(server.reports.at(-1)).toMatch(/^1 stored files were changed or lost/);
    await ask(true);
    await through();
    expect((await variants())[0]!.contentHash).toBe(victim!.contentHash);
  }, 180_000);

  test('makes room for a photo that arrives, and goes on behind it', async () => {
    await ask(true);
    const result = await server.add('b.jpg', await photoWithSquare(360, 300, { x: 0.6, y: 0.5 }));
    expect(result.kind).toBe('new');
    await server.prepared();
    expect(server.parts.preparer.progressOf(server.setId)).toMatchObject({ failed: 0 });
    await through();
    const { rows } = await server.state();
    expect(rows).toHaveLength(2);
    for (const { variants: all } of rows) for (const v of all) expect(v.file).toBe(thoroughKey(v.key));
  }, 240_000);

  test('stops where the editor does not wait for it any more, or pauses', async () => {
    await server.app.inject({
      method: 'PUT',
      url: `/api/sets/${server.setId}/preparation`,
      payload: { paused: true },
    });
    await ask(true);
    expect(await progress()).toMatchObject({ made: 0, now: true });
    expect((await ask(false)).json()).toMatchObject({ thorough: { now: false } });
  });

  test('leaves what an editor has pinned as it is', async () => {
    const { version } = (await server.state()).rows[0]!;
    await server.edit({
      label: 'x',
      commands: [{ kind: 'quality', photo: id, slot: 'grid', decision: { pinned: 60, format: 'webp' } }],
      seen: { photos: { [id]: version } },
    });
    await server.prepared();
    expect(await progress()).toEqual({ wanted: 0, made: 0, saved: 0, now: false });
    await ask(true);
    await through();
    expect((await variants()).every(({ file, key }) => file === key)).toBe(true);
  });

  test('hostile requests are refused and change nothing', async () => {
    const url = `/api/sets/${server.setId}/thorough`;
    for (const payload of [{}, { now: 'yes' }, { now: 1 }, []])
      expect((await server.app.inject({ method: 'PUT', url, payload })).statusCode).toBe(400);
    const other = await server.app.inject({
      method: 'PUT',
      url: '/api/sets/999/thorough',
      payload: { now: true },
    });
    expect(other.statusCode).toBe(404);
    // Asked for at once: what the photo was meant for at first may still be stored meanwhile.
    const stored = await VariantModel.findAll({ attributes: ['insteadOf'] });
    expect([...new Set(stored.map(({ insteadOf }) => insteadOf))]).toEqual([null]);
    const [first] = await variants();
    const bytes = await readFile(server.parts.vault.variant(first!.file, first!.format));
    expect(sha(bytes)).toBe(first!.contentHash);
  });
});
