// Words in pictures, found by the process that looks for them, and told to whoever looks at the set.
import { randomUUID } from 'node:crypto';
import { firstPlaces } from '@dusky-otter/core/reading';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ownDatabase } from '../testing/database.ts';
import { startServer, type ServerProcess } from '../testing/process.ts';

const DEMO = resolve(import.meta.dirname, '../../../../demo');

let server: ServerProcess;
let database: Awaited<ReturnType<typeof ownDatabase>>;
let dataDir: string;
beforeAll(async () => {
  database = await ownDatabase();
  dataDir = await mkdtemp(join(tmpdir(), 'otter-reader-test-'));
  server = await startServer({
    DATABASE_URL: database.url,
    DATA_DIR: dataDir,
    SEED_DEMO: '0',
    READ_TEXT: '1',
  });
});
afterAll(async () => {
  await server.end('SIGTERM');
  await database.drop();
  await rm(dataDir, { recursive: true, force: true });
});

const post = async (path: string, body: unknown): Promise<unknown> =>
  (
    await fetch(`${server.address}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json();

test('a sign that hangs askew and a logo are read, a picture without words is not; what nobody tells keeps a photo from being ready', async () => {
  const { id: siteId } = (await post('/api/sites', { name: 'Gullmoor Pottery' })) as { id: number };
  const { id } = (await post(`/api/sites/${siteId}/sets`, { name: 'Signs' })) as { id: number };
  await post(`/api/sets/${id}/edits`, firstPlaces(['column', 'grid'], randomUUID()));
  for (const file of ['photos/DSC00342.JPG', 'special/logo-gullmoor.svg', 'special/notice.png'])
    await fetch(`${server.address}/api/sets/${id}/files?name=${file.split('/')[1]}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: await readFile(join(DEMO, file)),
    });
  const { rows } = await server.until(
    (state) => state.rows.length === 3 && state.rows.every((row) => row.original.shows !== undefined),
  );
  const shown = Object.fromEntries(
    rows.map((row) => [row.fileName, (row.original.shows ?? []).map(({ text }) => text).join(' ')]),
  );
  expect(shown).toEqual({
    'DSC00342.JPG': 'OPEN TODAY',
    'logo-gullmoor.svg': 'GULLMOOR',
    'notice.png': '',
  });
  const { box } = rows.find((row) => row.fileName === 'DSC00342.JPG')!.original.shows![0]!;
  // The sign hangs about the middle of the picture.
  expect((box.left + box.right) / 2).toBeGreaterThan(0.3);
  expect((box.left + box.right) / 2).toBeLessThan(0.7);
  expect(box.bottom).toBeGreaterThan(box.top);
});

test('one picture can be asked for while others are made, and what is not there is said, too', async () => {
  const { id: siteId } = (await post('/api/sites', { name: 'Gullmoor Shop' })) as { id: number };
  const { id } = (await post(`/api/sites/${siteId}/sets`, { name: 'Shop' })) as { id: number };
  for (const file of ['photos/DSC00198.JPG', 'photos/DSC00307.JPG'])
    await fetch(`${server.address}/api/sets/${id}/files?name=${file.split('/')[1]}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: await readFile(join(DEMO, file)),
    });
  const { rows } = await server.until((state) => state.rows.length === 2, id);
  const last = rows.at(-1)!;
  await post(`/api/sets/${id}/photos/${last.id}/words-shown`, {});
  const read = await server.until(
    (state) => state.rows.find((row) => row.id === last.id)?.original.shows !== undefined,
    id,
  );
  expect(read.rows.find((row) => row.id === last.id)!.original.shows).toEqual([]);
  const answer = async (path: string) =>
    (
      await fetch(`${server.address}${path}`, {
        method: 'POST',
        body: '{}',
        headers: { 'content-type': 'application/json' },
      })
    ).status;
  // Asked again, nothing is done twice; a photo of elsewhere, or of nowhere, is not read.
  expect(await answer(`/api/sets/${id}/photos/${last.id}/words-shown`)).toBe(202);
  expect(await answer(`/api/sets/${id}/photos/999999/words-shown`)).toBe(404);
  expect(await answer(`/api/sets/${id}/photos/x/words-shown`)).toBe(404);
});
