// Killed in the middle and started again, the server ends in the same complete result as one that was left alone.
import { firstPlaces } from '@dusky-otter/core/reading';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEMO, type WholeSet } from '../testing/server.ts';
import sharp from 'sharp';
import { startServer, type ServerProcess } from '../testing/process.ts';
import { ownDatabase } from '../testing/database.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-kill-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Of several kinds: photographs, a graphic, an animation, and one that is transparent. */
const PHOTOS = [
  'photos/GM_0418.JPG',
  'photos/DSC00307.JPG',
  'photos/GM_0479.JPG',
  'special/firing-guide.png',
  'special/logo-gullmoor.png',
  'special/wheel.gif',
];

const complete = ({ preparation, rows }: WholeSet) =>
  rows.length === PHOTOS.length &&
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

const post = async (
  address: string,
  path: string,
  body: BodyInit,
  type = 'application/json',
): Promise<unknown> => {
  const response = await fetch(`${address}${path}`, {
    method: 'POST',
    headers: { 'content-type': type },
    body,
  });
  expect(response.ok).toBe(true);
  return response.json();
};

/** A set with the photos, in WebP: AVIF would take most of the time. */
async function begin({ address, state }: ServerProcess): Promise<void> {
  const { id } = (await post(address, '/api/sites', '{"name":"Gullmoor Pottery"}')) as { id: number };
  await post(address, `/api/sites/${id}/sets`, '{"name":"Kiln diary"}');
  const opened = firstPlaces(['column', 'grid'], randomUUID());
  await post(address, '/api/sets/1/edits', JSON.stringify(opened));
  const { site } = await state();
  const edit = {
    label: 'rules',
    commands: [{ kind: 'site', change: { policy: { ...site.policy, modern: 'webp' } } }],
    seen: { photos: {}, site: site.version },
    ...{ token: randomUUID(), window: 'window-one', since: 0 },
  };
  await post(address, '/api/sets/1/edits', JSON.stringify(edit));
  for (const path of PHOTOS) {
    const bytes = new Uint8Array(await readFile(join(DEMO, path)));
    await post(address, `/api/sets/1/files?name=${path.split('/')[1]}`, bytes, 'application/octet-stream');
  }
}

async function prepareAll(
  name: string,
  kills: number[],
): Promise<{ store: Record<string, string>; state: WholeSet; dataDir: string }> {
  const database = await ownDatabase();
  const dataDir = join(folder, name);
  const env = { DATABASE_URL: database.url, DATA_DIR: dataDir, CODEC_WORKERS: '2', SEED_DEMO: '0' };
  for (const [n, made] of kills.entries()) {
    const server = await startServer(env);
    if (n === 0) await begin(server);
    await server.until(({ preparation }) => preparation.made >= made);
    await server.end('SIGKILL');
  }
  const server = await startServer(env);
  if (kills.length === 0) await begin(server);
  await server.until(complete);
  const state = await server.state();
  await server.end('SIGTERM');
  await database.drop();
  return { store: await storeOf(dataDir), state, dataDir };
}

test('a kill in the middle changes nothing about the end', async () => {
  const whole = await prepareAll('whole', []);
  const killed = await prepareAll('killed', [5, 30]);
  expect(whole.state.preparation.failed).toBe(0);
  expect(Object.keys(killed.store).sort()).toEqual(Object.keys(whole.store).sort());
  expect(killed.store).toEqual(whole.store);
  const contents = (state: WholeSet) =>
    state.rows.flatMap((row) => row.variants.map((v) => [v.key, v.contentHash, v.bytes])).sort();
  expect(contents(killed.state)).toEqual(contents(whole.state));
  expect(await readdir(join(killed.dataDir, 'incoming'))).toEqual([]);
}, 900_000);
