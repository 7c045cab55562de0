// A database of an earlier version comes forward with everything in it.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Frame, Photo, Policy } from '@dusky-otter/core/contract';
import { formerSettings, openIn, planPhoto, variantKey } from '@dusky-otter/core/plan';
import { ownDatabase } from '../testing/database.ts';
import { connect, openDatabase } from './connect.ts';
import { Changes } from '../changes/changes.ts';
import { Edits } from '../changes/edits.ts';
import { readSetPlaces } from '../store/sets.ts';
import { loadPhotos } from '../store/photos.ts';
import { depthOf, newestEdit } from '../store/sets.ts';
import { SiteCache } from '../store/site-cache.ts';
import { MIGRATIONS } from './migrations.ts';
import { EditModel, OriginalModel, PhotoModel, SetModel, TouchModel, VariantModel } from './models.ts';
import { SiteModel } from './site-models.ts';
import { PhotoWordsModel } from './words-models.ts';

let url: string;
let drop: () => Promise<void>;
beforeEach(async () => {
  ({ url, drop } = await ownDatabase());
});
afterEach(() => drop());

const HASH = 'ab'.repeat(32);

/** As the first version left it: a site without a target, an original and a variant without what is measured now. */
async function firstVersion(): Promise<void> {
  const old = openDatabase(url);
  await MIGRATIONS[0]!.up(old.getQueryInterface());
  await old.query('CREATE TABLE migrations (name VARCHAR(255) NOT NULL PRIMARY KEY)');
  await old.query(`INSERT INTO migrations (name) VALUES ('${MIGRATIONS[0]!.name}')`);
  await old.query(`INSERT INTO sites (id, name, policy) VALUES (1, 'Gullmoor', '{"modern":"webp"}')`);
  await old.query(`INSERT INTO originals (hash, facts) VALUES ('${HASH}', '{"format":"png","width":30}')`);
  await old.query(
    `INSERT INTO variants (variant_key, original_hash, format, bytes, content_hash) VALUES ('${HASH}', '${HASH}', 'webp', 9, '${HASH}')`,
  );
  await old.close();
}

test('the first version’s data has what later ones need, and nothing is lost', async () => {
  await firstVersion();
  const now = await connect(url);
  expect((await SiteModel.findOne())!.policy).toEqual({ modern: 'webp', target: 'clean' });
  expect((await OriginalModel.findOne())!.facts).toEqual({
    format: 'png',
    width: 30,
    content: null,
    damage: null,
  });
  const variant = (await VariantModel.findOne())!;
  expect([variant.bytes, variant.quality, variant.difference]).toEqual([9, null, null]);
  await now.close();
});

test('a step that was cut off just before its end may be taken again', async () => {
  await firstVersion();
  const old = openDatabase(url);
  for (const { name, up } of MIGRATIONS.slice(1)) {
    await up(old.getQueryInterface());
    await up(old.getQueryInterface());
    await old.query(`INSERT INTO migrations (name) VALUES ('${name}')`);
  }
  await old.close();
  const now = await connect(url);
  expect((await SiteModel.findOne())!.policy).toEqual({ modern: 'webp', target: 'clean' });
  await now.close();
});

test('a difference comes back as the number that was stored', async () => {
  const now = await connect(url);
  await OriginalModel.create({ hash: HASH, facts: {} });
  for (const difference of [1.934, 0, 0.001, 12.345]) {
    const row = { key: HASH, originalHash: HASH, format: 'avif', bytes: 1, contentHash: HASH, quality: 51 };
    await VariantModel.upsert({ ...row, difference });
    expect((await VariantModel.findOne())!.difference).toBe(difference);
  }
  await now.close();
});

test('what an earlier version took for decisions becomes what it was; names are compared byte by byte', async () => {
  const old = openDatabase(url);
  const tables = old.getQueryInterface();
  for (const { up } of MIGRATIONS.slice(0, 2)) await up(tables);
  await old.query('CREATE TABLE migrations (name VARCHAR(255) NOT NULL PRIMARY KEY)');
  for (const { name } of MIGRATIONS.slice(0, 2))
    await old.query(`INSERT INTO migrations (name) VALUES ('${name}')`);
  await old.query(
    `INSERT INTO sites (id, name, policy) VALUES (1, 'Gullmoor', '{"modern":"webp","target":"clean"}')`,
  );
  await old.query(
    `INSERT INTO sets (id, site_id, name, slots, version) VALUES (1, 1, 'Nulls', 'null', 3), (2, 1, 'Sound', '["hero"]', 1)`,
  );
  await old.query(`INSERT INTO originals (hash, facts) VALUES ('${HASH}', '{"format":"png"}')`);
  await old.query(
    `INSERT INTO photos (id, site_id, original_hash, file_name, focal, crops, words, version) VALUES (1, 1, '${HASH}', 'résumé.jpg', '{}', '{}', '{"role":null,"alt":null,"caption":"Kept","title":null,"credit":"","longDescription":null}', 1)`,
  );
  await old.close();
  const now = await connect(url);
  expect((await SetModel.findAll({ order: [['id', 'ASC']] })).map(({ arranged }) => arranged)).toEqual([
    true,
    true,
  ]);
  expect([await readSetPlaces(1), await readSetPlaces(2)]).toEqual([openIn(), openIn('hero')]);
  expect(await PhotoWordsModel.findOne({ raw: true })).toEqual({
    photoId: 1,
    language: 'en',
    role: null,
    alt: '',
    caption: 'Kept',
    title: '',
    credit: '',
    longDescription: '',
    link: '',
    newWindow: 0,
    kept: null,
  });
  expect(await PhotoModel.count({ where: { fileName: 'resume.jpg' } })).toBe(0);
  expect(await PhotoModel.count({ where: { fileName: 'résumé.jpg' } })).toBe(1);
  await now.close();
});

