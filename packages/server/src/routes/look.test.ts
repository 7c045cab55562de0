// Looking before deciding: the picture itself, and files that are only tried.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { QualityDecision } from '@dusky-otter/core/contract';
import { visibleDifference } from '@dusky-otter/core/difference';
import { planShape } from '@dusky-otter/core/plan';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { decode } from '../codec/encode.ts';
import { DEMO, testServer, type TestServer } from '../testing/server.ts';

const read = (file: string) => readFile(join(DEMO, 'special', file));

let server: TestServer;
let id: number;
let wheel: number;
let logo: number;
beforeAll(async () => {
  server = await testServer({}, 'avif');
  const ids: number[] = [];
  for (const file of ['tiny.jpg', 'wheel.gif', 'logo-gullmoor.svg']) {
    const result = await server.add(file, await read(file));
    if (result.kind !== 'new') throw new Error(result.kind);
    ids.push(result.photo.id);
  }
  [id, wheel, logo] = ids as [number, number, number];
});
afterAll(() => server.close());

const look = (query: Record<string, string>, photo = id, setId = server.setId) => {
  const asked = new URLSearchParams({ slot: 'column', shape: '3:2', width: '240', ...query });
  return server.app.inject(`/api/sets/${setId}/photos/${photo}/look?${asked}`);
};
const decide = (decision: QualityDecision | null, photo = id) =>
  server.edit({ commands: [{ kind: 'quality', photo, slot: 'column', decision }] });
const rowNow = async () => {
  const { rows, site } = await server.state();
  return { row: rows.find((one) => one.id === id)!, site };
};
const pixelsOf = (picture: Sharp) => picture.removeAlpha().raw().toBuffer();

describe('points', () => {
  const ask = (query: Record<string, string>, photo = id) => {
    const asked = new URLSearchParams({
      slot: 'column',
      shape: '3:2',
      width: '240',
      format: 'jpeg',
      ...query,
    });
    return server.app.inject(`/api/sets/${server.setId}/photos/${photo}/points?${asked}`);
  };
  test('are what a pinned quality makes: bytes and difference', async () => {
    const { row } = await rowNow();
    const { width } = row.variants.find((v) => v.slot === 'column' && v.format === 'jpeg')!;
    const response = await ask({ width: String(width) });
    const { points } = response.json<{ points: { quality: number; bytes: number; difference: number }[] }>();
    expect(points.length).toBeGreaterThan(4);
    const point = points[2]!;
    const { body } = await decide({
      pinned: { format: 'jpeg', quality: point.quality, difference: point.difference },
    });
    expect(body.rows).toHaveLength(1);
    await server.prepared();
    const made = (await rowNow()).row.variants.find(
      (v) => v.slot === 'column' && v.format === 'jpeg' && v.width === width,
    )!;
    expect([made.bytes, made.quality, made.difference]).toEqual([
      point.bytes,
      point.quality,
      point.difference,
    ]);
    await decide(null);
    await server.prepared();
  });
  test('hostile questions are refused, what has none says so', async () => {
    const hostile: Record<string, string>[] = [
      { width: '0' },
      { width: 'x' },
      { width: '7' },
      { format: 'png' },
      { slot: 'none' },
      { shape: '9:9' },
    ];
    for (const bad of hostile) expect((await ask(bad)).statusCode).toBe(400);
    expect((await ask({}, 9999)).statusCode).toBe(404);
    for (const photo of [wheel, logo])
      expect((await ask({}, photo)).json<{ code: string }>().code).toBe('nothing-to-see');
  });
});

