import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { parseSizes } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { readPhrase } from './phrase.ts';

const widths = (text: string, windows = [390, 820, 1280, 1920]) => {
  const { rule } = readPhrase(text)!;
  return windows.map((window) => Math.round(widthAt(rule, window) * 100) / 100);
};

interface Said {
  text: string;
  means: string;
}
const SAID = JSON.parse(readFileSync(new URL('./said-widths.json', import.meta.url), 'utf8')) as Said[];

test('of the kept list nearly all is understood, in both languages, and nothing as something else', () => {
  const outcomes = SAID.map(({ text, means }) => {
    const read = readPhrase(text)?.rule ?? null;
    const meant = parseSizes(means);
    const same = (window: number) => Math.abs(widthAt(read!, window) - widthAt(meant, window)) < 0.6;
    return { text, outcome: read === null ? 'not known' : [390, 700, 1280].every(same) ? 'good' : 'misread' };
  });
  expect(outcomes.filter(({ outcome }) => outcome === 'misread')).toEqual([]);
  expect(outcomes.filter(({ outcome }) => outcome === 'not known').length).toBeLessThanOrEqual(5);
});

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
    ['12em wide', ['1 em is taken as 16 px.']],
    ['300', ['A number without a unit is taken as px.']],
    ['60ch column', ['1 ch is taken as 8 px, half of a font of 16 px.']],
    ['half the text column', ['The text column is taken as 720 px wide.']],
    ['420 px column', []],
  ])('%s says what it takes for granted', (text, notes) => {
    expect(readPhrase(text)!.notes).toEqual(notes);
  });

  test('conditions hold where they say, the closest first', () => {
    expect(widths('full width, 400 px from 600 px on, 500 px from 1000 px on')).toEqual([390, 400, 500, 500]);
    expect(widths('3 columns, 2 on tablets, 1 on phones').map(Math.round)).toEqual([358, 394, 416, 629]);
    expect(widths('20 px on phones, 30 px from 900 px on')).toEqual([20, 20, 30, 30]);
  });

  test.each([
    '',
    'wide',
    'as nice as possible',
    'half of the cake',
    '4 in a row with love',
    'below 700 px',
    ',,,',
    'from 0 px on',
    '(((((',
    'a a a a a a a a a a',
    'min(100vw, 3px)',
    '0 across',
    '50 across with 99 px between in 100 px',
    'at most 0 x 0',
    '300 % of the window',
    '4 across, 0 below 0 px',
    '4 across '.repeat(400),
  ])('%j is no width in words', (text) => expect(readPhrase(text)).toBeNull());
});
