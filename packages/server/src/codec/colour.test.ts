// Colours come out right whatever space they came in: charts beside conversions that are computed here, in CIEDE2000.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { deltaE2000, labOf } from '../testing/delta-e.ts';
import { takenInto } from '../testing/taken.ts';
import { displayP3 } from './heic.ts';
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
  const data = Buffer.alloc(width * PATCH * 3);
  for (let y = 0; y < PATCH; y++)
    chart.forEach((colour, n) => {
      for (let x = 0; x < PATCH; x++) data.set(colour, (y * width + n * PATCH + x) * 3);
    });
  return { data, width, height: PATCH, channels: 3 as const };
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
