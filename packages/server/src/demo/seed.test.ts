// The demo: whole after one start, and after a start that was cut off.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';

import { pageProblem } from '@dusky-otter/core/page';
import { openIn, placesOn, slotsOf } from '@dusky-otter/core/plan';
import { concernsOf, type Concern } from '@dusky-otter/core/readiness';
import { SetModel } from '../database/models.ts';
import { SiteModel } from '../database/site-models.ts';
import { makeSite } from '../changes/sites.ts';
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
beforeAll(async () => {
  scenario = JSON.parse(await readFile(join(DEMO, 'scenario.json'), 'utf8')) as Listed;
});

/** A server with nothing in it that makes no files. */
async function emptyServer(): Promise<void> {
  server = await testServer();
  await SiteModel.destroy({ where: {} });
  server.parts.preparer.close();
}

/** The set that the application is learnt on; those of the site's pages are there, too, each once. */
async function demoSet() {
  const sets = await SetModel.findAll({ order: [['id', 'ASC']] });
  const { sets: pages } = JSON.parse(await readFile(join(DEMO, 'pages.json'), 'utf8')) as {
    sets: { name: string }[];
  };
  const names = sets.map(({ name }) => name);
  expect([...names].sort()).toEqual([scenario.set, ...pages.map(({ name }) => name)].sort());
  return server.state(sets.find(({ name }) => name === scenario.set)!.id);
}

describe('the demo, once it is unpacked', () => {
  beforeAll(async () => {
    await emptyServer();
    await seedDemo(server.parts, { unasked: true });
  });
  afterAll(() => server.close());

  test('shows photos in different states of readiness, with nothing to undo', async () => {
    const { site, set, rows, edits, refusals } = await demoSet();
    expect([site.name, set.name, rows.length, refusals.length]).toEqual([scenario.site, scenario.set, 14, 0]);
    expect(edits).toMatchObject({ undo: 0, redo: 0 });
    expect(rows.map((row) => row.fileName)).toEqual(scenario.photos.map(({ file }) => basename(file)));
    const found = new Set<Concern['code']>(
      rows.flatMap((row) => concernsOf(row, openIn(...set.slots), site, row.sameAs).map((c) => c.code)),
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
  test('has pages that lack nothing: every place is there, every photo has its words, every link its page', async () => {
    const sets = await SetModel.findAll({ order: [['id', 'ASC']] });
    const folders = sets.flatMap(({ page }) => (page ? [page.folder] : []));
    expect(folders).toEqual(['home', 'shop', 'kiln-diary', 'galleries']);
    for (const { id, page } of sets) {
      if (!page) continue;
      const { site, set, rows } = await server.state(id);
      expect(pageProblem(page)).toBeNull();
      for (const slot of placesOn(page))
        expect(
          rows.filter((row) => slotsOf(row, openIn(...set.slots)).includes(slot)).length,
        ).toBeGreaterThan(0);
      for (const row of rows) {
        // Files are still to be made; all that an editor says is said.
        const open = concernsOf(row, openIn(...set.slots), site, row.sameAs).filter(
          ({ stop }) => stop !== 'weigh',
        );
        expect([row.fileName, open]).toEqual([row.fileName, []]);
      }
      const html = (await server.app.inject(`/preview/${id}/`)).payload;
      for (const [, folder] of JSON.stringify([page, rows]).matchAll(/"\.\.\/([a-z-]+)\/"/g))
        expect(folders).toContain(folder);
      expect(html).toContain(`<h1>${page.title}</h1>`);
    }
  });
  test('is not unpacked twice', async () => {
    await seedDemo(server.parts, { unasked: true });
    expect((await demoSet()).rows).toHaveLength(14);
  });
  test('goes on with the pages that a start did not come to', async () => {
    const shop = (await SetModel.findOne({ where: { name: 'Shop' } }))!;
    await shop.update({ version: 0, page: null });
    await seedDemo(server.parts, { unasked: false });
    const again = (await SetModel.findByPk(shop.id))!;
    expect([again.page?.folder, again.version]).toEqual(['shop', 1]);
    await demoSet();
  });
});

describe('the demo, where something is there', () => {
  beforeAll(emptyServer);
  afterAll(() => server.close());

  test('is not unpacked over what somebody has', async () => {
    await makeSite(server.parts.changes, 'Somebody’s site');
    await seedDemo(server.parts, { unasked: true });
    expect(await SetModel.count()).toBe(0);
    await SiteModel.destroy({ where: {} });
  });
  test('goes on where a start was cut off', async () => {
    const siteId = await makeSite(server.parts.changes, scenario.site);
    const set = await SetModel.create({ siteId, name: scenario.set, version: 0 });
    const { file } = scenario.photos[0]!;
    const stream = createReadStream(join(DEMO, file));
    await server.parts.takeIn.add(set.id, { fileName: basename(file), stream });
    await seedDemo(server.parts, { unasked: true });
    const { rows } = await demoSet();
    expect(rows).toHaveLength(14);
    expect(rows.find((row) => row.fileName === basename(file))!.words.title).toBe('Bay at dusk');
  });
});
