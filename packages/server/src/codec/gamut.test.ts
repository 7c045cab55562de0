// Colours beyond sRGB: found when a photo comes in, and kept with their profile where that is asked for.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BitmapFormat, EncoderSettings } from '@dusky-otter/core/contract';
import { NO_TURNING } from '@dusky-otter/core/geometry';
import sharp from 'sharp';
import { takenInto, type TakenFile } from '../testing/taken.ts';
import { displayP3 } from './gamut.ts';
import { look } from './look.ts';
import { rawOf } from './raw.ts';
import { render } from './render.ts';
import { uncompressedTiff } from './tiff.ts';

let folder: string;
let count = 0;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-gamut-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const SIDE = 64;
type Colour = readonly [number, number, number];

/** A field of one colour with a quarter in another, in Display P3 unless another profile is given. */
async function field(most: Colour, corner: Colour, profile?: Buffer | null): Promise<TakenFile> {
  const data = Buffer.alloc(SIDE * SIDE * 3);
  for (let at = 0; at < SIDE * SIDE; at++)
    data.set(at % SIDE < SIDE / 2 && at < (SIDE * SIDE) / 2 ? corner : most, at * 3);
  const icc = profile === undefined ? await displayP3() : profile;
  const tiff = uncompressedTiff({ data, width: SIDE, height: SIDE, channels: 3 }, icc);
  return takenInto(folder, `field-${++count}.tiff`, tiff);
}

const CALM: Colour = [128, 120, 110];
const RED: Colour = [250, 20, 30];
const WHOLE = { x: 0, y: 0, width: SIDE, height: SIDE };
const SETTINGS: Record<'avif' | 'webp' | 'jpeg', EncoderSettings> = {
  avif: { target: 1, density: 1, effort: 1, gamut: 'p3' },
  webp: { target: 1, density: 1, effort: 4, gamut: 'p3' },
  jpeg: { target: 1, density: 1 },
};

async function made({ path, facts }: TakenFile): Promise<Record<string, Buffer>> {
  const outputs = Object.entries(SETTINGS).map(([format, settings]) => ({
    key: format,
    path: join(folder, `made-${++count}`),
    ...{ width: SIDE, height: SIDE, format: format as BitmapFormat, settings },
  }));
  await render(
    {
      ...{ kind: 'render', path, facts, incoming: folder, turning: NO_TURNING, crop: WHOLE },
      ...{ still: false, outputs },
    },
    { making: () => undefined, made: () => undefined, shouldStop: () => false },
  );
  return Object.fromEntries(
    await Promise.all(outputs.map(async (one) => [one.key, await readFile(one.path)] as const)),
  );
}

/** Codes in the middle of the corner, as the file holds them. */
async function cornerOf(file: Buffer): Promise<number[]> {
  const { data, channels } = await rawOf(sharp(file).keepIccProfile());
  const at = (16 * SIDE + 16) * channels;
  return [...data.subarray(at, at + 3)];
}

const far = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.map((code, n) => Math.abs(code - b[n]!)));

describe('colours beyond sRGB', () => {
  test('are found in what says that it is in Display P3, and has them', async () => {
    expect((await field(CALM, RED)).facts.wide).toBe(true);
    expect((await field(CALM, [140, 90, 80])).facts).not.toHaveProperty('wide');
    // The same codes in sRGB are within it by definition.
    expect((await field(CALM, RED, null)).facts).not.toHaveProperty('wide');
  });
  test('are kept in the modern formats with the profile, and left out of the JPEG', async () => {
    const files = await made(await field(CALM, RED));
    for (const format of ['avif', 'webp'] as const) {
      const { icc } = await sharp(files[format]).metadata();
      expect(icc?.equals(await displayP3())).toBe(true);
      expect(far(await cornerOf(files[format]!), RED)).toBeLessThan(12);
    }
    expect((await sharp(files.jpeg).metadata()).icc).toBeUndefined();
    // Red of P3 is beyond the reddest red of sRGB: its green and blue come out as none.
    expect(far(await cornerOf(files.jpeg!), [255, 0, 0])).toBeLessThan(16);
  });
  test('what is looked at is what is stored, byte for byte, beside the picture in the same colours', async () => {
    const { path, facts } = await field(CALM, RED);
    const { webp } = await made({ path, facts });
    const seen = (format: 'webp' | null, settings: EncoderSettings) =>
      look({
        ...{ kind: 'look', path, facts, turning: NO_TURNING, frame: 0, background: null, crop: WHOLE },
        ...{ width: SIDE, height: SIDE, format, settings },
      });
    expect((await seen('webp', SETTINGS.webp)).file.equals(webp!)).toBe(true);
    const { file } = await seen(null, { lossless: true, gamut: 'p3' });
    expect(await cornerOf(file)).toEqual([...RED]);
    expect(far(await cornerOf((await seen(null, { lossless: true })).file), [255, 0, 0])).toBeLessThan(2);
  });
});
