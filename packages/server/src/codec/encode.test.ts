// What encoders are told: the recipes reach the files, and 10 bits change no flat colour.
import { describe, expect, test } from '@jest/globals';
import { QUICK, settingsFor } from '@dusky-otter/core/weight';
import sharp from 'sharp';
import { decode, encode } from './encode.ts';
import { inputIn } from './gamut.ts';
import type { RawPicture } from './raw.ts';
import { shortened } from './short-way.ts';

const [WIDTH, HEIGHT] = [96, 64];
const photograph = { kind: 'photograph', lossless: false } as const;
const told = (format: 'avif' | 'webp' | 'jpeg', quality: number) =>
  settingsFor(format, photograph, { target: 2, density: 1, pixels: WIDTH * HEIGHT, pinned: quality });

const flat = (code: number, channels: 3 | 4 = 3): RawPicture => ({
  ...{ width: WIDTH, height: HEIGHT, channels },
  data: Buffer.alloc(WIDTH * HEIGHT * channels, code),
});

/** From black to a dark grey in 24 codes. */
function dusk(): RawPicture {
  const data = Buffer.alloc(WIDTH * HEIGHT * 3);
  for (let i = 0; i < WIDTH * HEIGHT; i++)
    data.fill(Math.round(((i % WIDTH) / WIDTH) * 24), i * 3, i * 3 + 3);
  return { data, width: WIDTH, height: HEIGHT, channels: 3 };
}

describe('an AVIF of 10 bits', () => {
  test.each(['srgb', 'p3'] as const)('in %s: black, white and greys stay what they were', async (space) => {
    const gamut = space === 'p3' ? 'p3' : undefined;
    for (const code of [0, 1, 37, 128, 200, 254, 255]) {
      const file = await encode(await inputIn(flat(code), gamut, 10), 'avif', told('avif', 90));
      const { data, channels } = await decode(file, gamut);
      expect(channels).toBe(3);
      for (const own of new Set(data))
        expect(Math.abs(own - code)).toBeLessThanOrEqual(code % 255 === 0 ? 0 : 1);
    }
  });
  test('is one picture of 10 bits with its profile or none, without Exif', async () => {
    for (const gamut of [undefined, 'p3'] as const) {
      const file = await encode(await inputIn(flat(90), gamut, 10), 'avif', told('avif', 60));
      const { bitsPerSample, pages, exif, hasProfile, chromaSubsampling } = await sharp(file).metadata();
      expect({ bitsPerSample, pages, exif, hasProfile }).toEqual({
        ...{ bitsPerSample: 10, pages: 1, exif: undefined },
        hasProfile: gamut === 'p3',
      });
      expect(chromaSubsampling ?? '4:4:4').toBe('4:4:4');
    }
  });
  test('of 8 bits is read as it is, white and all', async () => {
    const file = await encode(await inputIn(flat(255), undefined), 'avif', { quality: 90, effort: 1 });
    expect(new Set((await decode(file)).data)).toEqual(new Set([255]));
  });
  test('keeps what is see-through', async () => {
    const half = flat(128, 4);
    const file = await encode(await inputIn(half, undefined, 10), 'avif', told('avif', 80));
    const { data, channels } = await decode(file);
    expect(channels).toBe(4);
    expect(Math.abs(data[3]! - 128)).toBeLessThanOrEqual(1);
  });
});

describe('a JPEG', () => {
  test.each([true, false])('is progressive where that is wanted: %s', async (progressive) => {
    const settings = settingsFor(
      'jpeg',
      photograph,
      { target: 2, density: 1, pixels: WIDTH * HEIGHT, pinned: 70 },
      { progressive },
    );
    const file = await encode(await inputIn(dusk(), undefined), 'jpeg', settings);
    expect((await sharp(file).metadata()).isProgressive).toBe(progressive);
  });
  test('has the recipe’s table', async () => {
    const picture = await inputIn(dusk(), undefined);
    const tableOf = (file: Buffer) =>
      file.subarray(file.indexOf(Buffer.from([0xff, 0xdb])) + 5).subarray(0, 64);
    const own = await encode(picture, 'jpeg', told('jpeg', 70));
    const same = await encode(picture, 'jpeg', { quality: 70, table: QUICK.jpeg.table! });
    const plain = await encode(picture, 'jpeg', { quality: 70 });
    expect(tableOf(own).equals(tableOf(same))).toBe(true);
    expect(tableOf(own).equals(tableOf(plain))).toBe(false);
  });
});

describe('the short way', () => {
  test('takes no more effort than it must, and touches nothing else', () => {
    expect(shortened('webp', { target: 2, effort: 6 }, true)).toEqual({ target: 2, effort: 2 });
    expect(shortened('avif', { quality: 50, effort: 3, bitDepth: 10 }, true)).toEqual({
      ...{ quality: 50, effort: 0, bitDepth: 10 },
    });
  });
  test('is not taken where it was not asked for, nor thoroughly, without loss or in other formats', () => {
    const asked = { target: 2, effort: 6 };
    expect(shortened('webp', asked, false)).toBe(asked);
    for (const other of [
      { ...asked, thorough: true },
      { lossless: true, effort: 4 },
    ])
      expect(shortened('webp', other, true)).toBe(other);
    expect(shortened('png', asked, true)).toBe(asked);
  });
});

describe('a PNG beside a photograph that is see-through', () => {
  const data = Buffer.alloc(WIDTH * HEIGHT * 4);
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    data.set([(x * 7 + y * 3) % 256, (x * x + y) % 256, (x * y) % 256, x < 8 ? 0 : 255], i * 4);
  }
  const picture: RawPicture = { data, width: WIDTH, height: HEIGHT, channels: 4 };
  const settings = settingsFor(
    'png',
    { kind: 'transparent-graphic', lossless: false },
    { target: 2, density: 1, pixels: WIDTH * HEIGHT },
  );
  test('has a palette, a part of the bytes, and its transparency', async () => {
    const [file, exact] = await Promise.all([
      encode(await inputIn(picture, undefined), 'png', settings),
      encode(await inputIn(picture, undefined), 'png', { lossless: true, effort: 7 }),
    ]);
    expect(file.length).toBeLessThan(exact.length / 2);
    expect((await sharp(file).metadata()).isPalette).toBe(true);
    const { data: seen, channels } = await decode(file);
    expect(channels).toBe(4);
    expect([seen[3], seen[(WIDTH - 1) * 4 + 3]]).toEqual([0, 255]);
  });
  test('is exact where the picture goes out without loss', async () => {
    const lossless = settingsFor(
      'png',
      { kind: 'transparent-graphic', lossless: true },
      { target: 2, density: 1, pixels: WIDTH * HEIGHT },
    );
    expect(lossless.lossless).toBe(true);
    const file = await encode(await inputIn(picture, undefined), 'png', lossless);
    expect((await decode(file)).data.equals(data)).toBe(true);
  });
});
