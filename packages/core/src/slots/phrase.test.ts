import { describe, expect, test } from '@jest/globals';
import { widthAt } from '../css/width-rule.ts';
import { readPhrase } from './phrase.ts';

const widths = (text: string, windows = [390, 820, 1280, 1920]) => {
  const { rule } = readPhrase(text)!;
  return windows.map((window) => Math.round(widthAt(rule, window) * 100) / 100);
};

describe('widths said in words', () => {
  test.each([
    ['420 px column', 'min(100vw - 32px, 420px)', [358, 420, 420, 420]],
    ['a column of 720 px', 'min(100vw - 32px, 720px)', [358, 720, 720, 720]],
    ['half of a 1140 px column', 'min(50vw - 16px, 570px)', [179, 394, 570, 570]],
    ['Half of a column of 1140 px.', 'min(50vw - 16px, 570px)', [179, 394, 570, 570]],
    ['two thirds of a 900px column', 'min(66.6667vw - 21.3333px, 600px)', [238.67, 525.33, 600, 600]],
    ['40 % of a 1000 px column', 'min(40vw - 12.8px, 400px)', [143.2, 315.2, 400, 400]],
    [
      '4 across with 16 px between in 1200 px',
      'calc((min(100vw - 32px, 1200px) - 48px) / 4)',
      [77.5, 185, 288, 288],
    ],
    [
      'Four across in 1,200 px with 16px gaps',
      'calc((min(100vw - 32px, 1200px) - 48px) / 4)',
      [77.5, 185, 288, 288],
    ],
    ['3 in a row', 'calc((100vw - 32px) / 3)', [119.33, 262.67, 416, 629.33]],
    [
      '4 across with 16 px between in 1200 px, 2 below 700 px',
      '(min-width: 700px) calc((min(100vw - 32px, 1200px) - 48px) / 4), calc((100vw - 32px - 16px) / 2)',
      [171, 185, 288, 288],
    ],
    ['at most 960×720', 'min(100vw - 32px, 960px)', [358, 788, 960, 960]],
    ['at most 960 px wide', 'min(100vw - 32px, 960px)', [358, 788, 960, 960]],
    ['as wide as the window', '100vw', [390, 820, 1280, 1920]],
    ['as wide as the window, at most 1600 px', 'min(100vw, 1600px)', [390, 820, 1280, 1600]],
    ['half of the window', '50vw', [195, 410, 640, 960]],
    [
      'half of a column of 1140 px, whole below 700 px',
      '(min-width: 700px) min(50vw - 16px, 570px), calc(100vw - 32px)',
      [358, 394, 570, 570],
    ],
  ])('%s', (text, css, expected) => {
    expect(readPhrase(text)!.css).toBe(css);
    expect(widths(text)).toEqual(expected);
  });

  test('what else was said is kept', () => {
    expect(readPhrase('at most 960 × 720')!.fit).toEqual({ width: 960, height: 720 });
    const row = readPhrase('4 across with 16 px between in 1200 px, 2 below 700 px')!;
    expect([row.gap, row.across]).toEqual([
      16,
      [
        { from: 700, count: 4 },
        { from: 0, count: 2 },
      ],
    ]);
  });

  test.each([
    '',
    'wide',
    'min(100vw, 3px)',
    '0 across',
    '50 across with 99 px between in 100 px',
    'at most 0 x 0',
    '300 % of the window',
    '4 across, 0 below 0 px',
    '4 across '.repeat(400),
  ])('%j is no width in words', (text) => expect(readPhrase(text)).toBeNull());
});
