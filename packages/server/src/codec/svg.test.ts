// Cleaning drawings: what can act or fetch goes, the drawing stays.
import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { DEMO } from '../testing/server.ts';
import { cleanSvg } from './svg.ts';

const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40" height="20">${inner}</svg>`;

describe('cleaning', () => {
  test.each([
    ['<script>alert(1)</script>', /script|alert/],
    ['<rect width="9" height="9" onload="alert(1)"/>', /onload|alert/],
    ['<foreignObject><p>hi</p></foreignObject>', /foreignObject|hi/],
    ['<image href="http://127.0.0.1/x.png" width="9" height="9"/>', /127/],
    ['<image href="file:///etc/hostname" width="9" height="9"/>', /etc/],
    ['<use xlink:href="http://127.0.0.1/x.svg#a"/>', /127/],
    ['<rect fill="url(http://127.0.0.1/x.svg#a)" width="9" height="9"/>', /127/],
    [
      '<style>@import url(http://127.0.0.1/x.css); .a { fill: url(http://127.0.0.1/b) }</style>',
      /import|127/,
    ],
    ['<a href="javascript:alert(1)"><rect width="9" height="9"/></a>', /javascript/],
  ])('%s', (inner, gone) => expect(cleanSvg(svg(inner)).svg).not.toMatch(gone));
  test('references inside the drawing stay', () => {
    const { svg: clean } = cleanSvg(
      svg(
        '<defs><linearGradient id="g"/></defs><rect id="r" fill="url(#g)" width="9" height="9"/><use href="#r"/>',
      ),
    );
    expect(clean).toContain('url(#g)');
    expect(clean).toContain('href="#r"');
  });
  test('style sheets of the drawing stay', () => {
    const { svg: clean } = cleanSvg(
      svg('<style>.st0 { fill: #24464f }</style><rect class="st0" width="9" height="9"/>'),
    );
    expect(clean).toContain('.st0 { fill: #24464f }');
  });
  test('the demo’s logo draws the same as before', async () => {
    const source = await readFile(join(DEMO, 'special/logo-gullmoor.svg'), 'utf8');
    const [before, after] = await Promise.all(
      [source, cleanSvg(source).svg].map((text) => sharp(Buffer.from(text)).raw().toBuffer()),
    );
    expect(after!.equals(before!)).toBe(true);
  });
  test('no drawing is no drawing', () => {
    expect(() => cleanSvg('<p>hello</p>')).toThrow('damaged');
  });
});
