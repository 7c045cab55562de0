// What a frame makes of pixels: where a mark of the photo lies afterwards, by the order of the contract.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Turning } from '@dusky-otter/core/contract';
import { automaticCrop, frameSpace } from '@dusky-otter/core/geometry';
import { sampleFrame } from '../../../core/src/testing/sample.ts';
import { photoWithSquare } from '../testing/server.ts';
import { takenInto, type TakenFile } from '../testing/taken.ts';
import type { RawPicture } from './raw.ts';
import { decodeCrop } from './source.ts';

let folder: string;
let taken: TakenFile;
/** The square's middle, as fractions of the upright picture. */
const MARK = { x: 0.25, y: 0.75 };
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'otter-framed-'));
  taken = await takenInto(folder, 'mark.jpg', await photoWithSquare(600, 400, MARK));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Middle of the red pixels. */
function markIn({ data, width, height, channels }: RawPicture): { x: number; y: number; pixels: number } {
  let [x, y, pixels] = [0, 0, 0];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const at = (row * width + column) * channels;
      if (data[at]! < 190 || data[at + 1]! > 80) continue;
      [x, y, pixels] = [x + column + 0.5, y + row + 0.5, pixels + 1];
    }
  return { x: x / pixels, y: y / pixels, pixels };
}

/** Where the mark lies in the space of the crops. */
function expected({ mirrored, turns, angle }: Turning): { x: number; y: number } {
  let [width, height] = [600, 400];
  let [x, y] = [(mirrored ? 1 - MARK.x : MARK.x) * width, MARK.y * height];
  for (let n = 0; n < turns; n++) {
    [x, y] = [height - y, x];
    [width, height] = [height, width];
  }
  const box = frameSpace({ width: 600, height: 400 }, { mirrored, turns, angle });
  const [sin, cos] = [Math.sin((angle * Math.PI) / 180), Math.cos((angle * Math.PI) / 180)];
  const [dx, dy] = [x - width / 2, y - height / 2];
  return { x: box.width / 2 + dx * cos - dy * sin, y: box.height / 2 + dx * sin + dy * cos };
}

const turnings: Turning[] = [false, true].flatMap((mirrored) =>
  ([0, 1, 2, 3] as const).flatMap((turns) => [0, 7.5, -12].map((angle) => ({ mirrored, turns, angle }))),
);

describe('a framed picture', () => {
  test.each(turnings)('has its mark where the contract says: %j', async (turning) => {
    const box = frameSpace(taken.facts, turning);
    const whole = await decodeCrop(taken.path, taken.facts, { x: 0, y: 0, ...box }, { turning });
    expect([whole.width, whole.height]).toEqual([box.width, box.height]);
    const mark = markIn(whole);
    expect(mark.pixels).toBeGreaterThan(1500);
    expect(Math.hypot(mark.x - expected(turning).x, mark.y - expected(turning).y)).toBeLessThan(1.5);
  });
  test.each([7.5, -12, 15])('straightened by %d° shows nothing beside itself in its crops', async (angle) => {
    const frame = sampleFrame({ angle, focal: { x: 0, y: 1, confirmed: true } });
    const crop = automaticCrop({ original: taken.facts, frame }, '3:1');
    const { data, channels } = await decodeCrop(taken.path, taken.facts, crop, { turning: frame });
    let darkest = 255;
    for (let at = 0; at < data.length; at += channels) darkest = Math.min(darkest, data[at]!);
    // The ground is grey (128); what lies beside is black.
    expect(darkest).toBeGreaterThan(90);
  });
});
