// From one site with five fixed places to sites with places of their own: 004. What was decided before is carried over.
import type { Placement } from '@dusky-otter/core/contract';
import { positions, touchedBy, type Command } from '@dusky-otter/core/edits';
import { DEFAULT_DEVICES } from '@dusky-otter/core/slots';
import { QueryTypes, type QueryInterface } from 'sequelize';
import { PLACES_OF_004 } from './places-004.ts';

/** What decisions looked like before. */
type OldCommand = Record<string, unknown> & { kind: string };
interface OldSet {
  id: number;
  site_id: number;
  slots: string | null;
}
interface OldMembership {
  set_id: number;
  photo_id: number;
  position: number;
  slots: string | null;
}

const BATCH = 500;
const ASCII = 'CHARACTER SET ascii COLLATE ascii_bin';
const bare = (slot: string): Placement => ({ slot, link: '', words: {}, crops: {} });

/** An old list of places, whatever an earlier version let through for one. */
function listOf(text: string | null): string[] | null {
  try {
    const list: unknown = JSON.parse(text ?? 'null');
    return Array.isArray(list) ? list.filter((one): one is string => typeof one === 'string') : null;
  } catch {
    return null;
  }
}

/**
 * A command of an earlier version as those of this one. A whole order becomes a place for each photo that it names:
 * of the keys that these photos have, each gets the one that is its turn.
 */
export function carriedOver(old: OldCommand, keyOf: ReadonlyMap<number, string>): Command[] {
  if (old.kind === 'slots') {
    const slots = old.slots as string[] | null;
    return [
      { kind: 'placements', photo: old.photo as number, placements: slots && [...new Set(slots)].map(bare) },
    ];
  }
  if (old.kind === 'words') return [{ ...old, language: 'en' } as unknown as Command];
  if (old.kind !== 'set') return [old as unknown as Command];
  const { order, policy, ...change } = old.change as Record<string, unknown> & {
    order?: number[] | null;
    policy?: object | null;
  };
  const commands: Command[] = [];
  const ids = [...new Set(order ?? [])].filter((id) => keyOf.has(id));
  const keys = ids.map((id) => keyOf.get(id)!).sort();
  ids.forEach((photo, at) => commands.push({ kind: 'position', photo, position: keys[at]! }));
  if (policy) commands.push({ kind: 'site', change: { policy } } as Command);
  if (Object.values(change).some((value) => value !== null && value !== undefined))
    commands.push({ kind: 'set', change });
  return commands;
}

const TABLES = [
  `CREATE TABLE IF NOT EXISTS places (
    site_id INT UNSIGNED NOT NULL, slot VARCHAR(40) ${ASCII} NOT NULL, \`rank\` INT UNSIGNED NOT NULL,
    value LONGTEXT, version INT UNSIGNED NOT NULL, PRIMARY KEY (site_id, slot),
    FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS arrangements (
    id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, site_id INT UNSIGNED NOT NULL, set_id INT UNSIGNED NULL,
    short_name VARCHAR(80) ${ASCII} NOT NULL, title VARCHAR(200) NOT NULL, kind VARCHAR(20) ${ASCII} NOT NULL,
    options LONGTEXT, \`open\` TINYINT(1) NOT NULL DEFAULT 0, version INT UNSIGNED NOT NULL,
    UNIQUE (site_id, short_name), FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE,
    FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS placements (
    id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, arrangement_id INT UNSIGNED NOT NULL,
    photo_id INT UNSIGNED NOT NULL, position VARCHAR(200) ${ASCII} NULL, link VARCHAR(2000) NOT NULL,
    words LONGTEXT, crops LONGTEXT, INDEX (photo_id),
    FOREIGN KEY (arrangement_id) REFERENCES arrangements (id) ON DELETE CASCADE,
    FOREIGN KEY (photo_id) REFERENCES photos (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS photo_words (
    photo_id INT UNSIGNED NOT NULL, language VARCHAR(35) ${ASCII} NOT NULL, role VARCHAR(20) ${ASCII} NULL,
    alt TEXT NOT NULL, caption TEXT NOT NULL, title TEXT NOT NULL, credit TEXT NOT NULL,
    long_description TEXT NOT NULL, PRIMARY KEY (photo_id, language),
    FOREIGN KEY (photo_id) REFERENCES photos (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS touches (
    edit_id INT UNSIGNED NOT NULL, entity VARCHAR(8) ${ASCII} NOT NULL, entity_id INT UNSIGNED NOT NULL,
    part VARCHAR(120) ${ASCII} NOT NULL, version INT UNSIGNED NOT NULL, window_id VARCHAR(64) ${ASCII} NOT NULL,
    PRIMARY KEY (edit_id, entity, entity_id, part), INDEX touches_of (entity, entity_id, version),
    FOREIGN KEY (edit_id) REFERENCES edits (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
];

const COLUMNS: Record<string, Record<string, string>> = {
  sites: {
    address: `VARCHAR(500) NOT NULL DEFAULT ''`,
    languages: 'LONGTEXT',
    devices: 'LONGTEXT',
    away: 'TINYINT(1) NOT NULL DEFAULT 0',
    version: 'INT UNSIGNED NOT NULL DEFAULT 1',
  },
  sets: { away: 'TINYINT(1) NOT NULL DEFAULT 0', worked_at: 'DATETIME(3) NULL' },
  photos: { frame: 'LONGTEXT', quality: 'LONGTEXT' },
  memberships: { follows: 'TINYINT(1) NOT NULL DEFAULT 1' },
  edits: {
    token: `VARCHAR(64) ${ASCII} NULL UNIQUE`,
    window_id: `VARCHAR(64) ${ASCII} NOT NULL DEFAULT ''`,
    undone_window: `VARCHAR(64) ${ASCII} NULL`,
  },
};

type Run = (sql: string, replacements?: unknown[]) => Promise<unknown>;
type Ask = <T extends object>(sql: string, replacements?: unknown[]) => Promise<T[]>;

async function addColumns(tables: QueryInterface, run: Run): Promise<void> {
  for (const [table, columns] of Object.entries(COLUMNS)) {
    const present = await tables.describeTable(table);
    for (const [name, type] of Object.entries(columns))
      if (!present[name]) await run(`ALTER TABLE ${table} ADD COLUMN \`${name}\` ${type}`);
  }
}

