// Drawings of a few hundred bytes that would keep a processor busy for hours are refused by what they ask for.
import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { FASTER_THAN_LENGTH, growthOf, HOSTILE } from '../../../core/src/testing/growth.ts';
import { checkDrawing } from './svg-limits.ts';
import { sniff } from './sniff.ts';
import { cleanSvg, sizedSvg } from './svg.ts';

const svg = (inner: string, attributes = 'width="40" height="20"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`;

/** Each level is drawn ten times by the next: ten levels are ten thousand million. */
const bomb = (kind: (level: number) => string) =>
  svg(
    `<defs>${Array.from({ length: 10 }, (_, i) => kind(i + 1)).join('')}<g id="l0"><rect width="1" height="1"/></g></defs><use href="#l10"/>`,
  );

describe('a drawing', () => {
  test.each([
    ['elements', svg('<g/>'.repeat(200_000))],
    ['elements inside each other', svg('<g>'.repeat(50_000) + '</g>'.repeat(50_000))],
    ['path data', svg(`<path d="${'M0 0L1 1'.repeat(1_000_000)}"/>`)],
    ['characters of text', svg(`<text>${'word '.repeat(250_000)}</text>`)],
    ['drawn repeatedly', bomb((i) => `<g id="l${i}">${`<use href="#l${i - 1}"/>`.repeat(10)}</g>`)],
    [
      'drawn repeatedly',
      bomb(
        (i) =>
          `<pattern id="l${i}" width="1" height="1">${`<rect fill="url(#l${i - 1})" width="1" height="1"/>`.repeat(10)}</pattern>`,
      ),
    ],
    [
      'filter radius',
      svg(
        '<filter id="f"><feMorphology operator="dilate" radius="5000"/></filter><rect filter="url(#f)" width="9" height="9"/>',
      ),
    ],
    ['filter steps', svg(`<filter id="f">${'<feGaussianBlur stdDeviation="3"/>'.repeat(300)}</filter>`)],
    ['octaves', svg('<filter id="f"><feTurbulence numOctaves="400"/></filter>')],
    ['characters', ' '.repeat(11_000_000)],
  ])('with too many %s is refused, and says so', (what, source) => {
    expect(() => checkDrawing(source)).toThrow(what);
    expect(() => checkDrawing(source)).toThrow(/Simplify it/);
  });
  test.each([
    svg('<g id="a"><use href="#a"/></g>'),
    svg(
      '<filter id="f"><feGaussianBlur stdDeviation="3"/></filter><rect filter="url(#f)" width="9" height="9"/>',
    ),
    svg(
      `<defs><g id="leaf">${'<path d="M0 0h1"/>'.repeat(50)}</g></defs>${'<use href="#leaf"/>'.repeat(500)}`,
    ),
    '<svg><not closed',
  ])('of an ordinary kind is not: %.80s', (source) => {
    expect(() => checkDrawing(source)).not.toThrow();
  });
});

describe('drawing', () => {
  const colourAt = async (source: string, x: number, y: number, width = 300, height = 300) => {
    const sized = sizedSvg(cleanSvg(source).svg, await sharp(Buffer.from(source)).metadata(), {
      width,
      height,
    });
    const { data, info } = await sharp(Buffer.from(sized))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([width, height]);
    return [...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3)];
  };
  test('a viewBox of one unit is as good as any', async () => {
    const source = svg(
      '<rect width="1" height=".5" fill="#f00"/><rect y=".5" width="1" height=".5" fill="#00f"/>',
      'viewBox="0 0 1 1"',
    );
    expect(await colourAt(source, 150, 140)).toEqual([255, 0, 0]);
    expect(await colourAt(source, 150, 160)).toEqual([0, 0, 255]);
  });
  test('one without a viewBox is drawn at its own size, scaled', async () => {
    const source = svg('<rect width="20" height="20" fill="#f00"/>', 'width="40" height="20"');
    expect(await colourAt(source, 140, 10, 300, 150)).toEqual([255, 0, 0]);
    expect(await colourAt(source, 160, 10, 300, 150)).toEqual([0, 0, 0]);
  });
  test('pictures inside it stay, pictures elsewhere are left out and counted', async () => {
    const red = (
      await sharp({ create: { width: 4, height: 4, channels: 3, background: '#f00' } })
        .png()
        .toBuffer()
    ).toString('base64');
    const source = svg(
      `<image href="data:image/png;base64,${red}" width="40" height="20"/><image href="photo.png" width="9" height="9"/>`,
    );
    expect(cleanSvg(source).leftOut).toBe(1);
    expect(await colourAt(source, 20, 10, 40, 20)).toEqual([255, 0, 0]);
    expect(
      cleanSvg(svg('<image href="data:text/html;base64,PHNjcmlwdD4=" width="9" height="9"/>')).svg,
    ).not.toContain('data:');
  });
});

describe('reading its text', () => {
  test.each([
    ['sniff', (text: string) => sniff(Buffer.from(text))],
    ['checkDrawing', (text: string) => checkDrawing(text)],
  ] as const)('%s takes no longer than the text is long', (_, read) => {
    const tooFast = Object.entries(HOSTILE)
      .map(([name, hostile]) => ({ name, ...growthOf(read, hostile) }))
      .filter(({ ratio, stuckAt }) => stuckAt !== null || ratio > FASTER_THAN_LENGTH);
    expect(tooFast).toEqual([]);
  });
  test('a drawing is known behind comments, instructions and a document type', () => {
    for (const before of [
      '',
      '<?xml version="1.0"?>',
      '<!-- a --><!-- b -->',
      '<!DOCTYPE svg [<!ENTITY a "b">]>',
      '\ufeff \n',
    ])
      expect(sniff(Buffer.from(`${before}<svg>`))).toBe('svg');
    for (const other of ['<svgx>', '<html><svg>', '<!-- <svg>', '<!DOCTYPE a><!DOCTYPE b><svg>'])
      expect(() => sniff(Buffer.from(other))).toThrow('not a picture');
  });
});
