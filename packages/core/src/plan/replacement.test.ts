// Another original in a photo's place: what of the frame stays, and what the editor is told.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { OriginalFacts, Rect, ShapeId } from '../contract/index.ts';
import { cropFor, firstFrame, frameProblem, frameSpace } from '../geometry/frame.ts';
import { frameReplaced, sameRatio } from '../geometry/replace.ts';
import { CONTEXT, sampleFrame, samplePhoto } from '../testing/sample.ts';
import { replacementChanges } from './replacement.ts';
import { openIn } from './set-places.ts';

const SQUARE: Rect = { x: 300, y: 600, width: 900, height: 900 };
const photo = samplePhoto({ frame: sampleFrame({ crops: { '1:1': SQUARE } }) });
const original = (facts: Partial<OriginalFacts>): OriginalFacts => samplePhoto({}, facts).original;

describe('ratios', () => {
  test.each([
    [3000, 2000, 1500, 1000, true],
    // An export that rounded its height.
    [3000, 2000, 1000, 667, true],
    [3000, 2000, 1000, 660, false],
    [3000, 2000, 2000, 3000, false],
    [1, 1, 100, 101, true],
    [1, 1, 100, 102, false],
  ])('%d × %d and %d × %d', (a, b, c, d, same) => {
    expect(sameRatio({ width: a, height: b }, { width: c, height: d })).toBe(same);
    expect(sameRatio({ width: c, height: d }, { width: a, height: b })).toBe(same);
  });
});

describe('the frame', () => {
  test('stays in proportion where the ratio stays; the focal point is to be looked at', () => {
    const { frame, kept, given } = frameReplaced(photo, original({ width: 1500, height: 1000 }));
    expect(frame.crops).toEqual({ '1:1': { x: 150, y: 300, width: 450, height: 450 } });
    expect([kept, given]).toEqual([['1:1'], []]);
    expect(frame.focal).toEqual({ x: 0.5, y: 0.5, confirmed: false });
  });
  test('begins anew where it does not', () => {
    const attention = { x: 0.3, y: 0.7 };
    const result = frameReplaced(photo, original({ width: 2000, height: 3000, attention }));
    expect(result).toEqual({ frame: firstFrame(attention), kept: [], given: ['1:1'] });
  });
  test('is right for whatever takes the place, at every size, turn and angle', () => {
    const random = chance(9);
    for (let n = 0; n < 300; n++) {
      const turning = {
        mirrored: random.next() < 0.5,
        turns: Math.floor(random.next() * 4) as 0 | 1 | 2 | 3,
        angle: random.next() < 0.5 ? 0 : Math.round((random.next() - 0.5) * 200) / 10,
      };
      const bare = samplePhoto({ frame: sampleFrame(turning) });
      const shapes: ShapeId[] = ['1:1', '3:1', 'own'];
      const crops = Object.fromEntries(shapes.map((shape) => [shape, cropFor(bare, shape)]));
      const framed = samplePhoto({ frame: sampleFrame({ ...turning, crops }) });
      const width = 40 + Math.floor(random.next() * 5000);
      const height = Math.max(1, Math.round(width * (random.next() < 0.7 ? 2 / 3 : random.next() + 0.3)));
      const { frame, kept, given } = frameReplaced(framed, original({ width, height }));
      expect(frameProblem(frame, { width, height })).toBeNull();
      expect([...kept, ...given].sort()).toEqual([...shapes].sort());
      expect(Object.keys(frame.crops).sort()).toEqual([...kept].sort());
    }
  });
  test('keeps what a crop shows of the picture', () => {
    const after = original({ width: 4500, height: 3000 });
    const { frame } = frameReplaced(photo, after);
    const [before, now] = [frameSpace(photo.original, photo.frame), frameSpace(after, frame)];
    const crop = frame.crops['1:1']!;
    for (const side of ['x', 'width'] as const)
      expect(crop[side] / now.width).toBeCloseTo(SQUARE[side] / before.width, 3);
    for (const side of ['y', 'height'] as const)
      expect(crop[side] / now.height).toBeCloseTo(SQUARE[side] / before.height, 3);
  });
});

describe('what the editor is told', () => {
  const told = (facts: Partial<OriginalFacts>, of = photo) =>
    replacementChanges(of, original(facts), openIn('hero', 'grid'), CONTEXT).map(
      ({ what, state, sentence }) => `${what} ${state}: ${sentence}`,
    );
  test('a smaller export of the same ratio', () => {
    expect(told({ width: 1200, height: 800, bytes: 300_000 })).toEqual([
      'size ready: 1200 × 800 px, 300 kB; before, 3000 × 2000 px, 1.64 MB.',
      'ratio ready: The same ratio, 3:2.',
      'crops ready: The crop 1:1 and the focal point stay where they were.',
      expect.stringMatching(/^sharpness care: Full-width hero 3:1 becomes too small, \d+ px short\.$/),
      expect.stringMatching(
        /^sharpness care: Full-width hero 4:5 becomes soft on dense screens, \d+ px short\.$/,
      ),
      expect.stringMatching(
        /^sharpness care: Square thumbnail grid 1:1 becomes soft on dense screens, 150 px short\.$/,
      ),
    ]);
  });
  test('one as large, and one of another ratio', () => {
    expect(told({ bytes: 1_000_000 })).toEqual([
      'size ready: As large as before: 3000 × 2000 px; 1.00 MB after 1.64 MB.',
      'ratio ready: The same ratio, 3:2.',
      'crops ready: The crop 1:1 and the focal point stay where they were.',
      'sharpness ready: As sharp as before wherever it stands.',
    ]);
    const tall = told({ width: 2400, height: 3000 });
    expect(tall[1]).toBe('ratio todo: Another ratio: 4:5 after 3:2.');
    expect(tall[2]).toBe('crops todo: The crop 1:1 is let go: the first guess frames it anew.');
  });
  test('a larger one makes it sharp where it was not', () => {
    const small = samplePhoto({}, { width: 1200, height: 800 });
    expect(told({ width: 4500, height: 3000 }, small).slice(3)).toEqual(
      expect.arrayContaining(['sharpness ready: Full-width hero 3:1 becomes sharp.']),
    );
  });
});
