// Colours come out right whatever space they came in: charts beside conversions that are computed here, in CIEDE2000.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { deltaE2000, labOf } from '../testing/delta-e.ts';
import { inkModelOf, inkProfile, inksAsRgb, type InkModel } from '../testing/icc-lut.ts';
import { takenInto } from '../testing/taken.ts';
import { displayP3 } from './gamut.ts';
import { decodeCrop } from './source.ts';
import { uncompressedTiff } from './tiff.ts';

let folder: string;
let count = 0;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-colour-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Patches of 16 px; what a chart shows. */
type Chart = readonly (readonly number[])[];
const PATCH = 16;

const CHART: Chart = [
  [0, 0, 0],
  [255, 255, 255],
  [128, 128, 128],
  [64, 60, 70],
  [200, 180, 160],
  [150, 40, 40],
  [40, 120, 60],
  [50, 70, 150],
  [190, 150, 50],
  [90, 160, 170],
  [170, 90, 130],
  [230, 220, 200],
];

/** Pixels of a chart, a patch behind the other. */
function pixelsOf(chart: Chart) {
  const width = chart.length * PATCH;
  const channels = chart[0]!.length as 3 | 4;
  const data = Buffer.alloc(width * PATCH * channels);
  for (let y = 0; y < PATCH; y++)
    chart.forEach((colour, n) => {
      for (let x = 0; x < PATCH; x++) data.set(colour, (y * width + n * PATCH + x) * channels);
    });
  return { data, width, height: PATCH, channels };
}
const pictureOf = (chart: Chart) => {
  const { data, width, height, channels } = pixelsOf(chart);
  return sharp(data, { raw: { width, height, channels } });
};

/** What the application makes of a chart in a file: the middle of each patch. */
async function seen(file: Buffer, patches: number): Promise<number[][]> {
  const { path, facts } = await takenInto(folder, `chart-${++count}`, file);
  const whole = { x: 0, y: 0, width: facts.width, height: facts.height };
  const { data, width, channels } = await decodeCrop(path, facts, whole);
  return Array.from({ length: patches }, (_, n) => {
    const at = ((PATCH / 2) * width + n * PATCH + PATCH / 2) * channels;
    return channels < 3 ? [data[at]!, data[at]!, data[at]!] : [...data.subarray(at, at + 3)];
  });
}

/** The worst of the patches. */
const worst = (found: Chart, expected: Chart): number =>
  Math.max(...found.map((colour, n) => deltaE2000(labOf(colour), labOf(expected[n]!))));

/** Display P3 values as sRGB (CSS Color 4, 17: both have one transfer curve and D65). */
function fromP3(colour: readonly number[]): number[] {
  const [r, g, b] = colour.map((v) =>
    v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4,
  ) as [number, number, number];
  return [
    1.2249401762805598 * r - 0.22494017628055996 * g,
    -0.042056954709688163 * r + 1.0420569547096881 * g,
    -0.019637554590334432 * r - 0.078636045550631889 * g + 1.0982736001409663 * b,
  ].map((linear) => {
    const c = Math.min(1, Math.max(0, linear));
    return 255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
  });
}

test('the measure itself: pairs of the paper it comes from', () => {
  const pairs: [[number, number, number], [number, number, number], number][] = [
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ];
  for (const [a, b, expected] of pairs) expect(deltaE2000(a, b)).toBeCloseTo(expected, 4);
});

describe('a chart comes out within 2 of what it is', () => {
  test('in Display P3, without loss and as a JPEG', async () => {
    const expected = CHART.map(fromP3);
    // The values differ from plain ones by more than is allowed: a profile that was passed over would show.
    expect(worst(CHART, expected)).toBeGreaterThan(3);
    const tiff = uncompressedTiff(pixelsOf(CHART), await displayP3());
    expect(worst(await seen(tiff, CHART.length), expected)).toBeLessThan(2);
    const jpeg = await pictureOf(CHART)
      .withIccProfile('p3')
      .jpeg({ quality: 98, chromaSubsampling: '4:4:4' })
      .toBuffer();
    expect(worst(await seen(jpeg, CHART.length), CHART)).toBeLessThan(2);
  });
  test('with 16 bits a channel', async () => {
    const { data, width, height } = pixelsOf(CHART);
    const deep = Uint16Array.from(data, (value) => value * 257);
    const file = await sharp(deep, { raw: { width, height, channels: 3 } })
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    expect((await sharp(file).metadata()).depth).toBe('ushort');
    expect(worst(await seen(file, CHART.length), CHART)).toBeLessThan(0.5);
  });
  test('in grey, with 8 and 16 bits', async () => {
    const greys = [0, 40, 90, 128, 200, 255].map((value) => [value, value, value]);
    for (const space of ['b-w', 'grey16']) {
      const file = await pictureOf(greys).toColourspace(space).png().toBuffer();
      expect(worst(await seen(file, greys.length), greys)).toBeLessThan(1);
    }
  });
});

