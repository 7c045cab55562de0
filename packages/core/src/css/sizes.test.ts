// The `sizes` attribute: the HTML standard's examples, what browsers forgive, and what is written back.
import { describe, expect, test } from '@jest/globals';
import { SHIPPED_SLOTS as SLOTS } from '../slots/shipped.ts';
import { spanOf } from '../slots/slots.ts';
import { cssErrorOf } from '../testing/css-error.ts';
import { chance } from '../chance/chance.ts';
import { browserSizes, cssLength, parseSizes, sizesOf } from './sizes.ts';
import type { WidthRule } from '../contract/index.ts';
import { joined, widthAt } from './width-rule.ts';

/** HTML standard, 4.8.4.1.1, "Introduction" to the images of several widths. */
const SWING = '(max-width: 30em) 100vw, (max-width: 50em) 50vw, calc(33vw - 100px)';
const em = (n: number) => n * 16;

describe('reading', () => {
  test('the standard’s example: 29em at a window of 29em, 16em at 32em, a third less 100 px above 50em', () => {
    const rule = parseSizes(SWING);
    expect(widthAt(rule, em(29))).toBeCloseTo(em(29), 6);
    expect(widthAt(rule, em(32))).toBeCloseTo(em(16), 6);
    expect(widthAt(rule, em(30))).toBeCloseTo(em(30), 6);
    expect(widthAt(rule, em(50))).toBeCloseTo(em(25), 6);
    expect(widthAt(rule, 1000)).toBeCloseTo(230, 6);
    expect(browserSizes(SWING)).toEqual(rule);
  });
  test('the first condition that holds counts; none left means the whole window', () => {
    expect(widthAt(parseSizes('(min-width: 800px) 40vw, (min-width: 400px) 50vw'), 900)).toBe(360);
    expect(widthAt(parseSizes('(min-width: 800px) 40vw, (min-width: 400px) 50vw'), 300)).toBe(300);
  });
  test.each([
    ['', 0, 'a width is expected'],
    ['auto', 0, 'auto'],
    ['(min-width: 700px)', 18, 'after a condition'],
    ['100vw, 50vw', 7, 'never reached'],
    ['(min-width: 700px) 50vw 20px', 24, 'comma or the end'],
    ['(min-width: 700px) 50%', 19, 'container'],
  ])('%j is refused at %d', (text, position, reason) => {
    const error = cssErrorOf(() => parseSizes(text));
    expect([error.position, error.message]).toEqual([position, expect.stringContaining(reason)]);
  });
  test.each([
    ['', 1],
    ['nonsense', 1],
    ['(min-width: 1px) 50%, 25vw', 0.25],
    ['(orientation: landscape) 10vw, 25vw', 0.25],
    ['10vw, 25vw', 0.1],
    ['(min-width: 99999px) 10vw, , 25vw', 0.25],
    ['calc(10vw, 20vw, 25vw', 1],
    ['min(50vw, 20vw), 90vw', 0.2],
  ])('a browser reads %j as %d of the window', (text, share) => {
    expect(widthAt(browserSizes(text), 1000)).toBeCloseTo(share * 1000, 6);
  });
});

describe('writing', () => {
  test('lengths as CSS', () => {
    expect(cssLength({ vw: 0.5, px: 0 })).toBe('50vw');
    expect(cssLength({ vw: 1 / 3, px: 8 })).toBe('calc(33.3333vw + 8px)');
    expect(cssLength({ vw: 0, px: 320 })).toBe('320px');
  });
  test.each([
    ['min(100vw - 32px, 720px)', 'min(100vw - 32px, 720px)'],
    ['max(320px, 50vw)', 'max(320px, 50vw)'],
    ['clamp(300px, 50vw, 600px)', 'clamp(300px, 50vw, 600px)'],
    ['min(100vw, max(300px, 50vw))', 'min(100vw, max(300px, 50vw))'],
    [SWING, '(min-width: 800px) calc(33vw - 100px), (min-width: 480px) 50vw, 100vw'],
    ['(min-width: 700px) 50vw, 100vw', '(min-width: 700px) 50vw, 100vw'],
    // Half a pixel apart: one length says both.
    ['(min-width: 700px) calc(50vw + 0.5px), 50vw', '50vw'],
  ])('%s as %s', (text, written) => {
    expect(sizesOf(parseSizes(text))).toBe(written);
  });
  test('a condition that every entry has besides', () => {
    const rule = parseSizes('(min-width: 700px) 50vw, 100vw');
    const dense = sizesOf(rule, { from: 0, to: Infinity }, '(min-resolution: 2.5dppx)');
    expect(dense).toBe(
      '(min-resolution: 2.5dppx) and (min-width: 700px) 50vw, (min-resolution: 2.5dppx) 100vw',
    );
    expect(widthAt(browserSizes(`${dense}, 10px`, 3), 800)).toBe(400);
    expect(widthAt(browserSizes(`${dense}, 10px`, 2), 800)).toBe(10);
    expect(widthAt(parseSizes(`${dense}, 10px`, { rem: 16, em: 16, density: 3 }), 600)).toBe(600);
  });
  test('a source with a media condition needs no condition that it excludes', () => {
    const rule = parseSizes('(min-width: 700px) 50vw, 100vw');
    expect(sizesOf(rule, { from: 0, to: 700 })).toBe('100vw');
    expect(sizesOf(rule, { from: 700, to: Infinity })).toBe('50vw');
  });
  test.each(SLOTS.map((slot) => [slot.id, slot] as const))(
    'sizes of %s say what the rule says',
    (_, slot) => {
      for (const part of slot.shapes) {
        const read = parseSizes(sizesOf(slot.rule, spanOf(part)));
        for (let v = Math.max(320, part.from); v < Math.min(2600, spanOf(part).to); v += 13) {
          expect(Math.abs(widthAt(read, v) - widthAt(slot.rule, v))).toBeLessThanOrEqual(1);
        }
      }
    },
  );
  test('random rules: read back within 1 px, and with no more conditions than the rule has joints', () => {
    const luck = chance(11);
    for (let i = 0; i < 400; i++) {
      const rule = randomRule(() => luck.next());
      const text = sizesOf(rule);
      const read = parseSizes(text);
      let worst = 0;
      for (let v = 200; v < 3000; v += 17) {
        worst = Math.max(worst, Math.abs(widthAt(read, v) - widthAt(rule, v)));
      }
      expect({ text, fine: worst <= 1.01 }).toEqual({ text, fine: true });
      expect((text.match(/min-width/g) ?? []).length).toBeLessThan(joined(rule).length);
    }
  });
});

function randomRule(next: () => number): WidthRule {
  const pieces = 1 + Math.floor(next() * 4);
  let from = 0;
  return Array.from({ length: pieces }, () => {
    const piece = { from, vw: Math.round(next() * 20) / 20, px: Math.round(next() * 300) };
    from += 150 + Math.round(next() * 500);
    return piece;
  });
}
