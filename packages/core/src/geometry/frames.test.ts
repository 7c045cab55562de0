// Straightening against search by trying, and frames copied from photo to photo.
import { describe, expect, test } from '@jest/globals';
import type { Rect, ShapeId, Size } from '../contract/index.ts';
import { chance } from '../chance/chance.ts';
import { copyFrame } from './copy-frame.ts';
import { cover, cropProblem, ratioOf } from './geometry.ts';
import { largestTurned, straighten, turnedBox } from './straighten.ts';

/** Whether all corners of a rectangle in the turned box lie inside the picture, by turning them back. */
function inside(rect: Rect, picture: Size, degrees: number, slack = 1e-6): boolean {
  const box = turnedBox(picture, degrees);
  const angle = (-degrees * Math.PI) / 180;
  return [
    [rect.x, rect.y],
    [rect.x + rect.width, rect.y],
    [rect.x, rect.y + rect.height],
    [rect.x + rect.width, rect.y + rect.height],
  ].every(([x, y]) => {
    const [dx, dy] = [x! - box.width / 2, y! - box.height / 2];
    const px = dx * Math.cos(angle) - dy * Math.sin(angle);
    const py = dx * Math.sin(angle) + dy * Math.cos(angle);
    return Math.abs(px) <= picture.width / 2 + slack && Math.abs(py) <= picture.height / 2 + slack;
  });
}

/** Widest rectangle of a ratio that fits anywhere, by trying widths and middles on a grid. */
function widestByTrying(picture: Size, ratio: number, degrees: number): number {
  const box = turnedBox(picture, degrees);
  for (let width = box.width; width > 0; width--) {
    const height = width / ratio;
    for (let x = 0; x <= box.width - width; x += 0.5) {
      for (let y = 0; y <= box.height - height; y += 0.5) {
        if (inside({ x, y, width, height }, picture, degrees)) return width;
      }
    }
  }
  return 0;
}

describe('straightening', () => {
  test('by hand: a square turned by 15°', () => {
    // c (cos 15° + sin 15°) = 1000: c = 1000 ÷ 1.224745.
    expect(largestTurned({ width: 1000, height: 1000 }, 1, 15)).toBeCloseTo(816.497, 2);
    expect(largestTurned({ width: 1000, height: 1000 }, 1, -15)).toBeCloseTo(816.497, 2);
    expect(turnedBox({ width: 1000, height: 1000 }, 15)).toEqual({ width: 1225, height: 1225 });
    expect(turnedBox({ width: 30, height: 20 }, 0)).toEqual({ width: 30, height: 20 });
  });
  test('at 0° it is the automatic crop', () => {
    const focal = { x: 0.2, y: 0.8 };
    expect(straighten({ width: 3000, height: 2000 }, 1, 0, focal)).toEqual(
      cover({ width: 3000, height: 2000 }, 1, focal),
    );
  });
  test.each([
    [{ width: 24, height: 16 }, 1.5, 10],
    [{ width: 24, height: 16 }, 1, -15],
    [{ width: 16, height: 24 }, 3, 7],
    [{ width: 30, height: 12 }, 0.8, 4],
  ] as const)('no wider rectangle fits into %j at %d, turned by %d°', (picture, ratio, degrees) => {
    const widest = largestTurned(picture, ratio, degrees);
    const tried = widestByTrying(picture, ratio, degrees);
    expect(tried).toBeLessThanOrEqual(widest + 1e-6);
    // Trying goes in whole px of width and half px of place.
    expect(tried).toBeGreaterThan(widest - 2);
  });
  test('any picture, ratio, angle and focal point: inside, nearly the largest, of the ratio', () => {
    const luck = chance(41);
    for (let i = 0; i < 500; i++) {
      const picture = { width: luck.whole(60, 5000), height: luck.whole(60, 5000) };
      const ratio = luck.pick([3, 1.5, 1, 0.8, picture.width / picture.height]);
      const degrees = luck.next() * 30 - 15;
      const rect = straighten(picture, ratio, degrees, { x: luck.next(), y: luck.next() });
      expect(inside(rect, picture, degrees, 1e-6)).toBe(true);
      // The pixel that stays free for rounding costs a flat rectangle its ratio in width.
      expect(rect.width).toBeGreaterThan(largestTurned(picture, ratio, degrees) - 3 - 2 * Math.max(1, ratio));
      expect(Math.abs(rect.height - rect.width / ratio)).toBeLessThanOrEqual(0.5);
      for (const value of Object.values(rect)) expect(Number.isInteger(value)).toBe(true);
    }
  });
  test('goes to the focal point as far as the turned edges allow', () => {
    const picture = { width: 3000, height: 1000 };
    const [left, middle, right] = [0, 0.5, 1].map((x) => straighten(picture, 1, 5, { x, y: 0.5 }).x);
    expect(left!).toBeLessThan(middle! - 500);
    expect(right!).toBeGreaterThan(middle! + 500);
  });
  test('beyond 15° and no number are errors', () => {
    for (const degrees of [15.1, -16, NaN]) {
      expect(() => straighten({ width: 9, height: 9 }, 1, degrees, { x: 0, y: 0 })).toThrow(RangeError);
    }
  });
});

describe('copying a frame', () => {
  test('by hand: half as wide, touching the right edge', () => {
    const frame = { x: 1500, y: 250, width: 1500, height: 1500 };
    const copied = copyFrame(frame, '1:1', { width: 3000, height: 2000 }, { width: 1000, height: 2000 });
    // Three quarters of the largest square; no room is left to the right; half of the room is above.
    expect(copied).toEqual({ x: 250, y: 625, width: 750, height: 750 });
  });
  test('to a picture of the same size it is the same frame', () => {
    const luck = chance(42);
    for (let i = 0; i < 300; i++) {
      const size = { width: luck.whole(50, 4000), height: luck.whole(50, 4000) };
      const shape = luck.pick<ShapeId>(['3:1', '1:1', '4:5', '3:2']);
      const whole = cover(size, ratioOf(shape, size), { x: luck.next(), y: luck.next() });
      expect(copyFrame(whole, shape, size, size)).toEqual(whole);
    }
  });
  test('always a right crop of the other picture; as large in proportion', () => {
    const luck = chance(43);
    for (let i = 0; i < 500; i++) {
      const [from, to] = [0, 1].map(() => ({
        width: luck.whole(200, 5000),
        height: luck.whole(200, 5000),
      })) as [Size, Size];
      const shape = luck.pick<ShapeId>(['3:1', '1:1', '4:5', '3:2', 'own']);
      const window = cover(from, shape === 'own' ? 1.3 : ratioOf(shape, from), {
        x: luck.next(),
        y: luck.next(),
      });
      const scale = 0.4 + luck.next() * 0.6;
      const frame = {
        ...window,
        width: Math.round(window.width * scale),
        height: Math.round(window.height * scale),
      };
      const copied = copyFrame(frame, shape, from, to);
      expect([cropProblem(copied, shape, to), copied]).toEqual([null, copied]);
    }
  });
});
