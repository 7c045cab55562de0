// The steps from an empty database to today's tables. They only go forward; a step that has landed is never edited.
import { DataTypes, type QueryInterface } from 'sequelize';
import { modelOfSites } from './migration-model.ts';
import { oneDoor } from './migration-one-door.ts';

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

/**
 * Names are compared byte by byte, files know since when nobody wants them, views have their hashes, names that went
 * out belong to their photo. Nulls that an earlier version took for decisions become what they were before.
 */
const soundness: Migration = {
  name: '003-soundness',
  async up(tables) {
    const run = (sql: string) => tables.sequelize.query(sql);
    const BINARY = 'VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL';
    await run(`ALTER TABLE photos MODIFY file_name ${BINARY}`);
    await run(`ALTER TABLE refusals MODIFY file_name ${BINARY}`);
    const variants = await tables.describeTable('variants');
    if (!variants.wanted_until) {
      await tables.addColumn('variants', 'wanted_until', { type: DataTypes.DATE(3), allowNull: true });
    }
    const originals = await tables.describeTable('originals');
    if (!originals.views) await tables.addColumn('originals', 'views', json());
    await run(`CREATE TABLE IF NOT EXISTS published_names (
      set_id INT UNSIGNED NOT NULL,
      name VARCHAR(100) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      photo_id INT UNSIGNED NOT NULL,
      PRIMARY KEY (set_id, name),
      FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE
    ) CHARACTER SET utf8mb4`);
    await run(`UPDATE originals SET facts = JSON_SET(facts, '$.damage', NULL)
      WHERE JSON_VALID(facts) AND JSON_EXISTS(facts, '$.damage') = 0`);
    const sets = await tables.describeTable('sets');
    if (!sets.arranged) {
      for (const name of ['arranged', 'rehearsed', 'handed_over'])
        await tables.addColumn('sets', name, flag());
      // Sets that were worked on before have the places that their editors saw.
      await run('UPDATE sets SET arranged = 1');
    }
    await run(`UPDATE sets SET slots = '[]' WHERE slots IS NULL OR slots = 'null'`);
    for (const field of ['alt', 'caption', 'title', 'credit', 'longDescription']) {
      await run(`UPDATE photos SET words = JSON_SET(words, '$.${field}', '')
        WHERE JSON_VALID(words) AND JSON_TYPE(JSON_EXTRACT(words, '$.${field}')) = 'NULL'`);
    }
  },
};

/** Sites with places of their own, frames, arrangements, words by language, edits that know what they touched. */
const modelOfSitesStep: Migration = { name: '004-model-of-sites', up: modelOfSites };

/** Another original may take a photo's place; those before it stay. */
const replacements: Migration = {
  name: '005-replacements',
  async up(tables) {
    const run = (sql: string) => tables.sequelize.query(sql);
    const photos = await tables.describeTable('photos');
    if (!photos.to_read) await tables.addColumn('photos', 'to_read', flag());
    const HASH = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
    const OF_PHOTO = 'FOREIGN KEY (photo_id) REFERENCES photos (id) ON DELETE CASCADE';
    const OF_ORIGINAL = 'FOREIGN KEY (hash) REFERENCES originals (hash) ON DELETE CASCADE';
    await run(`CREATE TABLE IF NOT EXISTS earlier_originals (
      photo_id INT UNSIGNED NOT NULL, hash ${HASH}, PRIMARY KEY (photo_id, hash), ${OF_PHOTO}, ${OF_ORIGINAL}
    ) CHARACTER SET utf8mb4`);
    await run(`CREATE TABLE IF NOT EXISTS offers (
      id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      set_id INT UNSIGNED NOT NULL, photo_id INT UNSIGNED NOT NULL, hash ${HASH},
      file_name VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
      UNIQUE KEY offers_once_a_set (set_id, photo_id, hash),
      FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE, ${OF_PHOTO}, ${OF_ORIGINAL}
    ) CHARACTER SET utf8mb4`);
  },
};

/** Thorough files stand in the place of quick ones. */
const thoroughFiles: Migration = {
  name: '006-thorough-files',
  async up(tables) {
    const variants = await tables.describeTable('variants');
    if (!variants.instead_of)
      await tables.addColumn('variants', 'instead_of', { type: DataTypes.CHAR(64), allowNull: true });
  },
};

/** Words say where a functional photo leads, and which findings of the checks are kept on purpose. */
const targetsAndNotes: Migration = {
  name: '007-targets-and-notes',
  async up(tables) {
    const words = await tables.describeTable('photo_words');
    if (!words.link)
      await tables.addColumn('photo_words', 'link', {
        type: DataTypes.STRING(2000),
        allowNull: false,
        defaultValue: '',
      });
    if (!words.new_window) await tables.addColumn('photo_words', 'new_window', flag());
    if (!words.kept) await tables.addColumn('photo_words', 'kept', json());
  },
};

/** Words that originals show are kept beside their facts. */
const shownWords: Migration = {
  name: '008-shown-words',
  async up(tables) {
    const originals = await tables.describeTable('originals');
    if (!originals.shows) await tables.addColumn('originals', 'shows', json());
  },
};

/** Tables may name files that are still to come. */
const plans: Migration = {
  name: '009-plans',
  async up(tables) {
    const NAME = 'VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL';
    await tables.sequelize.query(`CREATE TABLE IF NOT EXISTS planned_words (
      id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      set_id INT UNSIGNED NOT NULL, file_name ${NAME}, name ${NAME},
      hash VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
      words LONGTEXT, places LONGTEXT,
      UNIQUE KEY planned_once (set_id, name, hash),
      FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE
    ) CHARACTER SET utf8mb4`);
  },
};

/** Sets have pages; short names of arrangements that are gone are remembered. */
const pages: Migration = {
  name: '010-pages',
  async up(tables) {
    const sets = await tables.describeTable('sets');
    if (!sets.page) await tables.addColumn('sets', 'page', json());
    const sites = await tables.describeTable('sites');
    if (!sites.retired) await tables.addColumn('sites', 'retired', json());
  },
};

/** Acts that were carried out are known by their tokens; what still belongs to something is never deleted along. */
const oneDoorStep: Migration = { name: '011-one-door', up: oneDoor };

/** What a photo says in one place alone is said in the site's further languages, too; films have captions. */
const wordsHere: Migration = {
  name: '012-words-here',
  async up(tables) {
    const placements = await tables.describeTable('photo_placements');
    for (const name of ['others', 'captions'])
      if (!placements[name]) await tables.addColumn('photo_placements', name, json());
    const planned = await tables.describeTable('planned_words');
    if (!planned.others) await tables.addColumn('planned_words', 'others', json());
  },
};

/** Arrangements may stand on every page of a site. */
const everyPage: Migration = {
  name: '013-every-page',
  async up(tables) {
    const sites = await tables.describeTable('sites');
    if (!sites.everywhere) await tables.addColumn('sites', 'everywhere', json());
  },
};

/** A site keeps words that it wants to be found by. */
const siteTerms: Migration = {
  name: '014-terms',
  async up(tables) {
    const sites = await tables.describeTable('sites');
    if (!sites.terms) await tables.addColumn('sites', 'terms', json());
  },
};

export const MIGRATIONS: readonly Migration[] = [
  firstTables,
  searchedQuality,
  soundness,
  modelOfSitesStep,
  replacements,
  thoroughFiles,
  targetsAndNotes,
  shownWords,
  plans,
  pages,
  oneDoorStep,
  wordsHere,
  everyPage,
  siteTerms,
];
