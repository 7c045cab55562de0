// Phones' photos, judged by their pixels. The small files were made by an independent encoder (heif-enc of libheif 1.15);
// turning and colour code points were written into their boxes by hand (ISO/IEC 23008-12, 6.5.10 and ITU-T H.273).
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import sharp from 'sharp';
import { RefusedError } from '../problems.ts';
import { DEMO } from '../testing/server.ts';
import { takenInto } from '../testing/taken.ts';
import { displayP3 } from './gamut.ts';
import { heicHeader } from './heic.ts';
import { decodeCrop } from './source.ts';
import { uncompressedTiff } from './tiff.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-heic-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const FILES = resolve(import.meta.dirname, '../testing/heic');
const bytesOf = (name: string) => readFile(join(FILES, `${name}.heic`));
const taken = async (name: string) => takenInto(folder, name, await bytesOf(name));

/** The colour at a point of the whole picture, as it is cut for variants. */
async function colourAt(name: string, x: number, y: number): Promise<number[]> {
  const { path, facts } = await taken(name);
  const whole = { x: 0, y: 0, width: facts.width, height: facts.height };
  const { data, width, channels } = await decodeCrop(path, facts, whole);
  const at = (y * width + x) * channels;
  return [...data.subarray(at, at + channels)];
}

/** Channels may be a little off: the coding has losses. */
const near = (colour: readonly number[], wanted: readonly number[]) => {
  expect(colour).toHaveLength(wanted.length);
  for (const [n, value] of colour.entries()) expect(Math.abs(value - wanted[n]!)).toBeLessThan(9);
};

describe('a photo of a phone', () => {
  test('is turned as its boxes say, and no more by its Exif', async () => {
    const { facts } = await taken('turned');
    expect(facts).toMatchObject({ format: 'heic', width: 64, height: 96, orientation: 1, frames: 1 });
    // The red square at the upper left has come to the upper right.
    near(await colourAt('turned', 58, 5), [208, 32, 32]);
    near(await colourAt('turned', 5, 5), [128, 128, 128]);
    near(await colourAt('turned', 58, 90), [128, 128, 128]);
  });
  test('with other pictures gives its main one, and says so', async () => {
    const { facts } = await taken('several');
    expect(facts).toMatchObject({ width: 96, height: 64, damage: null });
    expect(facts.aside).toBe(
      'The file holds 3 pictures; its main one is used. Export the others one by one if they are wanted.',
    );
    near(await colourAt('several', 80, 50), [128, 128, 128]);
    expect((await taken('plain')).facts).not.toHaveProperty('aside');
  });
  test('comes from the colours of its profile, embedded or by code points, to those of every screen', async () => {
    const rgb = [255, 32, 0];
    near(await colourAt('plain', 20, 20), rgb);
    // The same values in Display P3 are a red that sRGB can't show: green and blue go to their ends.
    const wide = await sharp(uncompressedTiff(field(rgb, 3), await displayP3()))
      .toColourspace('srgb')
      .raw()
      .toBuffer();
    expect(Math.abs(wide[1]! - 32)).toBeGreaterThan(20);
    near(await colourAt('p3-code-points', 20, 20), [...wide.subarray(0, 3)]);
    // This one was made from the plain red by way of the profile.
    near(await colourAt('p3-profile', 20, 20), rgb);
    for (const name of ['p3-profile', 'p3-code-points'])
      expect((await taken(name)).facts.profile).toBe('Display P3');
  });
  test('of ten bits a channel is read with eight, one with transparency keeps it', async () => {
    near(await colourAt('deep', 20, 20), [128, 64, 32]);
    near(await colourAt('alpha', 20, 20), [200, 40, 40, 128]);
    expect((await taken('alpha')).facts.transparent).toBe(true);
  });
  test('for HDR screens is marked', async () => {
    expect((await taken('hdr')).facts.aside).toMatch(/^Its brightness is made for HDR screens/);
  });
  test('as a phone saves it comes in at its full size', async () => {
    const bytes = await readFile(join(DEMO, 'special', 'phone.heic'));
    const { facts } = await takenInto(folder, 'phone', bytes);
    expect(facts).toMatchObject({ format: 'heic', width: 3000, height: 2000, damage: null });
  });
});

describe('what is no such photo', () => {
  const damaged = (bytes: Buffer, limitPixels?: number) =>
    takenInto(folder, 'damaged', bytes, limitPixels).catch((error: unknown) => error);
  test('a file that ends early is refused', async () => {
    const whole = await bytesOf('several');
    for (const share of [0.05, 0.4, 0.6])
      expect(await damaged(whole.subarray(0, Math.floor(whole.length * share)))).toBeInstanceOf(RefusedError);
  });
  test('a coding that nobody here reads is refused by name', async () => {
    const bytes = await bytesOf('plain');
    // The item claims a coding of raw samples, which has other boxes.
    const at = bytes.indexOf('hvc1', bytes.indexOf('infe'));
    bytes.write('unci', at);
    expect(await damaged(bytes)).toMatchObject({ code: 'unsupported-heic' });
  });
  test('one with too many pixels is refused before they are made', async () => {
    const bytes = await bytesOf('plain');
    // Its data no longer fits its header: whoever decodes it says that it is damaged.
    bytes.writeUInt32BE(100, bytes.indexOf('ispe') + 8);
    expect(await damaged(bytes)).toMatchObject({ code: 'damaged' });
    expect(await damaged(bytes, 3000)).toMatchObject({ code: 'too-many-pixels' });
  });
  test('garbage behind a good beginning makes an error, never a picture', async () => {
    const bytes = Buffer.concat([
      Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'),
      Buffer.alloc(5000, 0x37),
    ]);
    expect(await damaged(bytes)).toBeInstanceOf(RefusedError);
    await expect(heicHeader(join(folder, 'damaged'))).rejects.toThrow();
  });
});

/** 8 × 4 pixels of one colour. */
const field = (colour: number[], channels: 3 | 4) => ({
  data: Buffer.from(Array.from({ length: 32 }, () => colour).flat()),
  width: 8,
  height: 4,
  channels,
});

test.each([
  ['without a profile', [10, 20, 30], false],
  ['with transparency and a profile', [10, 20, 30, 40], true],
])('raw pixels %s are the same in an uncompressed TIFF', async (_, colour, profiled) => {
  const profile = profiled ? await displayP3() : null;
  const tiff = uncompressedTiff(field(colour, colour.length as 3 | 4), profile);
  const meta = await sharp(tiff).metadata();
  expect(meta).toMatchObject({ format: 'tiff', width: 8, height: 4, channels: colour.length });
  expect(meta.icc?.equals(profile ?? Buffer.of())).toBe(profile ? true : undefined);
  const raw = await sharp(tiff).pipelineColourspace('srgb').keepIccProfile().raw().toBuffer();
  expect([...raw.subarray(0, colour.length)]).toEqual(colour);
});
