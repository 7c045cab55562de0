// The demo: whole after one start, and after a start that was cut off.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { concernsOf, type Concern } from '@dusky-otter/core';
import { SetModel, SiteModel } from '../database/models.ts';
import { makeSite } from '../sites/site-book.ts';
import { DEMO, testServer, type TestServer } from '../testing/server.ts';
import { seedDemo } from './seed.ts';

interface Listed {
  site: string;
  set: string;
  slots: string[];
  photos: { file: string }[];
}

let server: TestServer;
let scenario: Listed;
beforeEach(async () => {
  scenario = JSON.parse(await readFile(join(DEMO, 'scenario.json'), 'utf8')) as Listed;
  server = await testServer();
  await SiteModel.destroy({ where: {} });
  server.parts.preparer.close();
});
afterEach(() => server.close());

async function demoSet() {
  const sets = await SetModel.findAll();
  expect(sets).toHaveLength(1);
  return server.state(sets[0]!.id);
}

describe('the demo', () => {
  test('shows photos in different states of readiness, with nothing to undo', async () => {
    await seedDemo(server.parts, { unasked: true });
    const { site, set, rows, edits, refusals } = await demoSet();
    expect([site.name, set.name, rows.length, refusals.length]).toEqual([scenario.site, scenario.set, 14, 0]);
    expect(edits).toMatchObject({ undo: 0, redo: 0 });
    expect(rows.map((row) => row.fileName)).toEqual(scenario.photos.map(({ file }) => basename(file)));
    const found = new Set<Concern['code']>(
      rows.flatMap((row) => concernsOf(row, set.slots, site, row.sameAs).map((c) => c.code)),
    );
    for (const code of [
      'focal-guess',
      'missing',
      'no-role',
      'file-name',
      'placeholder',
      'opens-with-image',
      'too-small',
    ] as const) {
      expect(found).toContain(code);
    }
  });
  test('is not unpacked twice, nor over what somebody has', async () => {
    await seedDemo(server.parts, { unasked: true });
    await seedDemo(server.parts, { unasked: true });
    expect((await demoSet()).rows).toHaveLength(14);
    await SiteModel.destroy({ where: {} });
    await makeSite('Somebody’s site');
    await seedDemo(server.parts, { unasked: true });
    expect(await SetModel.count()).toBe(0);
  });
  test('goes on where a start was cut off', async () => {
    const site = await makeSite(scenario.site);
    const set = await SetModel.create({
      siteId: site.id,
      name: scenario.set,
      version: 0,
    });
    const { file } = scenario.photos[0]!;
    const stream = createReadStream(join(DEMO, file));
    await server.parts.takeIn.add(set.id, { fileName: basename(file), stream });
    await seedDemo(server.parts, { unasked: true });
    const { rows } = await demoSet();
    expect(rows).toHaveLength(14);
    expect(rows.find((row) => row.fileName === basename(file))!.words.title).toBe('Bay at dusk');
  });
});
