// The private MariaDB under hard circumstances: nothing of it is ever deleted, and it comes up whatever was lost beside it.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { startDatabase } from '../../../../scripts/database.mjs';
import { claim, remember, remembered } from '../../../../scripts/processes.mjs';
import { openDatabase } from './connect.ts';
import { retryOnDatabaseLoss } from './retry.ts';

let folder: string;
let said: string[];
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-private-'));
  said = [];
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const start = () => startDatabase(folder, { say: (sentence) => said.push(sentence) });
type Database = Awaited<ReturnType<typeof start>>;

async function asked(url: string, sql: string): Promise<object[]> {
  const connection = openDatabase(url);
  try {
    if (!/^(?:SELECT|SHOW)/.test(sql)) {
      await connection.query(sql);
      return [];
    }
    return await connection.query(sql, { type: QueryTypes.SELECT });
  } finally {
    await connection.close();
  }
}
const write = async ({ url }: Database) => {
  await asked(url, 'CREATE TABLE IF NOT EXISTS kept (word VARCHAR(20))');
  await asked(url, "INSERT INTO kept VALUES ('glaze')");
};
const read = ({ url }: Database) => asked(url, 'SELECT word FROM kept');

describe('the private database', () => {
  test('keeps everything when marker, password and notes beside it are lost', async () => {
    const first = await start();
    await write(first);
    await first.stop();
    for (const name of await readdir(folder))
      if (name !== 'mariadb') await rm(join(folder, name), { recursive: true, force: true });
    const again = await start();
    expect(await read(again)).toEqual([{ word: 'glaze' }]);
    expect(said).toEqual([]);
    await again.stop();
  });
  test('moves aside what is no database, and says so; an unfinished first start is begun anew', async () => {
    await mkdir(join(folder, 'mariadb'));
    await writeFile(join(folder, 'mariadb', 'somebody’s file'), 'x');
    await mkdir(join(folder, 'mariadb.making'));
    await writeFile(join(folder, 'mariadb.making', 'half'), 'x');
    const database = await start();
    await write(database);
    await database.stop();
    const aside = (await readdir(folder)).find((name) => name.startsWith('mariadb.aside-'))!;
    expect(await readFile(join(folder, aside, 'somebody’s file'), 'utf8')).toBe('x');
    expect(said).toEqual([expect.stringMatching(/was moved to .* nothing of it was deleted/)]);
    expect(existsSync(join(folder, 'mariadb.making'))).toBe(false);
  });
  test('is started again when it is killed, on the same port; who waits loses nothing', async () => {
    const database = await start();
    await write(database);
    const before = database.pid;
    process.kill(before, 'SIGKILL');
    expect(await retryOnDatabaseLoss(() => read(database))).toEqual([{ word: 'glaze' }]);
    expect(database.pid).not.toBe(before);
    expect(said).toEqual([
      expect.stringMatching(/ended unexpectedly \(by SIGKILL; .+\); it is started again/),
    ]);
    await database.stop();
  });
  test('one that a killed start left behind is ended first; files of processes that are others now mislead nobody', async () => {
    const database = await start();
    await write(database);
    await database.stop();
    // A stranger has the number of a process that ended long ago.
    const stranger = spawn('sleep', ['600'], { stdio: 'ignore' });
    for (const name of ['owner.process', 'server.process', 'mariadb.process'])
      await writeFile(join(folder, name), `${stranger.pid} 12345\n`);
    const again = await start();
    expect(await read(again)).toEqual([{ word: 'glaze' }]);
    expect(stranger.exitCode).toBeNull();
    await again.stop();
    stranger.kill('SIGKILL');
  });
  test('its account has rights on its own tables only', async () => {
    const database = await start();
    const grants = (await asked(database.url, 'SHOW GRANTS')).map((row) => Object.values(row).join());
    expect(grants.some((grant) => grant.includes('ALL PRIVILEGES ON `dusky_otter`.*'))).toBe(true);
    expect(grants.filter((grant) => grant.includes('ON *.*') && !grant.startsWith('GRANT USAGE'))).toEqual(
      [],
    );
    await expect(asked(database.url, 'CREATE DATABASE other')).rejects.toThrow(/denied/);
    await expect(asked(database.url, 'SELECT user FROM mysql.user')).rejects.toThrow(/denied/);
    await database.stop();
  });
  test('leaves nothing in the system’s temporary folder, and its files to nobody else', async () => {
    const before = new Set(await readdir(tmpdir()));
    const database = await start();
    const during = (await readdir(tmpdir())).filter(
      (name) => !before.has(name) && name.startsWith('otter-') && !name.startsWith('otter-test'),
    );
    process.kill(database.pid, 'SIGKILL');
    await retryOnDatabaseLoss(() => asked(database.url, 'SELECT 1'));
    await database.stop();
    expect(during.filter((name) => name.includes('sock'))).toEqual([]);
    expect((await stat(join(folder, 'mariadb.password'))).mode & 0o077).toBe(0);
  });
});

describe('claiming a folder', () => {
  test('one process has it; one that has ended has it no more', async () => {
    const file = join(folder, 'owner.process');
    expect(claim(file)).toBeNull();
    expect(claim(file)).toBeNull();
    const other = spawn('sleep', ['600'], { stdio: 'ignore' });
    remember(file, other.pid!);
    expect(claim(file)).toBe(other.pid);
    const gone = new Promise((done) => other.once('exit', done));
    other.kill('SIGKILL');
    await gone;
    expect(remembered(file)).toBeNull();
    expect(claim(file)).toBeNull();
    await writeFile(file, 'nonsense');
    expect(claim(file)).toBeNull();
  });
});
