// Taking in, through HTTP: every awkward file ends as a correct photo or a clear refusal.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { DEMO, photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer({ limits: { bytes: 3_000_000, pixels: 11_000_000 } });
});
afterAll(() => server.close());

const special = (name: string) => readFile(join(DEMO, 'special', name));

describe('awkward files', () => {
  test.each([
    ['logo-gullmoor.svg', { format: 'svg', width: 3200, height: 1600, transparent: true }],
    ['logo-gullmoor.png', { format: 'png', width: 1200, height: 600, transparent: true }],
    ['notice.png', { format: 'png', width: 256, height: 256, transparent: true }],
    ['firing-guide.png', { format: 'png', width: 1200, height: 1600, transparent: false }],
    ['wheel.gif', { format: 'gif', width: 480, height: 320, frames: 12 }],
    ['photo-as-png.png', { format: 'png', width: 1600, height: 1066, transparent: false }],
    ['tiny.jpg', { format: 'jpeg', width: 320, height: 213 }],
    ['cmyk-print.jpg', { format: 'jpeg', width: 2000, height: 1333 }],
    ['scan-16bit.tif', { format: 'tiff', width: 700, height: 467 }],
    ['phone.heic', { format: 'heic', width: 3000, height: 2000 }],
  ])('%s is taken in', async (name, facts) => {
    const result = await server.add(name, await special(name));
    expect(result).toMatchObject({ kind: 'new', photo: { fileName: name, original: facts } });
  });
  test.each([
    ['broken-truncated.jpg', 'damaged', /ends too early/],
    ['not-a-photo.jpg', 'not-a-picture', /not a picture/],
  ])('%s is refused with a reason and a way out', async (name, code, sentence) => {
    const result = await server.add(name, await special(name));
    expect(result).toMatchObject({ kind: 'refused', refusal: { fileName: name, code } });
    expect((await server.state()).refusals.find((r) => r.fileName === name)!.sentence).toMatch(sentence);
  });
  test('an empty file, one with too many bytes and one with too many pixels', async () => {
    expect(await server.add('empty.jpg', Buffer.alloc(0))).toMatchObject({
      kind: 'refused',
      refusal: { code: 'empty' },
    });
    const large = await server.add('large.jpg', Buffer.alloc(3_100_000, 0xff));
    expect(large).toMatchObject({
      kind: 'refused',
      refusal: { code: 'too-many-bytes', sentence: expect.stringContaining('up to 3 MB') },
    });
    const wide = await sharp({ create: { width: 6000, height: 2000, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    const result = await server.add('wide.jpg', wide);
    expect(result).toMatchObject({
      kind: 'refused',
      refusal: { code: 'too-many-pixels', sentence: expect.stringContaining('6000 × 2000') },
    });
  });
  test('all of them end as variants that decode, and nothing half-written is left', async () => {
    await server.prepared();
    const { rows, preparation } = await server.state();
    expect(rows).toHaveLength(10);
    expect(preparation).toMatchObject({ failed: 0, made: preparation.wanted });
    for (const variant of rows.flatMap((row) => row.variants)) {
      const meta = await sharp(server.parts.vault.variant(variant.key, variant.format)).metadata();
      expect([meta.width, meta.height]).toEqual([variant.width, variant.height]);
    }
    expect(await readdir(server.parts.vault.incoming)).toEqual([]);
  });
});

describe('what is read and kept', () => {
  test('the original stays byte for byte, under its hash', async () => {
    const bytes = await readFile(join(DEMO, 'photos/GM_0418.JPG'));
    const result = await server.add('GM_0418.JPG', bytes);
    if (result.kind !== 'new') throw new Error(result.kind);
    const { original } = result.photo;
    expect(original).toMatchObject({
      width: 2400,
      height: 3600,
      orientation: 6,
      takenAt: '2026-04-11T10:42:07',
    });
    expect(original.hash).toBe(createHash('sha256').update(bytes).digest('hex'));
    expect((await readFile(server.parts.vault.original(original.hash))).equals(bytes)).toBe(true);
  });
  test('words of IPTC/XMP become the photo’s words; a name is only offered', async () => {
    const xmp = `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/" photoshop:Credit="Gullmoor Pottery"><Iptc4xmpCore:AltTextAccessibility><rdf:Alt><rdf:li xml:lang="x-default">Grey square on a grey ground</rdf:li></rdf:Alt></Iptc4xmpCore:AltTextAccessibility><dc:description><rdf:Alt><rdf:li xml:lang="x-default">Study in grey</rdf:li></rdf:Alt></dc:description></rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;
    const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#777' } })
      .jpeg()
      .withXmp(xmp)
      .toBuffer();
    const result = await server.add('worded.jpg', bytes);
    expect(result).toMatchObject({
      kind: 'new',
      photo: {
        words: {
          role: null,
          alt: 'Grey square on a grey ground',
          caption: 'Study in grey',
          credit: '',
        },
        original: { found: { credit: 'Gullmoor Pottery' } },
      },
    });
  });
  test('four inks without a profile are told: what they look like is a guess', async () => {
    const inks = await sharp({ create: { width: 320, height: 200, channels: 3, background: '#284' } })
      .toColourspace('cmyk')
      .jpeg()
      .toBuffer();
    expect((await sharp(inks).metadata()).icc).toBeUndefined();
    expect(await server.add('print.jpg', inks)).toMatchObject({
      kind: 'new',
      photo: { original: { aside: expect.stringMatching(/^Made of four inks \(CMYK\), without a profile/) } },
    });
  });
  test('camera and position are recognised', async () => {
    const result = await server.add(
      'gps.jpg',
      await photoWithSquare(800, 600, { x: 0.2, y: 0.5 }, undefined),
    );
    expect(result).toMatchObject({
      kind: 'new',
      photo: { original: { camera: 'Lumora L2', hasPosition: true } },
    });
  });
});

describe('the same file again', () => {
  test('is recognised whatever its name, also when both come at once', async () => {
    const bytes = await photoWithSquare(640, 480, { x: 0.5, y: 0.5 });
    const results = await Promise.all([server.add('one.jpg', bytes), server.add('two.jpg', bytes)]);
    expect(results.map((r) => r.kind).sort()).toEqual(['already-here', 'new']);
  });
  test('out of the bin it comes back with its decisions', async () => {
    const bytes = await photoWithSquare(500, 400, { x: 0.5, y: 0.5 });
    const first = await server.add('again.jpg', bytes);
    if (first.kind !== 'new') throw new Error(first.kind);
    const { id } = first.photo;
    await server.edit({
      label: 'alt',
      commands: [{ kind: 'words', photo: id, language: 'en', words: { alt: 'Kept words' } }],
    });
    await server.edit({ label: 'bin', commands: [{ kind: 'bin', photo: id, binned: true }] });
    expect(await server.add('again.jpg', bytes)).toMatchObject({
      kind: 'back-from-bin',
      photo: { id, words: { alt: 'Kept words' }, binned: false },
    });
  });
});

describe('names and places', () => {
  test('a path in a name is cut to its last part; no name is an error', async () => {
    const bytes = await photoWithSquare(420, 300, { x: 0.5, y: 0.5 });
    expect(await server.add('../../etc/pass wd.jpg', bytes)).toMatchObject({
      photo: { fileName: 'pass wd.jpg' },
    });
    const response = await server.app.inject({
      method: 'POST',
      url: `/api/sets/${server.setId}/files`,
      headers: { 'content-type': 'application/octet-stream' },
      payload: bytes,
    });
    expect(response.statusCode).toBe(400);
  });
  test('photos stand in the order in which they were sent', async () => {
    const sizes = [1400, 300, 900, 310];
    const files = await Promise.all(
      sizes.map((width, i) => photoWithSquare(width, 250 + i, { x: 0.5, y: 0.5 })),
    );
    await Promise.all(files.map((bytes, i) => server.add(`order-${i}.jpg`, bytes)));
    const names = (await server.state()).rows
      .map((row) => row.fileName)
      .filter((name) => name.startsWith('order-'));
    expect(names).toEqual(['order-0.jpg', 'order-1.jpg', 'order-2.jpg', 'order-3.jpg']);
  });
});
