// `srcset` as browsers read it, and which candidate they take.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { chosenUrl, chosenWidth, chromiumChoice, ordered } from './choice.ts';
import { parseSrcset, srcsetOf, srcsetUnder } from './srcset.ts';

const read = (text: string) =>
  parseSrcset(text).candidates.map(({ url, width, density }) => [url, width, density]);

describe('reading srcset', () => {
  test('the standard’s examples', () => {
    expect(read('/uploads/150-marie-lloyd.jpg 1.5x, /uploads/200-marie-lloyd.jpg 2x')).toEqual([
      ['/uploads/150-marie-lloyd.jpg', null, 1.5],
      ['/uploads/200-marie-lloyd.jpg', null, 2],
    ]);
    expect(read('wolf_400px.jpg 400w, wolf_800px.jpg 800w, wolf_1600px.jpg 1600w')).toEqual([
      ['wolf_400px.jpg', 400, null],
      ['wolf_800px.jpg', 800, null],
      ['wolf_1600px.jpg', 1600, null],
    ]);
    expect(read('large-1.jpg, large-2.jpg 2x')).toEqual([
      ['large-1.jpg', null, 1],
      ['large-2.jpg', null, 2],
    ]);
  });
  test.each([
    ['', []],
    [' , ,, ', []],
    ['a.jpg', [['a.jpg', null, 1]]],
    ['a.jpg,b.jpg 2x', [['a.jpg,b.jpg', null, 2]]],
    [
      'a.jpg, b.jpg 2x',
      [
        ['a.jpg', null, 1],
        ['b.jpg', null, 2],
      ],
    ],
    [
      'a.jpg 1x,b.jpg 2x',
      [
        ['a.jpg', null, 1],
        ['b.jpg', null, 2],
      ],
    ],
    ['data:image/gif;base64,AA 1x', [['data:image/gif;base64,AA', null, 1]]],
    [
      '\n a.jpg\t100w \n,\n b.jpg 200w',
      [
        ['a.jpg', 100, null],
        ['b.jpg', 200, null],
      ],
    ],
    ['a.jpg 100w 50h', [['a.jpg', 100, null]]],
    ['a.jpg .5x', [['a.jpg', null, 0.5]]],
    ['a.jpg 1e1x', [['a.jpg', null, 10]]],
    // A descriptor in parentheses may hold commas; it is unknown, so the candidate goes.
    ['a.jpg (1x, 2x), b.jpg 2x', [['b.jpg', null, 2]]],
    ['a.jpg 0w', []],
    ['a.jpg -1x', []],
    ['a.jpg +1x', []],
    ['a.jpg 1.x', []],
    ['a.jpg 1.5w', []],
    ['a.jpg 1x 100w', []],
    ['a.jpg 1x 2x', []],
    ['a.jpg 50h', []],
    ['a.jpg 100px', []],
    ['a.jpg 100W', []],
  ])('%j', (text, candidates) => {
    expect(read(text)).toEqual(candidates);
  });
  test.each([
    ['a.jpg 0w', 'width of 0'],
    ['a.jpg -1x', 'negative'],
    ['a.jpg 1x 2x', 'beside another'],
    ['a.jpg 50h', 'needs a width'],
    ['a.jpg 100px', 'neither a width'],
  ])('%j is left out with a reason', (text, reason) => {
    expect(parseSrcset(text)).toEqual({ candidates: [], problems: [expect.stringContaining(reason)] });
  });
  test('what is written is read again', () => {
    const files = [
      { url: 'a,b.jpg', width: 320 },
      { url: 'c.jpg', width: 640 },
    ];
    expect(read(srcsetOf(files))).toEqual(files.map(({ url, width }) => [url, width, null]));
  });
});

const dense = (...densities: number[]) => densities.map((density) => ({ candidate: density, density }));

describe('choosing', () => {
  test('equal densities: the first in the list stays; then by density', () => {
    const list = [
      { candidate: 'b', density: 2 },
      { candidate: 'a', density: 1 },
      { candidate: 'c', density: 2 },
    ];
    expect(ordered(list).map(({ candidate }) => candidate)).toEqual(['a', 'b']);
  });
  test('the standard’s wolf: 1.25x, 2.5x and 5x in a window of 320 px', () => {
    const srcset = 'wolf_400px.jpg 400w, wolf_800px.jpg 800w, wolf_1600px.jpg 1600w';
    const url = (viewport: number, density: number) => chosenUrl(srcset, '100vw', { viewport, density });
    expect(url(320, 1)).toBe('wolf_400px.jpg');
    expect(url(320, 2)).toBe('wolf_800px.jpg');
    expect(url(320, 5)).toBe('wolf_1600px.jpg');
    // 0.33x, 0.67x and 1.33x in a window of 1200 px.
    expect(url(1200, 1)).toBe('wolf_1600px.jpg');
    expect(url(400, 1)).toBe('wolf_400px.jpg');
    expect(chosenUrl(srcset, null, { viewport: 400, density: 1 })).toBe('wolf_400px.jpg');
    expect(chosenUrl('', '100vw', { viewport: 400, density: 1 })).toBeNull();
    expect(chosenUrl('a.jpg, b.jpg 2x', '', { viewport: 400, density: 2 })).toBe('b.jpg');
  });
  test.each([
    [dense(1, 2), 1, 1],
    [dense(1, 2), 1.01, 2],
    [dense(1, 2), 3, 2],
    [dense(0.9, 1.5), 1, 1.5],
    [dense(0.5, 2), 0.5, 0.5],
    [dense(3, 1, 2), 1.5, 2],
    // Equal as the 32-bit numbers that browsers compare.
    [dense(0.1 + 0.2, 1), 0.3, 0.1 + 0.2],
    [dense(1.5, 3), 1, 1.5],
    [dense(2), 1, 2],
    [[], 1, null],
  ])('%j on a screen of %d: %j', (candidates, screen, chosen) => {
    expect(chromiumChoice(candidates, screen)).toBe(chosen);
  });
  test('a denser screen never gets a smaller file', () => {
    const luck = chance(5);
    for (let i = 0; i < 300; i++) {
      const widths = Array.from({ length: luck.whole(1, 6) }, () => luck.whole(100, 3000));
      const display = luck.whole(80, 1500);
      let before = 0;
      for (const density of [1, 1.25, 1.5, 2, 2.5, 3, 4]) {
        const width = chosenWidth(widths, display, density)!;
        expect(width).toBeGreaterThanOrEqual(before);
        before = width;
      }
    }
  });
});

test('a srcset under other addresses keeps its descriptors', () => {
  const under = srcsetUnder('a.jpg 480w, b,c.jpg 960w,d.jpg 2x x, e.jpg', (url) => `p/${url}`);
  expect(under).toBe('p/a.jpg 480w, p/b,c.jpg 960w, p/e.jpg 1x');
});
