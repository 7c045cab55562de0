import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { proposeTilt, type LightnessMap } from './tilt.ts';

/** A picture whose lightness is a function of the place, in px from the middle. */
function drawn(width: number, height: number, light: (x: number, y: number) => number): LightnessMap {
  const values = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) values[y * width + x] = light(x - width / 2 + 0.5, y - height / 2 + 0.5);
  return { width, height, values };
}

/** Soft step across an edge, in px. */
const step = (distance: number, soft = 1): number => 0.5 + Math.tanh(distance / soft) / 4;

/** The same scene turned clockwise. */
const turnedBy = (degrees: number, light: (x: number, y: number) => number) => {
  const angle = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  return (x: number, y: number) => light(x * cos + y * sin, -x * sin + y * cos);
};

describe('straightening is proposed', () => {
  const horizon = (_: number, y: number) => step(y - 30);
  const post = (x: number) => step(x - 80);
  test.each([-8, -6.3, -4, -2.5, -1, -0.5, 0.6, 1.5, 3, 5.2, 7, 8])(
    'of a horizon turned by %d°',
    (degrees) => {
      const { angle } = proposeTilt(drawn(640, 420, turnedBy(degrees, horizon)))!;
      expect(Math.abs(angle + degrees)).toBeLessThanOrEqual(0.2);
    },
  );
  test.each([-6, -1.2, 2.2, 7.5])('of an upright turned by %d°', (degrees) => {
    const { angle } = proposeTilt(drawn(420, 640, turnedBy(degrees, post)))!;
    expect(Math.abs(angle + degrees)).toBeLessThanOrEqual(0.2);
  });
  test('of edges that are out of focus', () => {
    const blurred = turnedBy(4, (_, y) => step(y, 14));
    expect(Math.abs(proposeTilt(drawn(640, 420, blurred))!.angle + 4)).toBeLessThanOrEqual(0.4);
  });
  test('under grain', () => {
    const luck = chance(3);
    const scene = turnedBy(-3, horizon);
    const grainy = drawn(640, 420, (x, y) => scene(x, y) + (luck.next() - 0.5) * 0.08);
    expect(Math.abs(proposeTilt(grainy)!.angle - 3)).toBeLessThanOrEqual(0.3);
  });
  test('and never by more than edges that are meant to be level are off', () => {
    expect(proposeTilt(drawn(640, 420, turnedBy(25, horizon)))).toBeNull();
    expect(proposeTilt(drawn(640, 420, turnedBy(45, horizon)))).toBeNull();
  });
});

describe('nothing is proposed', () => {
  const luck = chance(8);
  const noise = Float32Array.from({ length: 200_000 }, () => luck.next());
  test.each<[string, (x: number, y: number) => number]>([
    ['an even picture', () => 0.5],
    ['a picture that stands straight', (_, y) => step(y - 20)],
    ['a soft gradient', (x, y) => 0.5 + (x + y) / 3000],
    ['rings', (x, y) => 0.5 + Math.sin(Math.hypot(x, y) / 6) / 4],
    ['one disc', (x, y) => step(Math.hypot(x, y) - 120)],
    ['noise', (x, y) => noise[Math.abs(Math.round(x * 311 + y * 57)) % noise.length]!],
  ])('for %s', (_, light) => expect(proposeTilt(drawn(320, 210, light))).toBeNull());
  test('for pebbles', () => {
    const stones = Array.from({ length: 120 }, () => ({
      x: luck.whole(-160, 160),
      y: luck.whole(-105, 105),
      r: luck.whole(6, 22),
      v: luck.next(),
    }));
    const pebbles = drawn(
      320,
      210,
      (x, y) => stones.findLast((s) => Math.hypot(x - s.x, y - s.y) < s.r)?.v ?? 0.3,
    );
    expect(proposeTilt(pebbles)).toBeNull();
  });
  test('for a picture of a few pixels', () =>
    expect(proposeTilt(drawn(20, 20, (_, y) => step(y - 2)))).toBeNull());
});