/** Rows in parts, so that a large table never stands in one statement. */
async function insert(run: Run, head: string, rows: readonly unknown[][]): Promise<void> {
  for (let at = 0; at < rows.length; at += BATCH) {
    const part = rows.slice(at, at + BATCH);
    const marks = part.map((row) => `(${row.map(() => '?').join()})`).join();
    await run(`INSERT IGNORE INTO ${head} VALUES ${marks}`, part.flat());
  }
}

async function carrySites(run: Run, ask: Ask): Promise<void> {
  await run(`UPDATE sites SET languages = COALESCE(languages, '["en"]'), devices = COALESCE(devices, ?)`, [
    JSON.stringify(DEFAULT_DEVICES),
  ]);
  const sites = await ask<{ id: number }>('SELECT id FROM sites');
  await insert(
    run,
    'places (site_id, slot, `rank`, value, version)',
    sites.flatMap(({ id }) =>
      PLACES_OF_004.map((slot, rank) => [id, slot.id, rank, JSON.stringify(slot), 1]),
    ),
  );
}

/** The list of a set for a place is made where there is none. @returns its id */
async function listFor(run: Run, ask: Ask, set: OldSet, slot: string): Promise<number> {
  const shortName = `set-${set.id}-${slot}`;
  await run(
    `INSERT IGNORE INTO arrangements (site_id, set_id, short_name, title, kind, options, \`open\`, version)
     VALUES (?, ?, ?, ?, 'list', ?, 0, 1)`,
    [set.site_id, set.id, shortName, slot, JSON.stringify({ slot })],
  );
  const [found] = await ask<{ id: number }>(
    'SELECT id FROM arrangements WHERE site_id = ? AND short_name = ?',
    [set.site_id, shortName],
  );
  return found!.id;
}

/** A set's places become open lists, photos with places of their own get spots there, and its order becomes keys. */
async function carrySet(run: Run, ask: Ask, set: OldSet): Promise<Map<number, string>> {
  for (const slot of new Set(listOf(set.slots) ?? [])) {
    const id = await listFor(run, ask, set, slot);
    await run('UPDATE arrangements SET `open` = 1 WHERE id = ?', [id]);
  }
  const members = await ask<OldMembership>(
    'SELECT set_id, photo_id, position, slots FROM memberships WHERE set_id = ? ORDER BY position, photo_id',
    [set.id],
  );
  const keys = positions(members.length);
  const keyOf = new Map(members.map(({ photo_id: id }, at) => [id, keys[at]!]));
  for (const { photo_id: id, slots } of members) {
    const own = listOf(slots);
    await run('UPDATE memberships SET place = ?, follows = ? WHERE set_id = ? AND photo_id = ?', [
      keyOf.get(id),
      own === null ? 1 : 0,
      set.id,
      id,
    ]);
    for (const slot of new Set(own ?? [])) {
      const list = await listFor(run, ask, set, slot);
      await run(
        `INSERT INTO placements (arrangement_id, photo_id, position, link, words, crops)
         SELECT ?, ?, NULL, '', '{}', '{}' FROM DUAL
         WHERE NOT EXISTS (SELECT 1 FROM placements WHERE arrangement_id = ? AND photo_id = ?)`,
        [list, id, list, id],
      );
    }
  }
  return keyOf;
}

