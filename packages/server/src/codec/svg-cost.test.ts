// What a drawing costs whoever draws it: every use counts, whatever it is referred to by; honest drawings are cheap.
import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DEMO } from '../testing/server.ts';
import { drawingCost } from './svg-cost.ts';
import { cleanSvg } from './svg.ts';

const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200" width="300" height="200">${inner}</svg>`;
const FULL = 'width="300" height="200"';
const NOISE = '<filter id="f"><feTurbulence numOctaves="8"/></filter>';
/** What may go out as a drawing, and what is drawn at all. */
const [DEAR, REFUSED] = [150, 5_000];

describe('counted for every use', () => {
  const uses = (how: string, times: number) => NOISE + `<rect ${how} ${FULL}/>`.repeat(times);
  test.each([
    ['an attribute', 'filter="url(#f)"', ''],
    ['a style attribute', 'style="filter:url(#f)"', ''],
    ['a class', 'class="a"', '<style>.a{filter:url(#f)}</style>'],
    ['an id in a condition', 'id="x"', '<style>@media all{g > #x, b{filter:url(#f)}}</style>'],
    ['a kind', '', '<style>svg > rect:first-child{filter:url("#f")}</style>'],
    ['everything', '', '<style>*{filter:url(#f)}</style>'],
    ['an escaped name', 'class="a"', '<style>.a{f\\69lter:url(#f)}</style>'],
  ])('by %s', (_, how, style) => {
    const cost = (times: number) => drawingCost(svg(style + uses(how, times)));
    expect(cost(10)).toBeGreaterThan(REFUSED);
    expect(cost(10) / cost(2)).toBeGreaterThan(2.5);
  });
  test.each([
    ['masks', '<mask id="m"><rect width="300" height="200"/></mask>', '<path d="M0 0h9" mask="url(#m)"/>'],
    ['blended parts', '', '<g style="mix-blend-mode:multiply"><path d="M0 0h9"/></g>'],
    ['patterns', '<pattern id="p"><rect width="9" height="9"/></pattern>', `<rect fill="url(#p)" ${FULL}/>`],
    ['gradients', '<linearGradient id="p"/>', `<rect fill="url(#p)" ${FULL}/>`],
    ['large shapes', '', `<rect ${FULL}/>`],
    ['groups that are used', '<g id="g">' + '<path d="M0 0h9"/>'.repeat(300) + '</g>', '<use href="#g"/>'],
    [
      'markers',
      '<marker id="m"><circle r="2"/></marker>',
      `<path marker-mid="url(#m)" d="${'L9 9'.repeat(900)}"/>`,
    ],
    ['dashes', '', '<path d="M0 0H300" stroke-dasharray=".01"/>'],
    ['blurs that are named', '', '<path d="M0 0h9" style="filter:blur(9px)"/>'],
  ])('%s are dear in hundreds', (_, before, each) => {
    expect(drawingCost(svg(before + each))).toBeLessThan(DEAR);
    expect(drawingCost(svg(before + each.repeat(400)))).toBeGreaterThan(DEAR);
  });
  test('paint that children have from their parents', () => {
    const pattern = '<pattern id="p">' + '<rect width="1" height="1"/>'.repeat(200) + '</pattern>';
    const shapes = '<path d="M0 0h9"/>'.repeat(500);
    expect(drawingCost(svg(`${pattern}<g fill="url(#p)">${shapes}</g>`))).toBeGreaterThan(DEAR);
    expect(drawingCost(svg(`${pattern}<g>${shapes}</g>`))).toBeLessThan(DEAR);
  });
  test('what refers to itself, and rules without end, are counted in no time', () => {
    expect(
      drawingCost(
        svg('<g id="a"><use href="#a"/><g mask="url(#m)"/></g><mask id="m"><use href="#a"/></mask>'),
      ),
    ).toBeLessThan(DEAR);
    const rules = Array.from({ length: 5_000 }, (_, n) => `*{filter:url(#f${n})}`).join('');
    expect(drawingCost(svg(`<style>${rules}</style>${'<g/>'.repeat(5_000)}`))).toBe(Infinity);
  });
});

describe('honest drawings', () => {
  test('the demo’s logo', async () => {
    const { cost } = cleanSvg(await readFile(join(DEMO, 'special/logo-gullmoor.svg'), 'utf8'));
    expect(cost).toBeLessThan(10);
  });
  test('an illustration of thousands of paths, with shadows on icons and a gradient behind', () => {
    const paths = Array.from({ length: 8_000 }, (_, n) => `<path d="M${n % 300} 9l2 1l-1 2z" opacity=".9"/>`);
    const shadow = '<filter id="s"><feDropShadow dx="1" dy="1" stdDeviation="1"/></filter>';
    const icons = '<circle cx="9" cy="9" r="8" filter="url(#s)"/>'.repeat(12);
    const sky = `<linearGradient id="g"/><rect fill="url(#g)" ${FULL}/>`;
    expect(drawingCost(svg(sky + shadow + icons + paths.join('')))).toBeLessThan(DEAR);
  });
});

test('what takes minutes to draw is refused in a sentence, before anybody draws it', () => {
  const source = svg(`<style>.a{filter:url(#f)}</style>${NOISE}${`<rect class="a" ${FULL}/>`.repeat(60)}`);
  expect(() => cleanSvg(source)).toThrow(/would take minutes to draw.*export it as PNG/);
});