/** A database that the version before the model of sites left behind: two sets that share a photo, with a history. */
interface Before {
  tables: Record<string, { create: string; rows: Record<string, unknown>[] }>;
  state: {
    order: number[];
    slots: string[];
    policy: Policy;
    rows: (Pick<Photo, 'id' | 'words' | 'binned' | 'version'> & {
      focal: Frame['focal'];
      crops: Frame['crops'];
      slots: string[] | null;
      keys: string[];
    })[];
  };
}

async function versionBefore(): Promise<Before['state']> {
  const path = join(import.meta.dirname, '../testing/database-003.json');
  const { tables, state } = JSON.parse(await readFile(path, 'utf8')) as Before;
  const old = openDatabase(url, { pool: { max: 1 } });
  await old.query('SET FOREIGN_KEY_CHECKS = 0');
  for (const [table, { create, rows }] of Object.entries(tables)) {
    await old.query(create);
    for (const row of rows) {
      const values = Object.values(row).map((value) =>
        typeof value === 'string' && /^\d{4}-\d\d-\d\dT/.test(value) ? new Date(value) : value,
      );
      const names = Object.keys(row).map((name) => `\`${name}\``);
      await old.query(`INSERT INTO \`${table}\` (${names.join()}) VALUES (${names.map(() => '?').join()})`, {
        replacements: values,
      });
    }
  }
  await old.close();
  return state;
}

describe('a database of the version before', () => {
  test('comes forward with its photos, places, order, words, policy and the very files it wants', async () => {
    const state = await versionBefore();
    const now = await connect(url);
    const site = await new SiteCache().get(1);
    expect([site.policy, site.languages, site.slots.length]).toEqual([state.policy, ['en'], 5]);
    const setPlaces = await readSetPlaces(1);
    expect(setPlaces.open).toEqual(state.slots);
    const photos = await loadPhotos(1, 'en');
    expect(photos.map(({ id }) => id)).toEqual(state.order);
    for (const before of state.rows) {
      const photo = photos.find(({ id }) => id === before.id)!;
      expect(photo).toMatchObject({
        words: before.words,
        binned: before.binned,
        version: before.version,
        frame: { mirrored: false, turns: 0, angle: 0, focal: before.focal, crops: before.crops },
        quality: {},
      });
      expect(photo.placements?.map(({ slot }) => slot).sort() ?? null).toEqual(
        before.slots && [...before.slots].sort(),
      );
      // But for the pipeline, whose second version it had, the same keys: nothing of what is wanted is another.
      const { hash, orientation } = photo.original;
      const turning = { mirrored: false, turns: 0, angle: 0 } as const;
      expect(
        planPhoto(photo, setPlaces, site)
          .map((planned) => {
            const settings = formerSettings(planned);
            return variantKey({ ...planned, settings, original: hash, orientation, turning }, 2);
          })
          .sort(),
      ).toEqual([...before.keys].sort());
    }
    expect((await loadPhotos(2, 'en')).map(({ id }) => id)).toEqual([
      state.rows.find((row) => row.slots?.length === 2)!.id,
    ]);
    await now.close();
  });
  test('its history can be taken back whole and done again, by whichever window comes first', async () => {
    await versionBefore();
    const now = await connect(url);
    const edits = new Edits(new Changes(now, new SiteCache(), () => Promise.resolve()));
    const looking = { window: 'a-new-window', since: await newestEdit(1) };
    const decided = async () => ({
      photos: await loadPhotos(1, 'en'),
      slots: (await readSetPlaces(1)).open,
      policy: (await SiteModel.findOne())!.policy,
    });
    const bare = async () => {
      const { photos, ...others } = await decided();
      return { ...others, photos: photos.map((photo) => ({ ...photo, version: 0 })) };
    };
    const before = await bare();
    const depth = await depthOf(1, looking);
    expect([depth.undo, depth.redo]).toEqual([8, 1]);
    for (let n = 0; n < depth.undo; n++) await edits.undo(1, looking);
    const first = await bare();
    expect(first.photos.map(({ id }) => id)).toEqual([1, 2, 3, 4, 5]);
    expect([first.slots, first.policy.modern]).toEqual([['column', 'grid'], 'avif']);
    expect(
      first.photos.every(
        ({ placements, binned, words }) => placements === null && !binned && words.alt === '',
      ),
    ).toBe(true);
    for (let n = 0; n < depth.undo; n++) await edits.redo(1, looking);
    expect(await bare()).toEqual(before);
    // The one that had been taken back before can be done again as well.
    await edits.redo(1, looking);
    expect((await bare()).photos.find(({ id }) => id === 5)!.words.role).toBe('decorative');
    await now.close();
  });
});