async function carryHistory(
  run: Run,
  ask: Ask,
  set: OldSet,
  keyOf: ReadonlyMap<number, string>,
): Promise<void> {
  type OldEdit = { id: number; commands: string; inverse: string };
  const edits = await ask<OldEdit>('SELECT id, commands, inverse FROM edits WHERE set_id = ?', [set.id]);
  for (const { id, commands, inverse } of edits) {
    const carry = (text: string): Command[] =>
      (JSON.parse(text) as OldCommand[]).flatMap((command) => carriedOver(command, keyOf));
    let done: Command[];
    let back: Command[];
    try {
      [done, back] = [carry(commands), carry(inverse)];
    } catch {
      // An edit that can't be read can't be taken back; what it did stays.
      await run('DELETE FROM edits WHERE id = ?', [id]);
      continue;
    }
    await run('UPDATE edits SET commands = ?, inverse = ? WHERE id = ?', [
      JSON.stringify(done),
      JSON.stringify(back),
      id,
    ]);
    await insert(
      run,
      'touches (edit_id, entity, entity_id, part, version, window_id)',
      touchedBy(done, { set: set.id, site: set.site_id }).map((touched) => [
        id,
        touched.entity,
        touched.id,
        touched.part.slice(0, 120),
        0,
        '',
      ]),
    );
  }
}

const parsed = (text: string | null): object => {
  const value: unknown = JSON.parse(text ?? '');
  if (typeof value !== 'object' || value === null) throw new TypeError('This is no object.');
  return value;
};

interface OldPhoto {
  id: number;
  focal: string | null;
  crops: string | null;
  words: string | null;
}

/** What can't be read stays what it was, in one piece, and so can't be read any more than before. */
function frameOf({ focal, crops, words }: OldPhoto): string {
  try {
    parsed(words);
    return JSON.stringify({
      mirrored: false,
      turns: 0,
      angle: 0,
      focal: parsed(focal),
      crops: parsed(crops),
    });
  } catch {
    return `unreadable ${JSON.stringify([focal, crops, words])}`;
  }
}

function wordsOf({ id, words }: OldPhoto): unknown[] {
  let said: Record<string, unknown> = {};
  try {
    said = parsed(words) as Record<string, unknown>;
  } catch {
    // Its frame says that it can't be read.
  }
  const text = (field: string) => (typeof said[field] === 'string' ? said[field] : '');
  const role = text('role') || null;
  return [id, 'en', role, ...['alt', 'caption', 'title', 'credit', 'longDescription'].map(text)];
}

async function carryPhotos(run: Run, ask: Ask): Promise<void> {
  for (let last = 0; ;) {
    const photos = await ask<OldPhoto>(
      'SELECT id, focal, crops, words FROM photos WHERE id > ? ORDER BY id LIMIT ?',
      [last, BATCH],
    );
    if (photos.length === 0) return;
    for (const photo of photos)
      await run(`UPDATE photos SET quality = '{}', frame = ? WHERE id = ?`, [frameOf(photo), photo.id]);
    const head = 'photo_words (photo_id, language, role, alt, caption, title, credit, long_description)';
    await insert(run, head, photos.map(wordsOf));
    last = photos.at(-1)!.id;
  }
}

/** Every step may be done again: a start that was killed in between begins it anew. */
export async function modelOfSites(tables: QueryInterface): Promise<void> {
  const run: Run = (sql, replacements = []) => tables.sequelize.query(sql, { replacements });
  const ask: Ask = (sql, replacements = []) =>
    tables.sequelize.query(sql, { replacements, type: QueryTypes.SELECT });
  for (const sql of TABLES) await run(sql);
  await addColumns(tables, run);
  await carrySites(run, ask);
  const sets = await tables.describeTable('sets');
  const memberships = await tables.describeTable('memberships');
  const photos = await tables.describeTable('photos');
  if (sets.slots && memberships.slots) {
    // The key of the new order; it takes the old one's name when everything is carried over.
    if (!memberships.place) await run(`ALTER TABLE memberships ADD COLUMN place VARCHAR(200) ${ASCII} NULL`);
    for (const set of await ask<OldSet>('SELECT id, site_id, slots FROM sets')) {
      const keyOf = await carrySet(run, ask, set);
      await carryHistory(run, ask, set, keyOf);
    }
    await run(`UPDATE edits SET undone_window = '' WHERE undone = 1 AND undone_window IS NULL`);
    await run(`UPDATE sets SET worked_at = (SELECT MAX(updated_at) FROM edits WHERE edits.set_id = sets.id)
      WHERE worked_at IS NULL`);
  }
  if (photos.words) await carryPhotos(run, ask);
  // What was carried over goes last, each by itself: until then everything above can be done again.
  if (memberships.slots) {
    await run('ALTER TABLE memberships DROP COLUMN slots, DROP COLUMN position');
  }
  const left = await tables.describeTable('memberships');
  if (left.place) await run(`ALTER TABLE memberships CHANGE place position VARCHAR(200) ${ASCII} NOT NULL`);
  if (sets.slots) await run('ALTER TABLE sets DROP COLUMN slots');
  if (photos.words) await run('ALTER TABLE photos DROP COLUMN focal, DROP COLUMN crops, DROP COLUMN words');
  const indexes = (await tables.showIndex('memberships')) as { name: string }[];
  if (!indexes.some(({ name }) => name === 'memberships_in_order'))
    await run('ALTER TABLE memberships ADD INDEX memberships_in_order (set_id, position)');
}
