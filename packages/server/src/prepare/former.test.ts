// After an upgrade that makes files otherwise: those of before stand in, go out, and are made anew behind everything else.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { PlannedVariant, RowVariant } from '@dusky-otter/core/contract';
import { formerKeys, planPhoto, thoroughKey } from '@dusky-otter/core/plan';
import { unzipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { mkdir, rename } from 'node:fs/promises';
import { dirname } from 'node:path';
import { VariantModel } from '../database/models.ts';
import { placed } from '../../../core/src/testing/sample.ts';
import { loadPhotos } from '../store/photos.ts';
import { readSetPlaces } from '../store/sets.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';
import { sweepVariants } from './sweep.ts';

let server: TestServer;
let photoId: number;

/** @param thorough whether smaller files are looked for; said before there is anything to look for them for */
async function begin(idleWork: boolean, thorough = true): Promise<void> {
  // What is made anew must not be there before it is looked at: encoders take their time here.
  process.env.SHORT_ENCODING = '0';
  // One at a time: what is being made is then all that is.
  server = await testServer({ idleWork, workers: 1 });
  const { site } = await server.state();
  if (!thorough)
    await server.edit({
      commands: [{ kind: 'site', change: { policy: { ...site.policy, thorough } } }],
    });
  const result = await server.add('a.jpg', await photoWithSquare(420, 300, { x: 0.3, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  photoId = result.photo.id;
  await server.edit({
    label: 'x',
    commands: [{ kind: 'placements', photo: photoId, placements: placed('grid') }],
    seen: { photos: { [photoId]: result.photo.version } },
  });
  await server.prepared();
  // What the photo was meant for at first may have been made meanwhile, or is on its way still.
  while ((await progress()).doing !== null) await new Promise((done) => setTimeout(done, 50));
  for (const day of [0, 8]) await sweepAt(day);
}
afterEach(() => server.close());

const variants = async (): Promise<RowVariant[]> => (await server.state()).rows[0]!.variants;
/** @param day since when files are not wanted, or until when they were kept */
const sweepAt = (day: number): Promise<number> => {
  const { vault, stored, preparer } = server.parts;
  const wanted = (hash: string, key: string) => preparer.isWanted(hash, key);
  return sweepVariants(vault, stored, wanted, new Date(day * 24 * 3600_000));
};
const progress = async () => (await server.state()).preparation;

/** Lays the files of the set down as the version before left them, and starts anew on them. */
async function asBefore(): Promise<Map<string, string>> {
  const { stored, vault, sites, preparer } = server.parts;
  const site = await sites.get((await server.state()).site.id);
  const [photo] = await loadPhotos(server.setId, site.languages[0]!, [photoId]);
  const formers = new Map<string, string>();
  for (const planned of planPhoto(photo!, await readSetPlaces(server.setId), site)) {
    const { key, format }: PlannedVariant = planned;
    if (formers.has(key)) continue;
    const former = formerKeys(photo!, planned)[1]!;
    const to = vault.variant(former, format);
    await mkdir(dirname(to), { recursive: true });
    await rename(vault.variant(key, format), to);
    await VariantModel.update({ key: former }, { where: { key } });
    formers.set(key, former);
  }
  await VariantModel.destroy({ where: { key: [...formers.keys()] } });
  await stored.load(vault);
  await preparer.reconcileAll();
  return formers;
}

/** Resolves when every file was made anew or smaller. */
async function through(isDone: (variant: RowVariant) => boolean): Promise<void> {
  while (!(await variants()).every(isDone)) await new Promise((done) => setTimeout(done, 50));
}

describe('files that the version before made', () => {
  beforeEach(() => begin(false));

  test('stand in at once: nothing is waited for, and the ZIP has them', async () => {
    const before = await variants();
    const formers = await asBefore();
    const after = await variants();
    expect(after.map(({ file }) => file)).toEqual(before.map(({ key }) => formers.get(key)));
    expect(after.map(({ contentHash }) => contentHash)).toEqual(before.map(({ contentHash }) => contentHash));
    expect(await progress()).toMatchObject({ wanted: before.length, made: before.length, failed: 0 });
    const zip = await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`);
    const hashes = Object.entries(unzipSync(new Uint8Array(zip.rawPayload)))
      .filter(([path]) => path.startsWith('photos/'))
      .map(([, file]) => createHash('sha256').update(file).digest('hex'));
    expect(hashes.sort()).toEqual(before.map(({ contentHash }) => contentHash).sort());
    expect(server.parts.stored.all.size).toBe(before.length);
  }, 120_000);

  test('stay as long as they stand in, and go a week after they were made anew', async () => {
    const formers = await asBefore();
    const { stored } = server.parts;
    await sweepAt(0);
    expect(await sweepAt(8)).toBe(0);
    await server.app.inject({
      method: 'PUT',
      url: `/api/sets/${server.setId}/thorough`,
      payload: { now: true },
    });
    await through(({ file, key }) => file === thoroughKey(key));
    const bytes = (keys: Iterable<string>): number =>
      [...keys].reduce((sum, key) => sum + stored.file(key)!.bytes, 0);
    const { thorough } = await progress();
    const now = (await variants()).map(({ file }) => file);
    expect(thorough.saved).toBe(bytes(formers.values()) - bytes(now));
    await sweepAt(8);
    expect(await sweepAt(24)).toBe(formers.size);
    expect((await variants()).map(({ file }) => file)).toEqual(now);
  }, 240_000);

  test('are known again after the next start, and one that is lost is made anew', async () => {
    const formers = await asBefore();
    const { stored, vault, preparer } = server.parts;
    await stored.load(vault);
    await preparer.reconcileAll();
    const [first, ...others] = await variants();
    expect(first!.file).toBe(formers.get(first!.key));
    await preparer.remake([{ key: first!.file, hash: stored.file(first!.file)!.hash }]);
    await server.prepared();
    const now = await variants();
    expect(now[0]!.file).toBe(first!.key);
    expect(now.slice(1).map(({ file }) => file)).toEqual(others.map(({ file }) => file));
  }, 120_000);
});

test('where no thorough files are wanted, what was made before is made anew while nothing else is to do', async () => {
  await begin(true, false);
  await asBefore();
  await through(({ file, key }) => file === key);
  expect(await progress()).toMatchObject({ failed: 0, thorough: { now: false } });
}, 240_000);
