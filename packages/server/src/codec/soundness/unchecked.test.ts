// Data without checksums: what was garbled is told from what is sound by what its data is used up by, and how it looks.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chance } from '@dusky-otter/core/chance';
import sharp, { type Sharp } from 'sharp';
import { DEMO } from '../../testing/server.ts';
import { takenInto } from '../../testing/taken.ts';
import { codedPicture, slicesOf } from './heif-items.ts';
import { inventedPart } from './invented.ts';
import { jpegComplaint } from './jpeg.ts';
import { pngComplaint } from './png.ts';
import { seamIn, type Means } from './seam.ts';
import { tiffComplaint } from './tiff.ts';
import { webpComplaint } from './webp.ts';

const HEIC = resolve(import.meta.dirname, '../../testing/heic');

let folder: string;
let photo: Sharp;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-unchecked-'));
  photo = sharp(await sharp(join(DEMO, 'photos/GM_0418.JPG')).resize(400).png().toBuffer());
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Copies with one bit turned, somewhere between two places. */
function* flipped(file: Buffer, from: number, to: number, count: number, seed = 5): Generator<Buffer> {
  const { whole } = chance(seed);
  for (let n = 0; n < count; n++) {
    const copy = Buffer.from(file);
    const at = whole(from, to);
    copy[at] = copy[at]! ^ (1 << whole(0, 7));
    yield copy;
  }
}

/** Pictures that the strict decoder lets pass although they look otherwise than the sound one. */
async function otherwise(copies: Iterable<Buffer>, sound: Buffer): Promise<Buffer[]> {
  const seen = (file: Buffer) =>
    sharp(file, { failOn: 'warning' })
      .resize(64)
      .removeAlpha()
      .raw()
      .toBuffer()
      .catch(() => null);
  const right = (await seen(sound))!;
  const found: Buffer[] = [];
  for (const copy of copies) {
    const pixels = await seen(copy);
    if (!pixels) continue;
    const off = pixels.reduce((sum, value, at) => sum + Math.abs(value - right[at]!), 0) / pixels.length;
    if (off >= 4) found.push(copy);
  }
  return found;
}

describe('a WebP', () => {
  test.each([
    ['lossy', (p: Sharp) => p.webp({ quality: 70 }), 0.7],
    // Where a code keeps its length nothing falls out of step: the picture is another, and its data is as long.
    ['lossless', (p: Sharp) => p.webp({ lossless: true, effort: 1 }), 0.2],
  ] as const)('%s with a bit turned is found where a decoder says nothing', async (_, make, least) => {
    const sound = await make(photo.clone()).toBuffer();
    expect(await webpComplaint(sound)).toBeNull();
    const wrong = await otherwise(flipped(sound, 60, sound.length - 200, 60), sound);
    expect(wrong.length).toBeGreaterThan(8);
    let found = 0;
    for (const copy of wrong) if (await webpComplaint(copy)) found += 1;
    expect(found / wrong.length).toBeGreaterThan(least);
  });
});

describe('the tables of a JPEG', () => {
  test.each([0, 1, 2, 3, 8])('of kind %d are sound at any quality', async (quantisationTable) => {
    const small = await photo.clone().resize(16).png().toBuffer();
    for (let quality = 1; quality <= 100; quality += 3)
      expect(jpegComplaint(await sharp(small).jpeg({ quality, quantisationTable }).toBuffer())).toBeNull();
  });
  test('are garbled where one number is far off', async () => {
    const sound = await photo.clone().jpeg({ quality: 80 }).toBuffer();
    const first = sound.indexOf(Buffer.from([0xff, 0xdb])) + 5;
    for (let at = first; at < first + 64; at++) {
      const copy = Buffer.from(sound);
      copy[at]! ^= 0x40;
      expect(jpegComplaint(copy)).toMatchObject({ sentence: 'a table that its data needs is garbled' });
    }
  });
});

describe('a TIFF', () => {
  test.each([
    ['deflate in strips', (p: Sharp) => p.tiff({ compression: 'deflate', predictor: 'horizontal' })],
    [
      'deflate in tiles',
      (p: Sharp) => p.tiff({ compression: 'deflate', tile: true, tileWidth: 128, tileHeight: 128 }),
    ],
    ['LZW', (p: Sharp) => p.tiff({ compression: 'lzw', predictor: 'none' })],
    ['JPEG', (p: Sharp) => p.tiff({ compression: 'jpeg' })],
  ] as const)('%s is sound, and is not with a bit turned', async (kind, make) => {
    const sound = await make(photo.clone()).toBuffer();
    expect(tiffComplaint(sound)).toBeNull();
    const wrong = await otherwise(flipped(sound, 100, sound.length - 600, 60), sound);
    const found = wrong.filter((copy) => tiffComplaint(copy));
    // LZW and JPEG have no checksum: what falls into step again can't be told.
    if (kind.startsWith('deflate')) expect(found).toHaveLength(wrong.length);
    else expect(found.length).toBeGreaterThanOrEqual(wrong.length * 0.3);
  });
  test('that points beyond its end says so', async () => {
    const sound = await photo.clone().tiff({ compression: 'deflate' }).toBuffer();
    expect(tiffComplaint(sound.subarray(0, sound.length / 2))).toMatchObject({ share: 0 });
  });
});

