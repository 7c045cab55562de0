// Reconciliation: what is wanted gets made, once; what is stored stays; what is lost is found again.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { openIn, planPhoto } from '@dusky-otter/core/plan';
import { VariantModel } from '../database/models.ts';
import { CONTEXT, placed, samplePhoto } from '../../../core/src/testing/sample.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';
import { batchesOf } from './batches.ts';
import { StoredVariants } from '../store/stored-variants.ts';
import { KEPT_FOR_MS, sweepVariants } from './sweep.ts';

describe('batches', () => {
  // The half column and the phone's hero share the shape 4:5, and one width of it.
  const slots = ['hero', 'half', 'grid'];
  test('every wanted key once, a crop a batch, smallest first', () => {
    const photo = samplePhoto({ id: 1 });
    const batches = batchesOf(photo, openIn(...slots), CONTEXT);
    const planned = planPhoto(photo, openIn(...slots), CONTEXT).map((v) => v.key);
    expect(batches.flatMap((b) => b.outputs.map((o) => o.key)).sort()).toEqual([...new Set(planned)].sort());
    expect(batches.map((b) => b.shape)).toEqual(['3:1', '4:5', '1:1']);
    for (const { outputs } of batches) {
      const widths = outputs.map((o) => o.width);
      expect(widths).toEqual([...widths].sort((a, b) => a - b));
    }
  });
  test('a still and a moving picture of one crop are decoded apart, as are two crops of one shape', () => {
    const facts = { frames: 12, format: 'gif' as const };
    const still = batchesOf(
      samplePhoto({ quality: { half: { still: true } } }, facts),
      openIn(...slots),
      CONTEXT,
    );
    expect(still.map((b) => [b.shape, b.still])).toEqual([
      ['3:1', false],
      ['4:5', false],
      ['4:5', true],
      ['1:1', false],
    ]);
    const crops = { '4:5': { x: 0, y: 0, width: 400, height: 500 } };
    const placements = placed('hero', 'half').map((placement, at) => ({
      ...placement,
      crops: at ? crops : {},
    }));
    expect(batchesOf(samplePhoto({ placements }), openIn(), CONTEXT).map((b) => b.shape)).toEqual([
      '3:1',
      '4:5',
      '4:5',
    ]);
  });
});

