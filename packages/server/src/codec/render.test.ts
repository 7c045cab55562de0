// Variants judged by decoding them: right place, right way up, right colours, right size, nothing but pixels.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OutputFormat, Rect } from '@dusky-otter/core/contract';
import sharp, { type Sharp } from 'sharp';
import { DEMO } from '../testing/server.ts';
import { takenInto, type TakenFile } from '../testing/taken.ts';
import type { MadeVariant } from './protocol.ts';
import { render } from './render.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-codec-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

let count = 0;

const taken = (bytes: Buffer): Promise<TakenFile> => takenInto(folder, `original-${++count}`, bytes);

async function variant(
  { path, facts }: TakenFile,
  crop: Rect,
  width: number,
  height: number,
  format: OutputFormat = 'png',
): Promise<Buffer> {
  const made: MadeVariant[] = [];
  const out = `${path}.${++count}.${format}`;
  const settings = format === 'png' ? { lossless: true } : { quality: 90, effort: 1 };
  const output = { key: 'k', path: out, width, height, format, settings };
  await render(
    {
      kind: 'render',
      path,
      facts,
      incoming: folder,
      turning: NO_TURNING,
      still: false,
      crop,
      outputs: [output],
    },
    { making: () => undefined, made: (variant) => made.push(variant), shouldStop: () => false },
  );
  const bytes = await readFile(out);
  expect(made).toEqual([
    {
      key: 'k',
      bytes: bytes.length,
      contentHash: createHash('sha256').update(bytes).digest('hex'),
      quality: format === 'png' ? null : 90,
      difference: format === 'png' ? 0 : null,
      encodes: 1,
    },
  ]);
  return bytes;
}

async function pixel(bytes: Buffer, x: number, y: number): Promise<number[]> {
  const { data, info } = await sharp(bytes)
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (y * info.width + x) * info.channels;
  return [...data.subarray(at, at + 3)];
}

const RED = { r: 220, g: 30, b: 30 };
const GREEN = { r: 30, g: 160, b: 60 };

/** 80 × 40: the left half red, the right half green, the upper left corner white. */
async function twoHalves(): Promise<Sharp> {
  const half = (background: object) => ({
    create: { width: 40, height: 40, channels: 3 as const, background },
  });
  const corner = { create: { width: 8, height: 8, channels: 3 as const, background: '#ffffff' } };
  const raw = await sharp({ create: { width: 80, height: 40, channels: 3, background: '#000000' } })
    .composite([
      { input: half(RED), left: 0, top: 0 },
      { input: half(GREEN), left: 40, top: 0 },
      { input: corner, left: 0, top: 0 },
    ])
    .png()
    .toBuffer();
  return sharp(raw);
}

describe('orientation', () => {
  // Where the white corner is seen for each EXIF orientation (EXIF 2.32, 4.6.4 A).
  const corners: Record<number, [number, number]> = {
    1: [0, 0],
    2: [1, 0],
    3: [1, 1],
    4: [0, 1],
    5: [0, 0],
    6: [1, 0],
    7: [1, 1],
    8: [0, 1],
  };
  test.each([1, 2, 3, 4, 5, 6, 7, 8])('%i comes out upright', async (orientation) => {
    const source = await taken(
      await (
        await twoHalves()
      )
        .withMetadata({ orientation })
        .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
        .toBuffer(),
    );
    const lying = orientation >= 5;
    const [width, height] = lying ? [40, 80] : [80, 40];
    expect(source.facts).toMatchObject({ width, height, orientation });
    const bytes = await variant(source, { x: 0, y: 0, width, height }, width, height);
    const [right, bottom] = corners[orientation]!;
    const [r, g, b] = await pixel(bytes, right ? width - 3 : 2, bottom ? height - 3 : 2);
    expect(Math.min(r!, g!, b!)).toBeGreaterThan(230);
  });
  test('a crop is cut in upright pixels', async () => {
    const source = await taken(
      await (await twoHalves()).withMetadata({ orientation: 6 }).jpeg({ quality: 100 }).toBuffer(),
    );
    // Upright it is 40 × 80 with red above: the lower half is green.
    const [r, g] = await pixel(await variant(source, { x: 0, y: 44, width: 36, height: 36 }, 18, 18), 9, 9);
    expect(g! - r!).toBeGreaterThan(80);
  });
});

