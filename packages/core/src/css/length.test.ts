// CSS lengths: by hand, against a plain evaluation at many viewports, and mistakes by their character.
import { describe, expect, test } from '@jest/globals';
import { cssErrorOf } from '../testing/css-error.ts';
import { chance, type Chance } from '../chance/chance.ts';
import { INITIAL_CONTEXT, parseLength } from './length.ts';
import { parseMedia, mediaHolds } from './media.ts';
import type { WidthRule } from '../contract/index.ts';
import { constant, valueOf, pieceAt } from './width-rule.ts';

const at = (rule: WidthRule, viewport: number): number => valueOf(pieceAt(rule, viewport), viewport);
const container = [{ from: 0, vw: 1, px: -100 }];

describe('lengths', () => {
  test.each([
    ['320px', 1000, 320],
    ['50vw', 1000, 500],
    ['0', 1000, 0],
    ['2rem', 1000, 40],
    ['2em', 1000, 36],
    ['1in', 1000, 96],
    ['72pt', 1000, 96],
    ['50%', 1000, 450],
    ['.5vw', 1000, 5],
    ['1e2px', 1000, 100],
    ['-10px', 1000, -10],
    ['CALC(100VW - 32PX)', 1000, 968],
    ['calc(100vw - 2 * (10px + 1rem))', 1000, 940],
    ['calc((100vw - 64px) / 3)', 1000, 312],
    ['calc(1/4 * 100vw)', 1000, 250],
    ['min(100vw - 32px, 720px)', 600, 568],
    ['min(100vw - 32px, 720px)', 900, 720],
    ['max(320px, 50vw)', 500, 320],
    ['max(320px, 50vw)', 900, 450],
    ['clamp(300px, 50vw, 600px)', 400, 300],
    ['clamp(300px, 50vw, 600px)', 800, 400],
    ['clamp(300px, 50vw, 600px)', 1600, 600],
    // The least goes before the most (CSS Values 4, 10.5).
    ['clamp(700px, 50vw, 600px)', 1600, 700],
    ['calc( 100vw /* page */ - 32px )', 1000, 968],
    ['min(100px)', 1000, 100],
  ])('%s at %d px is %d px', (text, viewport, width) => {
    expect(at(parseLength(text, { rem: 20, em: 18, container }), viewport)).toBeCloseTo(width, 9);
  });

  test.each([
    ['', 0, 'a length is expected'],
    ['320', 0, 'number alone'],
    ['50vh', 0, 'height of the window'],
    ['50pc2', 0, 'not a unit'],
    ['50%', 0, 'needs a container'],
    ['calc(100vw -32px)', 11, 'comma or a closing'],
    ['calc(100vw - 32px', 17, 'comma or a closing'],
    ['calc(100vw-32px)', 5, 'not a unit'],
    ['calc (1px)', 5, 'opening parenthesis'],
    ['calc(10px * 10px)', 12, 'multiplied'],
    ['calc(10px / 0)', 12, 'zero'],
    ['calc(10px / 2px)', 12, 'plain number'],
    ['calc(10px + 2)', 10, 'number can’t be added'],
    ['min(10px, 2)', 0, 'can’t be compared'],
    ['clamp(1px, 2px)', 0, 'three lengths'],
    ['fit(1px)', 0, 'not known'],
    ['10px 20px', 5, 'complete'],
    ['10px!', 4, 'no meaning'],
    ['calc(10px, 2px)', 0, 'one expression'],
  ])('%j fails at %d', (text, position, reason) => {
    const error = cssErrorOf(() => parseLength(text));
    expect(error.message).toContain(reason);
    expect(error.position).toBe(position);
    if (position < text.length)
      expect(error.message).toContain(`At character ${position + 1}, “${text[position]}”`);
  });

  test('random expressions have the value that arithmetic gives', () => {
    const luck = chance(7);
    for (let i = 0; i < 300; i++) {
      const { css, value } = expression(luck, 3);
      const rule = parseLength(`calc(${css})`);
      for (const viewport of [0, 1, 320, 599.5, 1280, 2560]) {
        expect({ css, viewport, v: at(rule, viewport) }).toEqual({
          css,
          viewport,
          v: expect.closeTo(value(viewport), 6),
        });
      }
    }
  });
});

