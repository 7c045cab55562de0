import { describe, expect, test } from '@jest/globals';
import { slotById } from '../testing/sample.ts';
import { densityInWords } from './density-words.ts';
import { DEFAULT_DEVICES } from './devices.ts';

const column = slotById('column');
const [part] = column.shapes;
const said = (width: number) =>
  densityInWords(column, part!, { width, height: Math.round(width / 1.5) }, DEFAULT_DEVICES);

describe('density in words', () => {
  // The column shows 328 to 398 px on phones (2× counts), 720 px elsewhere; dense ones want 1,440.
  test.each([
    [3000, 'Sharp on every screen: 3000 px', 0],
    [1440, 'Sharp on every screen: 1440 px', 0],
    [
      1230,
      'Sharp on phones, laptops and wide screens, soft on dense tablets and dense laptops: 210 px short',
      210,
    ],
    [
      800,
      'Sharp on phones and wide screens, soft on laptops, dense tablets and dense laptops: 640 px short',
      640,
    ],
    [
      700,
      'Soft on phones, blurred on laptops, wide screens, dense tablets and dense laptops: 740 px short',
      740,
    ],
  ])('%d px', (width, sentence, missing) => expect(said(width)).toEqual({ sentence, missing }));
});
