// A database of an earlier version comes forward with everything in it.
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { Sequelize } from 'sequelize';
import { ownDatabase } from '../testing/database.ts';
import { connect } from './connect.ts';
import { MIGRATIONS } from './migrations.ts';
import { OriginalModel, PhotoModel, SetModel, SiteModel, VariantModel } from './models.ts';

let url: string;
let drop: () => Promise<void>;
beforeEach(async () => {
  ({ url, drop } = await ownDatabase());
});
afterEach(() => drop());

const HASH = 'ab'.repeat(32);

/** As the first version left it: a site without a target, an original and a variant without what is measured now. */
async function firstVersion(): Promise<void> {
  const old = new Sequelize(url, { dialect: 'mariadb', logging: false });
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

test('going forward twice changes nothing more', async () => {
  await firstVersion();
  await (await connect(url)).close();
  const again = await connect(url);
  await SiteModel.update({ policy: { modern: 'avif', target: 'lean' } }, { where: { id: 1 } });
  for (const { up } of MIGRATIONS.slice(1)) await up(again.getQueryInterface());
  expect((await SiteModel.findOne())!.policy).toEqual({ modern: 'avif', target: 'lean' });
  await again.close();
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
  const old = new Sequelize(url, { dialect: 'mariadb', logging: false });
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
  expect(
    (await SetModel.findAll({ order: [['id', 'ASC']] })).map(({ slots, arranged }) => [slots, arranged]),
  ).toEqual([
    [[], true],
    [['hero'], true],
  ]);
  expect((await PhotoModel.findOne())!.words).toEqual({
    role: null,
    alt: '',
    caption: 'Kept',
    title: '',
    credit: '',
    longDescription: '',
  });
  expect(await PhotoModel.count({ where: { fileName: 'resume.jpg' } })).toBe(0);
  expect(await PhotoModel.count({ where: { fileName: 'résumé.jpg' } })).toBe(1);
  await now.close();
});
