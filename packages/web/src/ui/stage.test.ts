// Between the screen's px and the original's.
import { describe, expect, test } from '@jest/globals';
import { boxOf, stageFor } from './stage.ts';

describe('the stage', () => {
  test('fits the picture into the room, by the tighter side', () => {
    expect(stageFor({ width: 3000, height: 2000 }, { width: 600, height: 600 })).toEqual({
      scale: 0.2,
      width: 600,
      height: 400,
    });
    expect(stageFor({ width: 2000, height: 4000 }, { width: 600, height: 600 })).toMatchObject({
      width: 300,
      height: 600,
    });
  });
  test('rectangles of the original become boxes on it', () => {
    const stage = stageFor({ width: 3000, height: 2000 }, { width: 600, height: 600 });
    expect(boxOf({ x: 300, y: 100, width: 1500, height: 500 }, stage)).toEqual({
      left: 60,
      top: 20,
      width: 300,
      height: 100,
    });
  });
});
