// The frame: spaces, crops that follow, and turns that keep what is seen.
import { describe, expect, test } from '@jest/globals';
import type { Frame, Rect, ShapeId, Size, Turning } from '../contract/index.ts';
import { chance } from '../chance/chance.ts';
import { sampleFrame } from '../testing/sample.ts';
import { frameLaidOn } from './copy-frame.ts';
import {
  angleFromLine,
  automaticCrop,
  cropFor,
  frameCropProblem,
  frameProblem,
  frameSpace,
  mirrorFrame,
  NO_TURNING,
  pointFromSpace,
  pointInSpace,
  straightenFrame,
  turnFrame,
  turningMatrix,
} from './frame.ts';

const original: Size = { width: 300, height: 200 };
const own: Rect = { x: 1, y: 2, width: 30, height: 10 };

/** Where a point of the photo's own space lies in the space of the crops, by the order in the contract. */
function seenAt(point: { x: number; y: number }, frame: Frame): { x: number; y: number } {
  let { width, height } = original;
  let { x, y } = frame.mirrored ? { x: width - point.x, y: point.y } : point;
  for (let n = 0; n < frame.turns; n++) {
    [x, y] = [height - y, x];
    [width, height] = [height, width];
  }
  const box = frameSpace(original, frame);
  const angle = (frame.angle * Math.PI) / 180;
  const [dx, dy] = [x - width / 2, y - height / 2];
  return {
    x: box.width / 2 + dx * Math.cos(angle) - dy * Math.sin(angle),
    y: box.height / 2 + dx * Math.sin(angle) + dy * Math.cos(angle),
  };
}

describe('crops', () => {
  test('an editor’s crop goes before the automatic one', () => {
    const photo = { original, frame: sampleFrame({ crops: { '3:1': own } }) };
    expect(cropFor(photo, '3:1')).toEqual(own);
    expect(cropFor(photo, '1:1')).toEqual({ x: 50, y: 0, width: 200, height: 200 });
  });
  test('of a picture laid on its side fill it the other way', () => {
    const photo = { original, frame: sampleFrame({ turns: 1 }) };
    expect(frameSpace(original, photo.frame)).toEqual({ width: 200, height: 300 });
    expect(cropFor(photo, 'own')).toEqual({ x: 0, y: 0, width: 200, height: 300 });
  });
  test('automatic ones lie in the straightened picture at every angle, shape and focal point', () => {
    const { next } = chance(5);
    for (let n = 0; n < 300; n++) {
      const frame = sampleFrame({
        turns: Math.floor(next() * 4) as Frame['turns'],
        mirrored: next() < 0.5,
        angle: next() * 30 - 15,
        focal: { x: next(), y: next(), confirmed: true },
      });
      const shape = (['own', '3:1', '4:5', '1:1'] as ShapeId[])[n % 4]!;
      const crop = automaticCrop({ original, frame }, shape);
      expect(frameCropProblem(crop, shape, { original, frame })).toBeNull();
    }
  });
  test('that reach into the corners beside a straightened picture are refused', () => {
    const frame = sampleFrame({ angle: 10 });
    const corner = { x: 0, y: 0, width: 30, height: 10 };
    expect(frameCropProblem(corner, '3:1', { original, frame })).toMatch(/straightened/);
    expect(frameProblem({ ...frame, crops: { '3:1': corner } }, original)).toMatch(/straightened/);
    expect(frameProblem({ ...frame, angle: 16 }, original)).toMatch(/15°/);
    expect(frameProblem({ ...frame, angle: NaN }, original)).toMatch(/15°/);
  });
});

describe('turning', () => {
  const frames = [0, 7].flatMap((angle) =>
    [false, true].map((mirrored) =>
      sampleFrame({
        angle,
        mirrored,
        turns: 1,
        focal: { x: 0.25, y: 0.75, confirmed: true },
        crops: {
          '3:2': { x: 90, y: 120, width: 60, height: 40 },
          own: { x: 80, y: 110, width: 50, height: 75 },
        },
      }),
    ),
  );
  test.each(frames)('four turns and two mirrors are none: %j', (frame) => {
    expect(turnFrame(frame, original, 4)).toEqual(frame);
    expect(turnFrame(turnFrame(frame, original, 1), original, -1)).toEqual(frame);
    expect(mirrorFrame(mirrorFrame(frame, original), original)).toEqual(frame);
  });
  test.each(frames)('what is seen is turned and mirrored as a whole, crops with it: %j', (frame) => {
    const box = frameSpace(original, frame);
    const mark = { x: 40, y: 170 };
    const before = seenAt(mark, frame);
    const turned = seenAt(mark, turnFrame(frame, original, 1));
    expect(turned.x).toBeCloseTo(box.height - before.y, 6);
    expect(turned.y).toBeCloseTo(before.x, 6);
    const mirrored = seenAt(mark, mirrorFrame(frame, original));
    expect(mirrored.x).toBeCloseTo(box.width - before.x, 6);
    expect(mirrored.y).toBeCloseTo(before.y, 6);
    expect(turnFrame(frame, original, 1).crops['2:3']).toEqual({
      x: box.height - 120 - 40,
      y: 90,
      width: 40,
      height: 60,
    });
  });
});

