import { describe, expect, test } from '@jest/globals';
import { sampleFrame, samplePhoto } from '../testing/sample.ts';
import { doubtOf } from './doubt.ts';

const guess = { x: 0.5, y: 0.5, confirmed: false };
const photo = (
  extent: { left: number; top: number; right: number; bottom: number } | undefined,
  frame = {},
) =>
  samplePhoto(
    { frame: sampleFrame({ focal: guess, ...frame }) },
    { width: 3000, height: 2000, attention: { x: 0.5, y: 0.5, ...(extent && { extent }) } },
  );
const low = { left: 0.4, top: 0.5, right: 0.6, bottom: 1 };

describe('doubt of a first guess', () => {
  test('is the largest part of the subject that a crop cuts off', () => {
    // 3:1 keeps the rows from 25 to 75 % of the height: half of the subject, which lies below the middle. 1:1 keeps all.
    expect(doubtOf(photo(low), ['3:1', '1:1', 'own'])).toEqual({ part: 0.5, shape: '3:1' });
    expect(doubtOf(photo(low), ['1:1'])!.part).toBeCloseTo(0, 9);
    // 1:2 is 1,000 px wide: from 1/3 to 2/3 of the width.
    expect(doubtOf(photo({ left: 0, top: 0, right: 1, bottom: 1 }), ['1:2'])!.part).toBeCloseTo(2 / 3, 3);
  });
  test('there is none where somebody has looked, or nothing was found', () => {
    expect(doubtOf(photo(low, { focal: { ...guess, confirmed: true } }), ['3:1'])).toBeNull();
    expect(doubtOf(photo(low, { turns: 1 }), ['3:1'])).toBeNull();
    expect(
      doubtOf(photo(low, { crops: { '3:1': { x: 0, y: 0, width: 3000, height: 1000 } } }), ['3:1']),
    ).toBeNull();
    expect(doubtOf(photo(undefined), ['3:1'])).toBeNull();
    expect(doubtOf(photo(low), ['own'])).toBeNull();
    expect(doubtOf(photo({ ...low, right: 0.4 }), ['3:1'])!.part).toBe(0);
  });
});