describe('the preparer', () => {
  let server: TestServer;
  let id: number;
  beforeEach(async () => {
    server = await testServer();
    const result = await server.add('a.jpg', await photoWithSquare(900, 600, { x: 0.3, y: 0.5 }));
    if (result.kind !== 'new') throw new Error(result.kind);
    id = result.photo.id;
    await server.prepared();
  });
  afterEach(() => server.close());

  const keys = async () => (await VariantModel.findAll()).map((v) => v.key).sort();
  const wanted = async () =>
    [...new Set((await server.state()).rows.flatMap((row) => row.variants.map((v) => v.key)))].sort();

  test('makes what is wanted and no more', async () => {
    expect(await keys()).toEqual(await wanted());
  });
  test('makes nothing again when nothing changed', async () => {
    const before = await VariantModel.findAll();
    await server.prepared();
    expect(await VariantModel.findAll()).toEqual(before);
  });
  test('a changed decision makes only what is new, and going back makes nothing', async () => {
    const first = await keys();
    const edit = (x: number) =>
      server.edit({
        label: 'focal',
        commands: [{ kind: 'focal', photo: id, focal: { x, y: 0.5, confirmed: true } }],
      });
    const { x } = (await server.state()).rows[0]!.frame.focal;
    await edit(x > 0.5 ? 0.1 : 0.9);
    await server.prepared();
    const second = await keys();
    // The square crop moved; the 3:2 crop is the whole photo either way.
    expect(second.length).toBeGreaterThan(first.length);
    await edit(x);
    await server.prepared();
    expect(await keys()).toEqual(second);
  });
  test('a file that was lost and a file nobody knows are put right at the next start', async () => {
    const [lost] = await keys();
    const { vault } = server.parts;
    const format = (await VariantModel.findByPk(lost))!.format as 'avif';
    await rm(vault.variant(lost!, format));
    const stray = vault.variant('f'.repeat(64), 'avif');
    await mkdir(join(stray, '..'), { recursive: true });
    await writeFile(stray, 'nobody knows this file');
    // Notes of operating systems and of people are nobody's business.
    await writeFile(join(vault.root, 'variants', '.DS_Store'), 'x');
    await writeFile(join(stray, '..', 'Thumbs.db'), 'x');
    await mkdir(join(vault.root, 'incoming', 'a folder'));
    await writeFile(join(vault.root, 'incoming', randomUUID()), 'x');
    expect(await vault.open()).toBe(1);
    const stored = new StoredVariants();
    expect(await stored.load(vault)).toEqual({ rowsDropped: 1, filesDropped: 1 });
    expect(await vault.has(stray)).toBe(false);
    expect(await vault.has(join(vault.root, 'variants', '.DS_Store'))).toBe(true);
    expect(stored.get(lost!)).toBeUndefined();
  });
  test('what no set wants is swept when it is old enough, what is wanted never', async () => {
    const { vault, stored, preparer } = server.parts;
    const first = await wanted();
    await server.edit({
      label: 'slots',
      commands: [{ kind: 'placements', photo: id, placements: placed('grid') }],
    });
    await server.prepared();
    const still = await wanted();
    expect(still.length).toBeLessThan(first.length);
    const isWanted = (hash: string, key: string) => preparer.isWanted(hash, key);
    const now = Date.now();
    const at = (ms: number) => sweepVariants(vault, stored, isWanted, new Date(now + ms));
    // However old the files are: the week counts from when it is noticed that nobody wants them.
    await VariantModel.update({ unwantedSince: null }, { where: {} });
    expect(await at(10 * KEPT_FOR_MS)).toBe(0);
    expect(await keys()).toEqual(first);
    expect(await at(11 * KEPT_FOR_MS - 1)).toBe(0);
    expect(await at(11 * KEPT_FOR_MS)).toBe(first.length - still.length);
    expect(await keys()).toEqual(still);
    expect([...(await vault.variantFiles()).keys()].sort()).toEqual(still);
  });
  test('what is wanted again before its week is over has a whole week the next time', async () => {
    const { vault, stored } = server.parts;
    const [key] = await keys();
    let wantedNow = false;
    const isWanted = (_: string, other: string) => other !== key || wantedNow;
    const at = (ms: number) => sweepVariants(vault, stored, isWanted, new Date(ms));
    expect(await at(0)).toBe(0);
    wantedNow = true;
    expect(await at(KEPT_FOR_MS - 1)).toBe(0);
    wantedNow = false;
    expect(await at(KEPT_FOR_MS)).toBe(0);
    expect(await at(2 * KEPT_FOR_MS - 1)).toBe(0);
    expect(await keys()).toContain(key);
    expect(await at(2 * KEPT_FOR_MS)).toBe(1);
    expect(await keys()).not.toContain(key);
  });
  test('stopping keeps what is made, going on makes the rest', async () => {
    server.parts.preparer.pause(server.setId, true);
    await server.edit({
      label: 'slots',
      commands: [{ kind: 'placements', photo: id, placements: placed('viewer', 'hero') }],
    });
    const before = await keys();
    const { preparation } = await server.state();
    expect(preparation.paused).toBe(true);
    expect(preparation.made).toBeLessThan(preparation.wanted);
    expect(await keys()).toEqual(before);
    const response = await server.app.inject({
      method: 'PUT',
      url: `/api/sets/${server.setId}/preparation`,
      payload: { paused: false },
    });
    expect(response.json()).toMatchObject({ paused: false });
    await server.prepared();
    expect((await server.state()).preparation).toMatchObject({ failed: 0, made: preparation.wanted });
  });
  test('a made file that can’t be noted is said, ends nothing, and is made when somebody asks again', async () => {
    const { stored, preparer } = server.parts;
    const add = stored.add.bind(stored);
    stored.add = () => Promise.reject(new Error('The note was lost.'));
    await server.edit({
      label: 'slots',
      commands: [{ kind: 'placements', photo: id, placements: placed('viewer') }],
      seen: { photos: { [id]: (await server.state()).rows[0]!.version } },
    });
    await server.prepared();
    expect((await server.state()).rows[0]!.variants[0]!.failure).toContain('The note was lost.');
    stored.add = add;
    preparer.pause(server.setId, false);
    await server.prepared();
    expect((await server.state()).preparation).toMatchObject({ failed: 0 });
  });
  test('a set whose wants can’t be found is reported by who does not wait for them', async () => {
    const { preparer } = server.parts;
    preparer.reconcile = () => Promise.reject(new Error('Out of reach.'));
    await preparer.reconcileSoon(server.setId);
    expect(server.reports.at(-1)).toContain(`Set ${server.setId} could not be read`);
  });
  test('who waits for a file whose place is closed meanwhile waits no longer', async () => {
    const { pool, preparer } = server.parts;
    const open = (slots: string[]) => server.edit({ commands: [{ kind: 'set', change: { slots } }] });
    pool.render = () => new Promise(() => undefined);
    await open(['viewer']);
    await preparer.reconcile(server.setId);
    const { original, variants } = (await server.state()).rows[0]!;
    const wanted = variants.find(({ bytes }) => bytes === null)!;
    const stored = preparer.untilStored({ hash: original.hash, key: wanted.key });
    await open(['hero']);
    expect(await stored).toBe(false);
  });
  test('an original that was damaged on disk is said, not published', async () => {
    const { original } = (await server.state()).rows[0]!;
    await writeFile(server.parts.vault.original(original.hash), 'damaged');
    await server.edit({
      label: 'slots',
      commands: [{ kind: 'placements', photo: id, placements: placed('viewer') }],
    });
    await server.prepared();
    const row = (await server.state()).rows[0]!;
    expect(
      row.variants.every((v) => v.bytes === null && v.failure?.includes('changed or lost on the disk')),
    ).toBe(true);
  });
});
