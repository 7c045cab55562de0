// Rules of a site: what they would make of a set is what they make of it; they reach files, markup and names.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  AlikeBytes,
  Policy,
  PolicyForecast,
  QualityDecision,
  SentBytes,
} from '@dusky-otter/core/contract';
import { ONE_QUALITY } from '@dusky-otter/core/readiness';
import { wholePolicy } from '@dusky-otter/core/weight';
import { createHash } from 'node:crypto';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
  for (const [n, x] of [0.3, 0.6].entries()) {
    const photo = await photoWithSquare(500 + n, 340, { x, y: 0.5 });
    const signed = await sharp(photo)
      .withExif({ IFD0: { Artist: 'Ida Gullmoor', Copyright: 'Ida Gullmoor' } })
      .jpeg({ quality: 92 })
      .toBuffer();
    expect((await server.add(`${n}.jpg`, signed)).kind).toBe('new');
  }
  await server.prepared();
});
afterAll(() => server.close());

const BASE: Policy = wholePolicy({ modern: 'webp', target: 'clean' });
const hold = async (policy: Policy) => {
  const { status } = await server.edit({ commands: [{ kind: 'site', change: { policy } }] });
  expect(status).toBe(200);
  await server.prepared();
};
const ask = (policy: unknown, setId = server.setId) =>
  server.app.inject({ method: 'POST', url: `/api/sets/${setId}/policy/forecast`, payload: policy as object });
const forecast = async (policy: Policy) => (await ask(policy)).json<PolicyForecast>();

describe('a forecast', () => {
  beforeAll(() => hold(BASE));
  test.each<Partial<Policy>>([
    { target: 'lean' },
    { modern: 'smaller' },
    { density: 1 },
    { metadata: 'credit' },
  ])('of %j is what is sent once it holds', async (change) => {
    await hold(BASE);
    const policy = { ...BASE, ...change };
    const said = await forecast(policy);
    expect(said.exact).toBe(true);
    expect(said.files.now).toBe((await server.state()).preparation.wanted);
    await hold(policy);
    const { counts, preparation } = await server.state();
    for (const screen of ['phone', 'laptop'] as const) expect(said[screen].then).toBe(counts[screen].sent);
    expect(said.files.then).toBe(preparation.wanted);
  });
  test('of the rules that hold counts, and makes nothing', async () => {
    await hold(BASE);
    const said = await forecast(BASE);
    expect(said).toMatchObject({ tried: 0, exact: true, files: { toMake: 0 } });
    expect(said.phone.then).toBe(said.phone.now);
  });
  test('one quality for all weighs what it weighs where it is set for each picture', async () => {
    await hold(BASE);
    const ask = (path: string) => server.app.inject(`/api/sets/${server.setId}/${path}`);
    const screen = 'viewport=390&density=2';
    const { alike, tried, of } = (await ask(`alike?${screen}`)).json<AlikeBytes>();
    // Two photos in two places.
    expect([tried, of]).toEqual([4, 4]);
    const { rows, set } = await server.state();
    const decide = async (decision: QualityDecision | null) => {
      const commands = rows.flatMap(({ id }) =>
        set.slots.map((slot) => ({ kind: 'quality' as const, photo: id, slot, decision })),
      );
      expect((await server.edit({ commands })).status).toBe(200);
      await server.prepared();
    };
    await decide({ pinned: ONE_QUALITY.webp });
    expect((await ask(`sent?${screen}`)).json<SentBytes>().sent).toBe(alike);
    // Nothing is searched for any more: it is what it is.
    expect((await ask(`alike?${screen}`)).json<AlikeBytes>()).toEqual({ alike, tried: 0, of: 0 });
    for (const path of ['alike', 'alike?viewport=1e9&density=2', 'alike?viewport=390&density=-1'])
      expect((await ask(path)).statusCode).toBe(400);
    await decide(null);
  });
  test('hostile rules are refused', async () => {
    for (const bad of [
      {},
      { modern: 'gif', target: 'clean' },
      { ...BASE, target: 'none' },
      { ...BASE, density: 9 },
      { ...BASE, metadata: 'all' },
      { ...BASE, progressive: 'yes' },
      { ...BASE, wideColours: 1 },
      { ...BASE, naming: '../x' },
      { ...BASE, prefix: 'javascript:alert(1)' },
      [],
    ])
      expect((await ask(bad)).statusCode).toBeGreaterThanOrEqual(400);
    expect((await ask(BASE, 9999)).statusCode).toBe(404);
  });
});

