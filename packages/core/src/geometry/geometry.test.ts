// Geometry against hand-computed examples and against brute force.
import { describe, expect, test } from '@jest/globals';
import type { Rect } from '../contract/index.ts';
import {
  contain,
  cover,
  cropProblem,
  heightFor,
  largestWindow,
  moveRect,
  ratioOf,
  resizeRect,
  roundHalfUp,
} from './geometry.ts';

const inside = (rect: Rect, width: number, height: number) =>
  rect.x >= 0 && rect.y >= 0 && rect.x + rect.width <= width && rect.y + rect.height <= height;

describe('ratios and rounding', () => {
  test('half goes up', () => {
    expect([roundHalfUp(426.5), roundHalfUp(426.49), roundHalfUp(-0.5)]).toEqual([427, 426, 0]);
  });
  test('display heights follow from width and ratio', () => {
    expect(heightFor(1280, 3)).toBe(427);
    expect(heightFor(390, 4 / 5)).toBe(488);
    expect(heightFor(1, 3)).toBe(1);
  });
  test('own is the picture’s ratio; nonsense is refused', () => {
    expect(ratioOf('own', { width: 300, height: 200 })).toBe(1.5);
    expect(ratioOf('4:5', { width: 1, height: 1 })).toBe(0.8);
    expect(() => ratioOf('0:5', { width: 1, height: 1 })).toThrow('not a ratio');
  });
});

describe('contain', () => {
  test('shrinks to the tighter side and never enlarges', () => {
    expect(contain({ width: 3000, height: 2000 }, { width: 1600, height: 1200 })).toEqual({
      width: 1600,
      height: 1067,
    });
    expect(contain({ width: 2000, height: 3000 }, { width: 1600, height: 1200 })).toEqual({
      width: 800,
      height: 1200,
    });
    expect(contain({ width: 320, height: 213 }, { width: 1600, height: 1200 })).toEqual({
      width: 320,
      height: 213,
    });
  });
});

describe('cover', () => {
  test('hand-computed: 3:1 of a 3000 × 2000 photo, focal point low', () => {
    expect(cover({ width: 3000, height: 2000 }, 3, { x: 0.5, y: 0.9 })).toEqual({
      x: 0,
      y: 1000,
      width: 3000,
      height: 1000,
    });
    expect(cover({ width: 3000, height: 2000 }, 3, { x: 0.5, y: 0.6 })).toEqual({
      x: 0,
      y: 700,
      width: 3000,
      height: 1000,
    });
    expect(cover({ width: 3000, height: 2000 }, 0.8, { x: 0.1, y: 0.5 })).toEqual({
      x: 0,
      y: 0,
      width: 1600,
      height: 2000,
    });
  });
  test('against brute force: no larger window of the ratio fits, none lies nearer to the focal point', () => {
    for (const [w, h] of [
      [7, 5],
      [5, 7],
      [6, 6],
      [11, 3],
    ] as const) {
      for (const ratio of [3, 1, 0.8, 1.5]) {
        for (const focal of [
          { x: 0, y: 0 },
          { x: 0.3, y: 0.8 },
          { x: 1, y: 1 },
        ]) {
          const rect = cover({ width: w, height: h }, ratio, focal);
          expect(inside(rect, w, h)).toBe(true);
          expect(rect.width === w || rect.height === h).toBe(true);
          const distance = (x: number, y: number) =>
            Math.hypot(x + rect.width / 2 - focal.x * w, y + rect.height / 2 - focal.y * h);
          for (let x = 0; x + rect.width <= w; x++) {
            for (let y = 0; y + rect.height <= h; y++) {
              expect(distance(rect.x, rect.y)).toBeLessThanOrEqual(distance(x, y) + 1e-9);
            }
          }
        }
      }
    }
  });
  test('a window is at least one pixel, even of a thread', () => {
    expect(largestWindow({ width: 5000, height: 1 }, 0.8)).toEqual({ width: 1, height: 1 });
  });
});

describe('moving and resizing', () => {
  const picture = { width: 3000, height: 2000 };
  const rect = { x: 100, y: 200, width: 900, height: 300 };
  test('moving stops at the edges', () => {
    expect(moveRect(rect, -500, 5000, picture)).toEqual({ ...rect, x: 0, y: 1700 });
    expect(moveRect(rect, 10, -1, picture)).toEqual({ ...rect, x: 110, y: 199 });
  });
  test('resizing keeps the opposite corner and the ratio', () => {
    expect(resizeRect(rect, 'se', { x: 1600, y: 600 }, picture, 3)).toEqual({
      x: 100,
      y: 200,
      width: 1500,
      height: 500,
    });
    expect(resizeRect(rect, 'nw', { x: 400, y: 320 }, picture, 3)).toEqual({
      x: 400,
      y: 300,
      width: 600,
      height: 200,
    });
  });
  test('never leaves the picture, never loses the ratio by more than a pixel, never vanishes', () => {
    for (const corner of ['nw', 'ne', 'sw', 'se'] as const) {
      for (let x = -700; x <= 3700; x += 370) {
        for (let y = -700; y <= 2700; y += 310) {
          const next = resizeRect(rect, corner, { x, y }, picture, 3);
          expect(inside(next, 3000, 2000)).toBe(true);
          expect(next.width).toBeGreaterThanOrEqual(16);
          expect(cropProblem(next, '3:1', picture)).toBeNull();
        }
      }
    }
  });
  test('a free shape follows both sides', () => {
    expect(resizeRect(rect, 'se', { x: 500, y: 900 }, picture, null)).toEqual({
      x: 100,
      y: 200,
      width: 400,
      height: 700,
    });
  });
});

describe('what is wrong with a crop', () => {
  const picture = { width: 3000, height: 2000 };
  test.each([
    [{ x: 0, y: 0, width: 3000, height: 1000 }, '3:1', null],
    [{ x: 0, y: 0, width: 2999, height: 1999 }, '3:2', null],
    [{ x: 0, y: 0, width: 1000, height: 1000 }, '3:1', /does not have the shape 3:1/],
    [{ x: 2500, y: 0, width: 600, height: 600 }, '1:1', /outside the picture of 3000 × 2000/],
    [{ x: 0.5, y: 0, width: 600, height: 600 }, '1:1', /whole pixels/],
    [{ x: 0, y: 0, width: 0, height: 600 }, 'own', /at least one pixel/],
    [{ x: 10, y: 20, width: 123, height: 45 }, 'own', null],
  ] as const)('%j as %s', (rect, shape, problem) => {
    const found = cropProblem(rect, shape, picture);
    if (problem === null) expect(found).toBeNull();
    else expect(found).toMatch(problem);
  });
});

describe('crops of a few pixels', () => {
  const picture = { width: 3000, height: 2000 };
  test.each([
    [1, 1, '3:1'],
    [2, 1, '3:1'],
    [1, 3, '1:1'],
    [4, 4, '4:5'],
  ] as const)('%d × %d is not %s', (width, height, shape) => {
    expect(cropProblem({ x: 0, y: 0, width, height }, shape, picture)).toMatch(/does not have the shape/);
  });
  test.each([
    [3, 1, '3:1'],
    [16, 5, '3:1'],
    [301, 100, '3:1'],
    [13, 16, '4:5'],
  ] as const)('%d × %d is %s', (width, height, shape) => {
    expect(cropProblem({ x: 0, y: 0, width, height }, shape, picture)).toBeNull();
  });
});
