// The frame: spaces, crops that follow, and turns that keep what is seen.
import { describe, expect, test } from '@jest/globals';
import type { Frame, Rect, ShapeId, Size } from '../contract/index.ts';
import { chance } from '../chance/chance.ts';
import { sampleFrame } from '../testing/sample.ts';
import {
  automaticCrop,
  cropFor,
  frameCropProblem,
  frameProblem,
  frameSpace,
  mirrorFrame,
  straightenFrame,
  turnFrame,
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
