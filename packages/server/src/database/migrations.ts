// The steps from an empty database to today's tables. They only go forward; a step that has landed is never edited.
import { DataTypes, type QueryInterface } from 'sequelize';

export interface Migration {
  name: string;
  up: (tables: QueryInterface) => Promise<void>;
}

// Functions, not constants: Sequelize writes into the column objects it is given.
const id = () => ({ type: DataTypes.INTEGER.UNSIGNED, autoIncrement: true, primaryKey: true });
const number = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
const hash = () => ({ type: 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin', allowNull: false });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const json = () => ({ type: DataTypes.TEXT('long'), allowNull: true });
const flag = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
const date = () => ({ type: DataTypes.DATE(3), allowNull: false });

const to = (table: string, key = 'id') => ({ references: { model: table, key }, onDelete: 'CASCADE' });

const firstTables: Migration = {
  name: '001-first-tables',
  async up(tables) {
    await tables.createTable('sites', { id: id(), name: text(200), policy: json() });
    await tables.createTable('sets', {
      id: id(),
      site_id: { ...number(), ...to('sites') },
      name: text(200),
      slots: json(),
      version: number(),
    });
    await tables.createTable('originals', { hash: { ...hash(), primaryKey: true }, facts: json() });
    await tables.createTable('photos', {
      id: id(),
      site_id: { ...number(), ...to('sites') },
      original_hash: { ...hash(), ...to('originals', 'hash') },
      file_name: text(255),
      focal: json(),
      crops: json(),
      words: json(),
      version: number(),
    });
    await tables.addIndex('photos', ['site_id', 'original_hash'], {
      unique: true,
      name: 'photos_once_a_site',
    });
    await tables.createTable('memberships', {
      set_id: { ...number(), primaryKey: true, ...to('sets') },
      photo_id: { ...number(), primaryKey: true, ...to('photos') },
      position: number(),
      slots: json(),
      binned: flag(),
    });
    await tables.createTable('variants', {
      variant_key: { ...hash(), primaryKey: true },
      original_hash: { ...hash(), ...to('originals', 'hash') },
      format: text(8),
      bytes: number(),
      content_hash: hash(),
    });
    await tables.createTable('edits', {
      id: id(),
      set_id: { ...number(), ...to('sets') },
      label: text(300),
      commands: json(),
      inverse: json(),
      who: text(100),
      undone: flag(),
      created_at: date(),
      updated_at: date(),
    });
    await tables.createTable('refusals', {
      id: id(),
      set_id: { ...number(), ...to('sets') },
      file_name: text(255),
      bytes: { type: DataTypes.BIGINT.UNSIGNED, allowNull: false },
      code: text(40),
      sentence: text(500),
    });
  },
};

/** Variants know how they came about, and sites have a visible target. */
const searchedQuality: Migration = {
  name: '002-searched-quality',
  async up(tables) {
    const columns = await tables.describeTable('variants');
    const wanted = { quality: DataTypes.INTEGER, difference: DataTypes.DOUBLE };
    for (const [name, type] of Object.entries(wanted)) {
      if (!columns[name]) await tables.addColumn('variants', name, { type, allowNull: true });
    }
    const run = (sql: string) => tables.sequelize.query(sql);
    await run(`UPDATE sites SET policy = JSON_SET(policy, '$.target', 'clean')
      WHERE JSON_EXTRACT(policy, '$.target') IS NULL`);
    await run(`UPDATE originals SET facts = JSON_SET(facts, '$.content', NULL)
      WHERE JSON_EXISTS(facts, '$.content') = 0`);
  },
};

export const MIGRATIONS: readonly Migration[] = [firstTables, searchedQuality];