describe('rules', () => {
  const pictures = async () => {
    const zip = await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`);
    return Object.entries(unzipSync(new Uint8Array(zip.rawPayload)));
  };
  const ofFormat = async (ending: string) =>
    (await pictures()).filter(([path]) => path.endsWith(ending)).map(([, bytes]) => bytes);

  test('words and credit go out inside the files as far as the rules say, and nothing else of what a camera knows', async () => {
    const names = async () =>
      (await pictures()).map(([path]) => path).filter((path) => path.startsWith('photos/'));
    await hold(BASE);
    const plain = await names();
    for (const ending of ['.jpg', '.webp'])
      for (const bytes of await ofFormat(ending)) {
        const { exif, xmp } = await sharp(bytes).metadata();
        expect([exif, xmp]).toEqual([undefined, undefined]);
      }
    const { made } = (await server.state()).preparation;
    await hold({ ...BASE, metadata: 'credit' });
    for (const ending of ['.jpg', '.webp']) {
      const files = await ofFormat(ending);
      expect(files.length).toBeGreaterThan(0);
      for (const bytes of files) {
        const { exif, xmp } = await sharp(bytes).metadata();
        expect(exif).toBeUndefined();
        expect(xmp!.toString()).toContain('Ida Gullmoor');
        expect(xmp!.toString()).not.toContain('AltText');
      }
    }
    // Another file has another name, and no picture is made for it.
    const credited = await names();
    expect(credited.some((path) => plain.includes(path))).toBe(false);
    expect((await server.state()).preparation).toMatchObject({ wanted: made, made });
    const [row] = (await server.state()).rows;
    await hold({ ...BASE, metadata: 'words' });
    await server.edit({
      commands: [{ kind: 'words', photo: row!.id, language: 'en', words: { alt: 'Töpfe & “Krüge” 🏺' } }],
    });
    const zip = await pictures();
    const manifest = JSON.parse(
      Buffer.from(zip.find(([path]) => path === 'manifest.json')![1]).toString(),
    ) as {
      photos: { sha256: string; variants: { path: string; bytes: number; sha256: string }[] }[];
    };
    const { variants } = manifest.photos.find(({ sha256 }) => sha256 === row!.original.hash)!;
    for (const { path, bytes, sha256 } of variants) {
      const file = zip.find(([name]) => name === path)![1];
      expect((await sharp(file).metadata()).xmp!.toString()).toContain('Töpfe &amp; “Krüge” 🏺');
      expect([file.length, createHash('sha256').update(file).digest('hex')]).toEqual([bytes, sha256]);
    }
    const shown = await server.app.inject(`/preview/${server.setId}/${variants[0]!.path}`);
    expect(createHash('sha256').update(shown.rawPayload).digest('hex')).toBe(variants[0]!.sha256);
  });
  test('a JPEG arrives from top to bottom where that is wanted', async () => {
    await hold(BASE);
    const [progressive] = await ofFormat('.jpg');
    expect((await sharp(progressive).metadata()).isProgressive).toBe(true);
    await hold({ ...BASE, progressive: false });
    const [plain] = await ofFormat('.jpg');
    expect((await sharp(plain).metadata()).isProgressive).toBe(false);
  });
  test('plain names say place, shape and width, each once', async () => {
    await hold({ ...BASE, naming: 'plain' });
    const paths = (await pictures()).map(([path]) => path).filter((path) => path.startsWith('photos/'));
    expect(new Set(paths).size).toBe(paths.length);
    const files = (await server.state()).rows.flatMap(({ variants }) => variants);
    expect(paths).toHaveLength(files.length);
    for (const path of paths) expect(path).toMatch(/^photos\/[a-z0-9-]+-\d+x\d+-\d+w\.(jpg|webp)$/);
  });
  test('of two modern formats both are offered, or the smaller alone', async () => {
    const markup = async () =>
      (await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/markup` })).payload;
    await hold({ ...BASE, modern: 'both' });
    const both = await markup();
    expect(both).toContain('image/avif');
    expect(both).toContain('image/webp');
    await hold({ ...BASE, modern: 'smaller' });
    const { rows, site, set } = await server.state();
    const text = await markup();
    for (const picture of text.split('<picture>').slice(1))
      expect(new Set(picture.match(/image\/(avif|webp)/g)).size).toBe(1);
    expect([site.policy.modern, set.id, rows.length]).toEqual(['smaller', server.setId, 2]);
  });
});