/** A random length as CSS, beside a function that says its value. */
function expression(luck: Chance, depth: number): { css: string; value: (viewport: number) => number } {
  const kind = depth === 0 ? luck.whole(0, 1) : luck.whole(0, 5);
  const number = luck.whole(-40, 90);
  if (kind === 0) return { css: `${number}vw`, value: (v) => (number / 100) * v };
  if (kind === 1) return { css: `${number * 10}px`, value: () => number * 10 };
  const [a, b] = [expression(luck, depth - 1), expression(luck, depth - 1)];
  switch (kind) {
    case 2:
      return { css: `(${a.css} - ${b.css})`, value: (v) => a.value(v) - b.value(v) };
    case 3:
      return { css: `(${a.css}) * 0.5`, value: (v) => a.value(v) * 0.5 };
    case 4:
      return { css: `min(${a.css}, ${b.css})`, value: (v) => Math.min(a.value(v), b.value(v)) };
    default:
      return { css: `max(${a.css}, ${b.css})`, value: (v) => Math.max(a.value(v), b.value(v)) };
  }
}

describe('media conditions', () => {
  test.each([
    [
      '(min-width: 700px)',
      [
        [700, true],
        [699.9, false],
      ],
    ],
    [
      '(max-width: 30em)',
      [
        [480, true],
        [480.5, false],
      ],
    ],
    [
      '(width >= 700px)',
      [
        [700, true],
        [699, false],
      ],
    ],
    [
      '(width > 700px)',
      [
        [700, false],
        [700.1, true],
      ],
    ],
    [
      '(400px <= width < 800px)',
      [
        [399, false],
        [400, true],
        [799, true],
        [800, false],
      ],
    ],
    [
      '(800px > width)',
      [
        [799, true],
        [800, false],
      ],
    ],
    [
      '(width: 600px)',
      [
        [600, true],
        [600.5, false],
      ],
    ],
    [
      '(min-width: 400px) and (max-width: 800px)',
      [
        [399, false],
        [600, true],
        [801, false],
      ],
    ],
    [
      '(max-width: 400px) or (min-width: 800px)',
      [
        [300, true],
        [600, false],
        [900, true],
      ],
    ],
    [
      'not (min-width: 700px)',
      [
        [600, true],
        [700, false],
      ],
    ],
    [
      '(not (width < 300px)) and (width < 500px)',
      [
        [200, false],
        [400, true],
        [500, false],
      ],
    ],
    [
      '((min-width: 300px))',
      [
        [300, true],
        [299, false],
      ],
    ],
    [
      'screen and (min-width: 20em)',
      [
        [320, true],
        [319, false],
      ],
    ],
    [
      '(max-width: 300px), (min-width: 900px)',
      [
        [200, true],
        [500, false],
        [900, true],
      ],
    ],
    ['all', [[10, true]]],
    ['', [[10, true]]],
    [
      '(min-width: calc(300px + 2rem))',
      [
        [331, false],
        [332, true],
      ],
    ],
  ] as [string, [number, boolean][]][])('%s', (media, cases) => {
    expect(cases.map(([viewport]) => mediaHolds(media, viewport))).toEqual(cases.map(([, holds]) => holds));
  });
  test.each([
    ['(min-resolution: 2dppx)', [1, 1.9], [2, 3]],
    ['(max-resolution: 1.5x)', [2], [1, 1.5]],
    ['(resolution: 192dpi)', [1, 3], [2]],
    ['(min-resolution: 2.5dppx) and (min-width: 300px)', [2], [3]],
    ['not (min-resolution: 2dppx)', [2, 3], [1]],
  ] as const)('%s fails at %j and holds at %j', (media, fails, holds) => {
    expect(fails.map((density) => mediaHolds(media, 800, density))).toEqual(fails.map(() => false));
    expect(holds.map((density) => mediaHolds(media, 800, density))).toEqual(holds.map(() => true));
  });
  test('spans that touch are one', () => {
    expect(parseMedia('(width < 500px), (width >= 500px)')).toEqual([{ from: 0, to: Infinity }]);
  });
  test.each([
    ['(orientation: landscape)', 1, 'only conditions on width'],
    ['(min-width: 50vw)', 12, 'can’t hang on the viewport'],
    ['(min-width 700px)', 11, 'colon'],
    ['(min-width: 700px', 17, 'closing parenthesis'],
    ['(width ~ 3px)', 7, 'no meaning'],
    ['(width 3px)', 7, 'one of'],
    ['(min-width: 1px) and (max-width: 2px) or (width: 3px)', 38, 'mixed'],
    ['(min-resolution: 2px)', 17, 'no unit of resolution'],
    ['(min-resolution 2x)', 16, 'colon'],
    ['print', 0, 'in parentheses'],
  ])('%s fails at %d', (media, position, reason) => {
    const error = cssErrorOf(() => parseMedia(media));
    expect([error.position, error.message]).toEqual([position, expect.stringContaining(reason)]);
  });
});

test('the initial font size is 16 px, and a constant rule says one width', () => {
  expect(INITIAL_CONTEXT).toMatchObject({ rem: 16, em: 16 });
  expect(at(constant(5), 900)).toBe(5);
});