describe('looking', () => {
  test('shows the crop at a size, without any loss', async () => {
    const { headers, rawPayload } = await look({});
    expect(headers['content-type']).toBe('image/png');
    const { row, site } = await rowNow();
    const slot = site.slots.find((one) => one.id === 'column')!;
    const { crop } = planShape(row, slot, '3:2', site)[0]!;
    const own = sharp(await read('tiny.jpg'))
      .extract({ left: crop.x, top: crop.y, width: crop.width, height: crop.height })
      .resize(240, 160, { fit: 'fill' });
    expect((await pixelsOf(sharp(rawPayload))).equals(await pixelsOf(own))).toBe(true);
  });
  test.each(['jpeg', 'webp', 'avif'] as const)(
    'tries a %s: the very file that is stored once it is decided',
    async (format) => {
      const tried = await look({ format, quality: '61' });
      expect(tried.headers['content-type']).toBe(`image/${format}`);
      const reference = await decode((await look({})).rawPayload);
      const difference = visibleDifference(reference, await decode(tried.rawPayload));
      await decide({
        pinned: { format, quality: 61, difference },
        widest: 240,
        ...(format === 'webp' && { format }),
      });
      await server.prepared();
      const variants = (await rowNow()).row.variants.filter((v) => v.slot === 'column' && v.width === 240);
      const own = variants.find((v) => v.format === format)!;
      expect(own).toMatchObject({ quality: 61, bytes: tried.rawPayload.length });
      const path = server.parts.vault.variant(own.key, format);
      expect((await readFile(path)).equals(tried.rawPayload)).toBe(true);
      // In the other format no more of it is seen.
      const other = variants.find((v) => v.format !== format)!;
      expect(other.difference).toBeLessThanOrEqual(difference + 0.01);
      await decide(null);
    },
  );
  test('makes a file as a decision would have it, with what was found for it', async () => {
    const attempt = (body: object, photo = id) =>
      server.app.inject({
        method: 'POST',
        url: `/api/sets/${server.setId}/photos/${photo}/try`,
        payload: { slot: 'column', shape: '3:2', width: 200, format: 'avif', ...body },
      });
    const decision: QualityDecision = { target: 'lean', widest: 200 };
    const tried = await attempt({ decision });
    expect(tried.statusCode).toBe(200);
    await decide(decision);
    await server.prepared();
    const made = (await rowNow()).row.variants.find((v) => v.slot === 'column' && v.format === 'avif')!;
    expect(made).toMatchObject({
      bytes: tried.rawPayload.length,
      quality: Number(tried.headers['x-quality']),
      difference: Number(tried.headers['x-difference']),
    });
    expect((await readFile(server.parts.vault.variant(made.key, 'avif'))).equals(tried.rawPayload)).toBe(
      true,
    );
    await decide(null);
    for (const wrong of [
      {},
      { decision: null },
      { decision: { pinned: 0 } },
      { decision: {}, width: 201 },
      { decision: {}, format: 'gif' },
      { decision: {}, slot: 'nowhere' },
      { decision: {}, more: 1 },
    ])
      expect((await attempt(wrong)).statusCode).toBe(400);
    expect((await attempt({ decision: {} }, logo)).statusCode).toBe(409);
  });
  test('tries fewer frames of an animation: as many, at the same pace, and the very file that is stored', async () => {
    const decision: QualityDecision = { every: 5 };
    const { rows } = await server.state();
    const before = rows.find((one) => one.id === wheel)!;
    const { width } = before.variants.find((v) => v.slot === 'column' && v.format === 'webp')!;
    const tried = await server.app.inject({
      method: 'POST',
      url: `/api/sets/${server.setId}/photos/${wheel}/try`,
      payload: { slot: 'column', shape: '3:2', width, format: 'webp', decision },
    });
    expect(tried.statusCode).toBe(200);
    const all = await sharp(await read('wheel.gif'), { animated: true }).metadata();
    const few = await sharp(tried.rawPayload, { animated: true }).metadata();
    const pace = (delay: number[] = []) => delay.reduce((sum, one) => sum + one, 0);
    expect([all.pages, few.pages]).toEqual([12, 3]);
    expect(pace(few.delay)).toBe(pace(all.delay));
    await decide(decision, wheel);
    await server.prepared();
    const made = (await server.state()).rows
      .find((one) => one.id === wheel)!
      .variants.find((v) => v.slot === 'column' && v.format === 'webp' && v.width === width)!;
    const path = server.parts.vault.variant(made.file, 'webp');
    expect((await readFile(path)).equals(tried.rawPayload)).toBe(true);
    // Two frames stay at least, however few are asked for.
    await decide({ every: 10 }, wheel);
    await server.prepared();
    const least = (await server.state()).rows.find((one) => one.id === wheel)!;
    for (const { file, format } of least.variants.filter((v) => v.slot === 'column')) {
      const bytes = await readFile(server.parts.vault.variant(file, format));
      expect((await sharp(bytes, { animated: true }).metadata()).pages).toBe(2);
    }
    await decide(null, wheel);
    for (const wrong of [1, 0, 11, 2.5, '2'])
      expect((await decide({ every: wrong as number }, wheel)).status).toBe(400);
  });
  test('shows the frame, and the ground, that were decided', async () => {
    await decide({ still: true, frame: 7 }, wheel);
    const own = sharp(await read('wheel.gif'), { page: 7, pages: 1 }).resize(240, 160, { fit: 'fill' });
    const seen = await look({}, wheel);
    expect((await pixelsOf(sharp(seen.rawPayload))).equals(await pixelsOf(own))).toBe(true);
    await decide({ background: '#204060' }, logo);
    const [red, green, blue] = await pixelsOf(sharp((await look({}, logo)).rawPayload));
    expect([red, green, blue]).toEqual([0x20, 0x40, 0x60]);
  });
  test('says where there is nothing to see', async () => {
    await decide(null, wheel);
    await decide(null, logo);
    for (const [photo, sentence] of [
      [wheel, /choose a still/],
      [logo, /nothing to weigh/],
    ] as const) {
      const response = await look({}, photo);
      expect(response.statusCode).toBe(409);
      expect(response.json<{ detail: string }>().detail).toMatch(sentence);
    }
  });
  test.each([
    { width: '0' },
    { width: '99999' },
    { width: '1e3' },
    { quality: '101', format: 'jpeg' },
    { quality: '-1', format: 'avif' },
    { format: 'svg' },
    { format: 'exe' },
    { slot: 'nowhere' },
    { shape: '9:1' },
    { shape: '__proto__' },
  ] as Record<string, string>[])('%j is refused', async (query) => {
    expect((await look(query)).statusCode).toBe(400);
  });
  test('no photo of the set, no picture', async () => {
    expect((await look({}, 99_999)).statusCode).toBe(404);
    expect((await look({}, id, await server.newSet('Other'))).statusCode).toBe(404);
  });
});