describe('colour', () => {
  test('a Display P3 photo is converted: its red is beyond sRGB’s and ends at 255', async () => {
    const p3 = await sharp({
      create: { width: 32, height: 32, channels: 3, background: { r: 255, g: 0, b: 0 } },
    })
      .withIccProfile('p3')
      .png()
      .toBuffer();
    const source = await taken(p3);
    expect(source.facts.profile).toMatch(/P3/);
    const bytes = await variant(source, { x: 0, y: 0, width: 32, height: 32 }, 32, 32);
    const [r, g, b] = await pixel(bytes, 16, 16);
    expect(r).toBe(255);
    expect(g! + b!).toBeLessThan(12);
    expect((await sharp(bytes).metadata()).icc).toBeUndefined();
  });
  test.each([
    ['CMYK JPEG', 'special/cmyk-print.jpg', 'photos/GM_0412.JPG', 12],
    ['16-bit TIFF', 'special/scan-16bit.tif', 'photos/DSC00307.JPG', 2],
  ])('a %s looks like its photo', async (_, file, twin, tolerance) => {
    const source = await taken(await readFile(join(DEMO, file)));
    const { width, height } = source.facts;
    const made = await sharp(await variant(source, { x: 0, y: 0, width, height }, 60, 40))
      .resize(6, 4, { fit: 'fill' })
      .removeAlpha()
      .raw()
      .toBuffer();
    // The scan shows the middle of its photo at 3:2.
    const seen = await sharp(join(DEMO, twin)).autoOrient().resize(60, 40, { fit: 'cover' }).png().toBuffer();
    const expected = await sharp(seen).resize(6, 4, { fit: 'fill' }).removeAlpha().raw().toBuffer();
    const off = made.reduce((sum, value, i) => sum + Math.abs(value - expected[i]!), 0) / made.length;
    expect(off).toBeLessThan(tolerance);
  });
  test('a grey picture stays grey', async () => {
    const source = await taken(
      await sharp({ create: { width: 30, height: 30, channels: 3, background: '#777777' } })
        .toColourspace('b-w')
        .jpeg()
        .toBuffer(),
    );
    const [r, g, b] = await pixel(
      await variant(source, { x: 0, y: 0, width: 30, height: 30 }, 15, 15, 'jpeg'),
      7,
      7,
    );
    expect(Math.max(r!, g!, b!) - Math.min(r!, g!, b!)).toBeLessThanOrEqual(1);
    expect(Math.abs(r! - 0x77)).toBeLessThan(4);
  });
});

describe('formats', () => {
  test.each(['avif', 'webp', 'jpeg', 'png', 'gif'] as const)(
    '%s has exactly the pixels of the plan and no metadata',
    async (format) => {
      const photo = await readFile(join(DEMO, 'photos/DSC00198.JPG'));
      const source = await taken(photo);
      expect(source.facts).toMatchObject({ hasPosition: true, camera: 'L2' });
      const bytes = await variant(source, { x: 300, y: 0, width: 1800, height: 600 }, 301, 100, format);
      const meta = await sharp(bytes).metadata();
      expect([meta.width, meta.height]).toEqual([301, 100]);
      expect([meta.exif, meta.xmp, meta.iptc]).toEqual([undefined, undefined, undefined]);
      expect(bytes.includes('Lumora')).toBe(false);
      if (format === 'jpeg') expect(meta.isProgressive).toBe(true);
    },
  );
  test('transparency stays', async () => {
    const source = await taken(await readFile(join(DEMO, 'special/notice.png')));
    expect(source.facts.transparent).toBe(true);
    const bytes = await variant(source, { x: 0, y: 0, width: 256, height: 256 }, 64, 64, 'avif');
    const { data } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect(data[3]).toBeLessThan(10);
  });
  test('an animation keeps its frames when cropped', async () => {
    const source = await taken(await readFile(join(DEMO, 'special/wheel.gif')));
    expect(source.facts).toMatchObject({ frames: 12, width: 480, height: 320 });
    for (const format of ['webp', 'gif'] as const) {
      const bytes = await variant(source, { x: 80, y: 0, width: 320, height: 320 }, 100, 100, format);
      const meta = await sharp(bytes, { animated: true }).metadata();
      expect([meta.width, meta.pageHeight, meta.pages]).toEqual([100, 100, 12]);
    }
  });
  test('a drawing is drawn as large as it is asked for', async () => {
    const source = await taken(await readFile(join(DEMO, 'special/logo-gullmoor.svg')));
    expect(source.facts).toMatchObject({ format: 'svg', width: 3200, height: 1600, transparent: true });
    const bytes = await variant(source, { x: 800, y: 0, width: 1600, height: 1600 }, 400, 400);
    expect(await sharp(bytes).metadata()).toMatchObject({ width: 400, height: 400 });
    // The bowl's brown in the middle of the picture.
    const [r, g, b] = await pixel(bytes, 200, 170);
    expect(r! > g! && g! > b!).toBe(true);
  });
});

describe('honesty', () => {
  test('an original that changed on disk is not used', async () => {
    const source = await taken(await (await twoHalves()).png().toBuffer());
    await writeFile(
      source.path,
      await sharp({ create: { width: 80, height: 40, channels: 3, background: '#000' } })
        .png()
        .toBuffer(),
    );
    await expect(variant(source, { x: 0, y: 0, width: 80, height: 40 }, 40, 20)).rejects.toThrow(
      'changed or lost on the disk',
    );
  });
});
