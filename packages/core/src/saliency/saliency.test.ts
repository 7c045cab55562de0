// Where the subject is: made-up scenes whose subject is known.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { Pixels } from '../difference/opponent.ts';
import { barrierDistance } from './barrier.ts';
import { blurred, saliencyOf } from './saliency.ts';
import { guessFocalPoint } from './subject.ts';

type Colour = readonly [number, number, number];

function scene(width: number, height: number, paint: (x: number, y: number) => Colour): Pixels {
  const data = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++) data.set(paint(i % width, Math.floor(i / width)), i * 3);
  return { data, width, height, channels: 3 };
}

/** A round pot on a table with a little grain. */
function pot(cx: number, cy: number, radius: number, colour: Colour = [180, 60, 40]): Pixels {
  const luck = chance(9);
  return scene(180, 120, (x, y) => {
    const grain = luck.whole(-4, 4);
    if (Math.hypot(x - cx, y - cy) < radius) {
      const light = 0.7 + 0.3 * Math.cos((x - cx) / radius);
      return [colour[0] * light, colour[1] * light, colour[2] * light];
    }
    return [150 + grain, 145 + grain, 138 + grain];
  });
}

describe('the focal point', () => {
  test.each([
    [40, 60],
    [140, 60],
    [90, 30],
    [60, 85],
  ])('lies on a pot at %d, %d, or between it and the middle', (cx, cy) => {
    const { x, y } = guessFocalPoint(pot(cx, cy, 22));
    expect(Math.abs(x * 180 - cx)).toBeLessThan(22);
    expect(Math.abs(y * 120 - cy)).toBeLessThan(22);
  });
  test('follows the pot when the picture is mirrored', () => {
    const left = guessFocalPoint(pot(45, 60, 20));
    const right = guessFocalPoint(pot(134, 60, 20));
    expect(right.x).toBeCloseTo(1 - left.x, 1);
  });
  test('an empty field: the middle', () => {
    const { x, y } = guessFocalPoint(scene(90, 60, () => [120, 120, 120]));
    expect([x, y]).toEqual([0.5, 0.5]);
  });
  test('is inside the picture for any noise, size and channel layout', () => {
    const luck = chance(10);
    for (const [width, height] of [
      [1, 1],
      [2, 90],
      [200, 3],
      [33, 47],
    ] as const) {
      for (const channels of [1, 2, 3, 4] as const) {
        const data = Uint8Array.from({ length: width * height * channels }, () => luck.whole(0, 255));
        const { x, y } = guessFocalPoint({ data, width, height, channels });
        for (const value of [x, y]) {
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThanOrEqual(1);
        }
      }
    }
  });
});

describe('its parts', () => {
  test('the barrier: 0 along the border and wherever the way out is even', () => {
    // A wall of 1 around a field of 0, in a field of 0: who stands inside must cross the wall.
    const side = 9;
    const wall = Float32Array.from({ length: side * side }, (_, i) => {
      const [x, y] = [i % side, Math.floor(i / side)];
      const ring = Math.max(Math.abs(x - 4), Math.abs(y - 4));
      return ring === 2 ? 1 : 0;
    });
    const distance = barrierDistance(wall, side, side);
    expect(distance[0]).toBe(0);
    expect(distance[1 * side + 1]).toBe(0);
    expect(distance[4 * side + 4]).toBe(1);
  });
  test('a blur keeps the sum of what lies inside and a plain field', () => {
    const dot = new Float32Array(49);
    dot[24] = 9;
    expect(blurred(dot, 7, 7, 1).reduce((a, b) => a + b, 0)).toBeCloseTo(9, 5);
    expect([...blurred(new Float32Array(12).fill(2), 4, 3, 2)]).toEqual(new Array(12).fill(2));
  });
  test('the map is brighter on the pot than beside it', () => {
    const { values, width } = saliencyOf(pot(60, 60, 22));
    const at = (x: number, y: number) => values[Math.round(y / 2) * width + Math.round(x / 2)]!;
    expect(at(60, 60)).toBeGreaterThan(2 * at(150, 60));
    for (const value of values) expect(value).toBeLessThanOrEqual(1);
  });
});