describe('a database from before there was one door', () => {
  /** As the tenth step left it, with a set whose lists are open and closed, and a photo with placements of its own. */
  async function tenthVersion(): Promise<void> {
    const old = openDatabase(url);
    for (const { up } of MIGRATIONS.slice(0, 10)) await up(old.getQueryInterface());
    await old.query('CREATE TABLE migrations (name VARCHAR(255) NOT NULL PRIMARY KEY)');
    for (const { name } of MIGRATIONS.slice(0, 10))
      await old.query('INSERT INTO migrations (name) VALUES (?)', { replacements: [name] });
    const facts = JSON.stringify({ hash: HASH, width: 4, height: 3 });
    const frame =
      '{"mirrored":false,"turns":0,"angle":0,"focal":{"x":0.5,"y":0.5,"confirmed":false},"crops":{}}';
    for (const sql of [
      `INSERT INTO sites (id, name, policy, languages, devices, away) VALUES (1, 'Pottery', '{}', '["en"]', '[]', 1)`,
      `INSERT INTO sets (id, site_id, name, version, away) VALUES (1, 1, 'Home', 3, 0)`,
      `INSERT INTO originals (hash, facts) VALUES ('${HASH}', '${facts}')`,
      `INSERT INTO photos (id, site_id, original_hash, file_name, frame, quality, version)
        VALUES (1, 1, '${HASH}', 'a.jpg', '${frame}', '{}', 1)`,
      `INSERT INTO memberships (set_id, photo_id, position, follows) VALUES (1, 1, 'a0', 0)`,
      ...['grid', 'hero', 'half'].map(
        (
          slot,
          n,
        ) => `INSERT INTO arrangements (id, site_id, set_id, short_name, title, kind, options, \`open\`, version)
          VALUES (${n + 1}, 1, 1, 'set-1-${slot}', '${slot}', 'list', '{"slot":"${slot}"}', ${n < 2 ? 1 : 0}, 1)`,
      ),
      `INSERT INTO placements (arrangement_id, photo_id, link, words, crops) VALUES
        (3, 1, '/shop', '{"alt":"Said \\\\"away\\\\": here"}', '{}'), (1, 1, '', '{}', '{}')`,
      `INSERT INTO edits (id, set_id, label, commands, inverse, who, window_id, created_at, updated_at) VALUES
        (1, 1, 'put away', '[{"kind":"set","change":{"away":true}}]', '[{"kind":"set","change":{"away":false}}]',
          'editor', 'w', NOW(), NOW())`,
      `INSERT INTO touches (edit_id, entity, entity_id, part, version, window_id) VALUES (1, 'set', 1, 'away', 1, 'w')`,
    ])
      await old.query(sql);
    await old.close();
  }

  test('keeps its places, placements, edits and what is put away; what is needed can’t be deleted', async () => {
    await tenthVersion();
    const now = await connect(url);
    expect(await readSetPlaces(1)).toEqual(openIn('grid', 'hero'));
    const [photo] = await loadPhotos(1, 'en');
    expect(photo!.placements).toEqual([
      { slot: 'half', link: '/shop', words: { alt: 'Said "away": here' }, crops: {} },
      { slot: 'grid', link: '', words: {}, crops: {} },
    ]);
    expect((await SiteModel.findByPk(1))!.archived).toBe(true);
    const edit = (await EditModel.findByPk(1))!;
    expect([edit.commands, edit.inverse]).toEqual([
      [{ kind: 'set', change: { archived: true } }],
      [{ kind: 'set', change: { archived: false } }],
    ]);
    expect((await TouchModel.findOne())!.part).toBe('archived');
    await expect(OriginalModel.destroy({ where: { hash: HASH } })).rejects.toThrow(/foreign key/i);
    await expect(PhotoModel.destroy({ where: { id: 1 } })).rejects.toThrow(/foreign key/i);
    await now.close();
  });
});