describe('a chart of four inks comes out within 2 of what its profile says', () => {
  /** Cyan, magenta, yellow, black, 0 to 255: paper, each ink full and half, overprints, skin, shadows. */
  const INKS: Chart = [
    [0, 0, 0, 0],
    [255, 0, 0, 0],
    [0, 255, 0, 0],
    [0, 0, 255, 0],
    [0, 0, 0, 255],
    [128, 0, 0, 0],
    [0, 128, 0, 0],
    [0, 0, 128, 0],
    [0, 0, 0, 128],
    [255, 255, 0, 0],
    [0, 255, 255, 0],
    [255, 0, 255, 0],
    [40, 90, 100, 10],
    [100, 60, 60, 120],
    [190, 170, 160, 220],
    [17, 201, 143, 33],
  ];
  /** Inks that multiply what the paper reflects, in L*a*b* for want of spectra. */
  const invented: InkModel = ([c, m, y, k]) => {
    const light = (1 - 0.42 * c!) * (1 - 0.5 * m!) * (1 - 0.1 * y!) * (1 - 0.88 * k!);
    const left = 1 - 0.9 * k!;
    return [100 * light, left * (70 * m! - 34 * c! - 4 * y!), left * (84 * y! - 46 * c! - 6 * m!)];
  };
  const expectedBy = (model: InkModel) =>
    INKS.map((inks) =>
      inksAsRgb(
        model,
        inks.map((value) => value / 255),
      ),
    );
  const asJpeg = (tiff: Buffer) =>
    sharp(tiff).pipelineColourspace('cmyk').toColourspace('cmyk').keepIccProfile().jpeg({ quality: 100 });

  /** The profile that stands in where a file has none, as the picture library brings it along. */
  async function standIn(): Promise<InkModel> {
    const pixel = { create: { width: 1, height: 1, channels: 3 as const, background: '#fff' } };
    const inks = await sharp(pixel).toColourspace('cmyk').withIccProfile('cmyk').tiff().toBuffer();
    return inkModelOf((await sharp(inks).metadata()).icc!);
  }

  test('the reader of profiles finds what the formula says', () => {
    const read = inkModelOf(inkProfile(invented));
    for (const inks of [
      [0, 0, 0, 0],
      [0.125, 1, 0.5, 0.25],
    ])
      read(inks).forEach((value, n) => expect(value).toBeCloseTo(invented(inks)[n]!, 1));
  });
  test('with a profile of its own', async () => {
    const profile = inkProfile(invented);
    const expected = expectedBy(inkModelOf(profile));
    // It is no other's: a profile that was passed over would show.
    expect(worst(expectedBy(await standIn()), expected)).toBeGreaterThan(5);
    const tiff = uncompressedTiff(pixelsOf(INKS), profile, 'inks');
    expect(worst(await seen(tiff, INKS.length), expected)).toBeLessThan(2);
    const jpeg = await asJpeg(tiff).toBuffer();
    expect((await sharp(jpeg).metadata()).space).toBe('cmyk');
    expect(worst(await seen(jpeg, INKS.length), expected)).toBeLessThan(2);
  });
  test('without one', async () => {
    const expected = expectedBy(await standIn());
    const tiff = uncompressedTiff(pixelsOf(INKS), null, 'inks');
    expect(worst(await seen(tiff, INKS.length), expected)).toBeLessThan(2);
    expect(worst(await seen(await asJpeg(tiff).toBuffer(), INKS.length), expected)).toBeLessThan(2);
  });
});