describe('straightening', () => {
  test('keeps crops that still lie in the picture on what they show, and gives the others back', () => {
    const frame = sampleFrame({
      crops: {
        '1:1': { x: 130, y: 80, width: 40, height: 40 },
        '3:2': { x: 0, y: 0, width: 300, height: 200 },
      },
    });
    const tilted = straightenFrame(frame, original, 6);
    const box = frameSpace(original, tilted);
    expect(Object.keys(tilted.crops)).toEqual(['1:1']);
    expect(tilted.crops['1:1']!.x + 20).toBeCloseTo(box.width / 2, 0);
    expect(straightenFrame(frame, original, 40).angle).toBe(15);
  });
});

describe('points and lines', () => {
  const original = { width: 4000, height: 3000 };
  test.each([
    [
      { turns: 0, angle: 0 },
      { x: 0.25, y: 0.5 },
      { x: 1000, y: 1500 },
    ],
    [
      { turns: 1, angle: 0 },
      { x: 0.25, y: 0.5 },
      { x: 750, y: 2000 },
    ],
  ] as const)('%j puts %j at %j', (turning, point, place) => {
    expect(pointInSpace({ original, frame: sampleFrame(turning) }, point)).toEqual(place);
  });
  test('there and back again, whatever the frame', () => {
    for (const angle of [-15, -3.3, 0, 7, 15]) {
      for (const turns of [0, 1, 2, 3] as const) {
        const framed = { original, frame: sampleFrame({ turns, angle }) };
        const back = pointFromSpace(framed, pointInSpace(framed, { x: 0.2, y: 0.9 }));
        expect([back.x, back.y]).toEqual([expect.closeTo(0.2, 9), expect.closeTo(0.9, 9)]);
      }
    }
    expect(pointFromSpace({ original, frame: sampleFrame() }, { x: -50, y: 9000 })).toEqual({ x: 0, y: 1 });
  });
  test.each([
    // A horizon that falls to the right by 100 of 1000: 5.7° clockwise, so it is turned back by as much.
    [0, { x: 0, y: 0 }, { x: 1000, y: 100 }, -5.7],
    // Drawn the other way round it is the same.
    [0, { x: 1000, y: 100 }, { x: 0, y: 0 }, -5.7],
    // A post that leans to the right at its top.
    [0, { x: 0, y: 1000 }, { x: 100, y: 0 }, -5.7],
    [2, { x: 0, y: 0 }, { x: 1000, y: 0 }, 2],
    [10, { x: 0, y: 0 }, { x: 1000, y: -300 }, 15],
  ])('at %d° a line from %j to %j makes %d°', (angle, from, to, expected) => {
    expect(angleFromLine(angle, from, to)).toBe(expected);
  });
});

describe('the whole turning as a matrix', () => {
  const through = (turning: Turning, x: number, y: number) => {
    const [a, b, c, d, e, f] = turningMatrix(original, turning);
    return { x: a * x + c * y + e, y: b * x + d * y + f };
  };
  test.each([
    [{}, { x: 0, y: 0 }],
    [{ mirrored: true }, { x: 300, y: 0 }],
    // Clockwise: what was at the upper left is at the upper right.
    [{ turns: 1 }, { x: 200, y: 0 }],
    [{ turns: 2 }, { x: 300, y: 200 }],
    // Mirrored first, then turned.
    [
      { mirrored: true, turns: 1 },
      { x: 200, y: 300 },
    ],
  ] as const)('with %j the upper left corner comes to %j', (change, { x, y }) => {
    expect(through({ ...NO_TURNING, ...change }, 0, 0)).toEqual({
      x: expect.closeTo(x, 9),
      y: expect.closeTo(y, 9),
    });
  });
  test('puts every point where the frame puts it', () => {
    for (const mirrored of [false, true])
      for (const turns of [0, 1, 2, 3] as const)
        for (const angle of [-12.3, 0, 4.5]) {
          const frame = sampleFrame({ mirrored, turns, angle });
          for (const point of [
            { x: 60, y: 140 },
            { x: 270, y: 20 },
          ]) {
            const { x, y } = seenAt(point, frame);
            expect(through(frame, point.x, point.y)).toEqual({
              x: expect.closeTo(x, 9),
              y: expect.closeTo(y, 9),
            });
          }
        }
  });
});

describe('a frame laid on another photo', () => {
  const from = {
    original: { width: 400, height: 300 },
    frame: sampleFrame({
      turns: 1,
      focal: { x: 0.2, y: 0.4, confirmed: false },
      crops: { '1:1': { x: 0, y: 100, width: 150, height: 150 } },
    }),
  };
  test('keeps turns and focal point, and its crops in proportion', () => {
    // The turned space is 300 × 400, there 600 × 800: the crop is half of the largest, at the left, 2/5 of the way down.
    const laid = frameLaidOn(from, { width: 800, height: 600 });
    expect(laid).toEqual({
      mirrored: false,
      turns: 1,
      angle: 0,
      focal: { x: 0.2, y: 0.4, confirmed: true },
      crops: { '1:1': { x: 0, y: 200, width: 300, height: 300 } },
    });
  });
  test('is right on every photo', () => {
    const luck = chance(2);
    for (let round = 0; round < 300; round++) {
      const size = () => ({ width: luck.whole(50, 5000), height: luck.whole(50, 5000) });
      const angle = luck.whole(0, 2) === 0 ? 0 : luck.whole(-15, 15);
      const original = size();
      const bare = sampleFrame({ turns: luck.whole(0, 3) as 0, mirrored: luck.next() < 0.5, angle });
      const crop = automaticCrop({ original, frame: bare }, '3:2');
      const target = size();
      const laid = frameLaidOn({ original, frame: { ...bare, crops: { '3:2': crop } } }, target);
      expect(frameProblem(laid, target)).toBeNull();
    }
  });
});