describe('a PNG', () => {
  const taller = async (make: (p: Sharp) => Sharp, at: number) => {
    const file = await make(photo.clone()).png().toBuffer();
    const copy = Buffer.from(file);
    copy.writeUInt32BE(copy.readUInt32BE(at) - 40, at);
    return { file, copy };
  };
  test.each([
    ['width', 16],
    ['height', 20],
  ])('whose header says a smaller %s than its data is found', async (_, at) => {
    const { file, copy } = await taller((p) => p, at);
    expect(await pngComplaint(file, true)).toBeNull();
    expect((await pngComplaint(copy, true))?.sentence).toMatch(/more data than the picture has place for/);
  });
  test.each([1, 2, 3, 5, 8, 33])('interlaced, %d px wide, has as much data as it says', async (width) => {
    const file = await photo.clone().resize(width, 7, { fit: 'fill' }).png({ progressive: true }).toBuffer();
    expect(await pngComplaint(file, true)).toBeNull();
  });
});

describe('a HEIC', () => {
  test('is read by its boxes: one picture, or the tiles of a grid, and their slices', async () => {
    for (const name of ['plain', 'turned', 'several', 'deep']) {
      const file = await readFile(join(HEIC, `${name}.heic`));
      const coded = codedPicture(file)!;
      expect(coded.items.length).toBeGreaterThan(0);
      for (const item of coded.items) expect(slicesOf(file, item).length).toBeGreaterThan(0);
    }
    expect(codedPicture(Buffer.from('no boxes at all'))).toBeNull();
  });
  test('with a bit turned is refused, marked, or what it was', async () => {
    const sound = await readFile(join(HEIC, 'several.heic'));
    const [item] = codedPicture(sound)!.items;
    const [slice] = slicesOf(sound, item!).slice(-1);
    const { facts } = await takenInto(folder, 'sound.heic', sound);
    expect(facts.damage).toBeNull();
    const colours: string[] = [];
    for (const copy of flipped(sound, slice!.from + 8, slice!.to - 20, 24)) {
      const taken = await takenInto(folder, 'flipped.heic', copy).catch(() => null);
      if (taken?.facts.damage === null) colours.push(taken.facts.colour);
    }
    // Whatever passes unmarked looks as the sound one does.
    const near = (a: string, b: string) =>
      [1, 3, 5].every(
        (at) => Math.abs(parseInt(a.slice(at, at + 2), 16) - parseInt(b.slice(at, at + 2), 16)) <= 4,
      );
    expect(colours.filter((colour) => !near(colour, facts.colour))).toEqual([]);
  });
});

describe('what was decoded', () => {
  const flat = (rgb: [number, number, number]) => ({
    ...{ width: 40, height: 30, channels: 3 as const },
    data: Buffer.from(Array.from({ length: 1200 }, () => rgb).flat()),
  });
  test('nothing in it is a green of its own', () => {
    expect(inventedPart(flat([0, 135, 0]))).toBe(1);
    for (const rgb of [
      [0, 128, 0],
      [34, 139, 34],
      [0, 0, 0],
      [128, 128, 128],
    ] as [number, number, number][])
      expect(inventedPart(flat(rgb))).toBe(0);
  });
});

describe('a seam', () => {
  const { whole } = chance(8);
  const columns = 60;
  const rows = 40;
  /** A picture of soft hills with some grain. */
  const hills = (): Means => ({
    ...{ columns, rows, quantum: 1 },
    values: Float32Array.from({ length: columns * rows }, (_, n) => {
      const [x, y] = [n % columns, Math.floor(n / columns)];
      return 40 * Math.sin(x / 9) + 30 * Math.cos(y / 7) + whole(-2, 2);
    }),
  });
  const shifted = (from: number, by: number): Means => {
    const means = hills();
    for (let n = from; n < means.values.length; n++) means.values[n]! += by;
    return means;
  };
  test('is found where everything behind a block is shifted', () => {
    for (const by of [-30, -14, 14, 40]) expect(seamIn(shifted(17 * columns + 25, by))).toBe(17);
  });
  test('is none where means are kept so coarsely that a slope has such steps', () => {
    expect(seamIn({ ...shifted(17 * columns + 25, 14), quantum: 8 })).toBeNull();
  });
  test('is none where nothing is, where an edge runs across, and where one is tilted', () => {
    expect(seamIn(hills())).toBeNull();
    expect(seamIn(shifted(17 * columns, 40))).toBeNull();
    const tilted = hills();
    for (let n = 0; n < tilted.values.length; n++) {
      const [x, y] = [n % columns, Math.floor(n / columns)];
      tilted.values[n]! += 60 * Math.min(1, Math.max(0, y - 18 + x / columns));
    }
    expect(seamIn(tilted)).toBeNull();
  });
  test('in a JPEG whose difference of a mean was garbled is said', async () => {
    const file = await photo.clone().jpeg({ quality: 85, optimiseCoding: false }).toBuffer();
    const scan = file.indexOf(Buffer.from([0xff, 0xda]));
    const wrong = await otherwise(flipped(file, scan + 300, file.length - 900, 150), file);
    const said = wrong.map((copy) => jpegComplaint(copy)?.sentence);
    expect(said.some((sentence) => sentence === 'its colours are shifted from some row on')).toBe(true);
    expect(said.filter(Boolean).length / wrong.length).toBeGreaterThan(0.5);
  });
});
