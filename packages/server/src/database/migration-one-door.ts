// 011: acts with tokens, sites and sets that are archived, placements that hang on a set's places, and foreign keys that hold what is still needed.
import { QueryTypes, type QueryInterface } from 'sequelize';

const ASCII = 'CHARACTER SET ascii COLLATE ascii_bin';

const TABLES = [
  `CREATE TABLE IF NOT EXISTS acts (
    token VARCHAR(64) ${ASCII} NOT NULL PRIMARY KEY, answer LONGTEXT, created_at DATETIME(3) NOT NULL,
    INDEX acts_by_age (created_at)) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS open_slots (
    set_id INT UNSIGNED NOT NULL, slot VARCHAR(40) ${ASCII} NOT NULL, \`rank\` INT UNSIGNED NOT NULL,
    PRIMARY KEY (set_id, slot), FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
  `CREATE TABLE IF NOT EXISTS photo_placements (
    set_id INT UNSIGNED NOT NULL, photo_id INT UNSIGNED NOT NULL, slot VARCHAR(40) ${ASCII} NOT NULL,
    \`rank\` INT UNSIGNED NOT NULL, link VARCHAR(2000) NOT NULL, words LONGTEXT, crops LONGTEXT,
    PRIMARY KEY (set_id, photo_id, slot), INDEX (photo_id),
    FOREIGN KEY (set_id) REFERENCES sets (id) ON DELETE CASCADE,
    FOREIGN KEY (photo_id) REFERENCES photos (id) ON DELETE CASCADE) CHARACTER SET utf8mb4`,
];

/** References whose end must not take with it what refers to it: table, column, and what is referred to. */
const HELD = [
  ['photos', 'original_hash', 'originals', 'hash'],
  ['earlier_originals', 'hash', 'originals', 'hash'],
  ['offers', 'hash', 'originals', 'hash'],
  ['variants', 'original_hash', 'originals', 'hash'],
  ['memberships', 'photo_id', 'photos', 'id'],
] as const;

/** Every step may be done again: a start that was killed in between begins it anew. */
export async function oneDoor(tables: QueryInterface): Promise<void> {
  const run = (sql: string, replacements: unknown[] = []) => tables.sequelize.query(sql, { replacements });
  const ask = <T extends object>(sql: string, replacements: unknown[]) =>
    tables.sequelize.query<T>(sql, { replacements, type: QueryTypes.SELECT });
  const isTable = async (name: string) =>
    (
      await ask(
        'SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = ?',
        [name],
      )
    ).length > 0;
  for (const sql of TABLES) await run(sql);
  if (await isTable('arrangements')) {
    await run(`INSERT IGNORE INTO open_slots (set_id, slot, \`rank\`)
      SELECT set_id, JSON_VALUE(options, '$.slot'), id FROM arrangements
      WHERE set_id IS NOT NULL AND kind = 'list' AND \`open\` = 1 AND JSON_VALUE(options, '$.slot') IS NOT NULL`);
    if (await isTable('placements'))
      await run(`INSERT IGNORE INTO photo_placements (set_id, photo_id, slot, \`rank\`, link, words, crops)
        SELECT a.set_id, p.photo_id, JSON_VALUE(a.options, '$.slot'), p.id, p.link, p.words, p.crops
        FROM placements p JOIN arrangements a ON a.id = p.arrangement_id
        WHERE a.set_id IS NOT NULL AND a.kind = 'list' AND JSON_VALUE(a.options, '$.slot') IS NOT NULL`);
    // They go last, what refers first: until then everything above can be done again.
    await run('DROP TABLE IF EXISTS placements');
    await run('DROP TABLE arrangements');
  }
  for (const table of ['sites', 'sets']) {
    const columns = await tables.describeTable(table);
    if (columns.away) await run(`ALTER TABLE ${table} CHANGE away archived TINYINT(1) NOT NULL DEFAULT 0`);
  }
  // Inside a text a quotation mark has a backslash before it: what has none is a key.
  for (const column of ['commands', 'inverse'])
    await run(`UPDATE edits SET ${column} = REPLACE(${column}, '"away":', '"archived":')
      WHERE ${column} LIKE '%"away":%'`);
  await run(`UPDATE touches SET part = 'archived' WHERE part = 'away' AND entity IN ('set', 'site')`);
  const variants = await tables.describeTable('variants');
  if (variants.wanted_until)
    await run('ALTER TABLE variants CHANGE wanted_until unwanted_since DATETIME(3) NULL');
  for (const [table, column, other, key] of HELD) {
    const found = await ask<{ name: string; rule: string }>(
      `SELECT k.constraint_name AS name, r.delete_rule AS rule
       FROM information_schema.key_column_usage k
       JOIN information_schema.referential_constraints r
         ON r.constraint_schema = k.constraint_schema AND r.constraint_name = k.constraint_name
         AND r.table_name = k.table_name
       WHERE k.table_schema = DATABASE() AND k.table_name = ? AND k.column_name = ?
         AND k.referenced_table_name = ?`,
      [table, column, other],
    );
    const held = `${table}_hold_${other}`;
    if (!found.some(({ name }) => name === held))
      await run(
        `ALTER TABLE ${table} ADD CONSTRAINT ${held} FOREIGN KEY (${column}) REFERENCES ${other} (${key}) ON DELETE RESTRICT`,
      );
    for (const { name } of found)
      if (name !== held) await run(`ALTER TABLE ${table} DROP FOREIGN KEY \`${name}\``);
  }
}
