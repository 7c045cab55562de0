// Killed in the middle and started again, the server ends in the same complete result as one that was left alone.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { WholeSet } from '../testing/server.ts';
import sharp from 'sharp';
import { startServer } from '../testing/process.ts';
import { ownDatabase } from '../testing/database.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-kill-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const complete = ({ preparation, rows }: WholeSet) =>
  rows.length === 14 &&
  preparation.wanted > 0 &&
  preparation.made + preparation.failed === preparation.wanted;

/** Every variant file as name → SHA-256 of its content; each must decode. */
async function storeOf(dataDir: string): Promise<Record<string, string>> {
  const found: Record<string, string> = {};
  const top = join(dataDir, 'variants');
  for (const name of await readdir(top, { recursive: true })) {
    if (!name.includes('.')) continue;
    const bytes = await readFile(join(top, name));
    await sharp(bytes).stats();
    found[name] = createHash('sha256').update(bytes).digest('hex');
  }
  return found;
}

async function prepareDemo(
  name: string,
  kills: number[],
): Promise<{ store: Record<string, string>; state: WholeSet; dataDir: string }> {
  const database = await ownDatabase();
  const dataDir = join(folder, name);
  const env = { DATABASE_URL: database.url, DATA_DIR: dataDir, CODEC_WORKERS: '2' };
  for (const made of kills) {
    const server = await startServer(env);
    await server.until(({ preparation }) => preparation.made >= made);
    await server.end('SIGKILL');
  }
  const server = await startServer(env);
  await server.until(complete);
  const state = await server.state();
  await server.end('SIGTERM');
  await database.drop();
  return { store: await storeOf(dataDir), state, dataDir };
}

test('a kill in the middle changes nothing about the end', async () => {
  const whole = await prepareDemo('whole', []);
  const killed = await prepareDemo('killed', [5, 40]);
  expect(whole.state.preparation.failed).toBe(0);
  expect(Object.keys(killed.store).sort()).toEqual(Object.keys(whole.store).sort());
  expect(killed.store).toEqual(whole.store);
  const contents = (state: WholeSet) =>
    state.rows.flatMap((row) => row.variants.map((v) => [v.key, v.contentHash, v.bytes])).sort();
  expect(contents(killed.state)).toEqual(contents(whole.state));
  expect(await readdir(join(killed.dataDir, 'incoming'))).toEqual([]);
}, 900_000);
