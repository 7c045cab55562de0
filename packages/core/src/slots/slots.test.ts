// Slots: width rules as CSS and as numbers, sharpness, candidate widths.
import { describe, expect, test } from '@jest/globals';
import { candidateWidths, chosenWidth, demandsOf, sharpnessOf } from './candidates.ts';
import { DEFAULT_DEVICES } from './devices.ts';
import { ruleFor, shapesOf, slotById, SLOTS } from './slots.ts';
import { capRule, cssLength, cssWidths, sizesOf, widthAt, type WidthRule } from './width-rule.ts';

const column = slotById('column');
const hero = slotById('hero');

/** Evaluates the subset of `sizes` that is generated, as a browser does: first condition that holds. */
function evaluate(sizes: string, viewport: number): number {
  for (const entry of sizes.split(', ')) {
    const [, from, length] = /^(?:\(min-width: (\d+)px\) )?(.+)$/.exec(entry)!;
    if (from !== undefined && viewport < Number(from)) continue;
    const script = length!
      .replace(/calc/, '')
      .replace(/([\d.]+)vw/, `($1 * ${viewport} / 100)`)
      .replace(/px/g, '');
    return Number(new Function(`return ${script}`)());
  }
  throw new Error('no length');
}

describe('width rules', () => {
  test('the text column: full width less 32 px, 720 px from 752 px on', () => {
    expect([360, 751, 752, 1920].map((v) => widthAt(column.rule, v))).toEqual([328, 719, 720, 720]);
    expect(sizesOf(column.rule)).toBe('(min-width: 752px) 720px, calc(100vw - 32px)');
  });
  test('lengths are written as CSS', () => {
    expect(cssLength({ vw: 0.5, px: 0 })).toBe('50vw');
    expect(cssLength({ vw: 1 / 3, px: 8 })).toBe('calc(33.333vw + 8px)');
    expect(cssLength({ vw: 0, px: 320 })).toBe('320px');
  });
  test('a cap is the smaller of rule and cap at every viewport', () => {
    const rule: WidthRule = [
      { from: 0, vw: 1, px: -32 },
      { from: 600, vw: 0.5, px: 0 },
    ];
    for (const cap of [100, 300, 500, 568, 900]) {
      const capped = capRule(rule, cap);
      expect(capped[0]!.from).toBe(0);
      for (let v = 0; v < 2400; v += 7) {
        expect(widthAt(capped, v)).toBeCloseTo(Math.min(cap, widthAt(rule, v)), 6);
      }
    }
  });
  test.each(SLOTS.map((slot) => [slot.id, slot] as const))(
    'sizes and CSS of %s say what the rule says',
    (_, slot) => {
      const css = cssWidths('.x', slot.rule);
      expect(css.match(/width:/g)!.length).toBeGreaterThanOrEqual(slot.rule.length);
      for (const part of slot.shapes) {
        const sizes = sizesOf(slot.rule, part);
        for (let v = Math.max(320, part.from); v < Math.min(2600, part.to); v += 13) {
          expect(Math.abs(evaluate(sizes, v) - widthAt(slot.rule, v))).toBeLessThan(0.02);
        }
      }
    },
  );
  test('a source with a media condition needs no condition that it excludes', () => {
    const rule: WidthRule = [
      { from: 0, vw: 1, px: 0 },
      { from: 700, vw: 0.5, px: 0 },
    ];
    expect(sizesOf(rule, { from: 0, to: 700 })).toBe('100vw');
    expect(sizesOf(rule, { from: 700, to: Infinity })).toBe('50vw');
  });
  test('a rule without pieces is an error', () => {
    expect(() => widthAt([], 300)).toThrow(RangeError);
  });
});

describe('slots', () => {
  test('the viewer shows a photo inside its box and never above its pixels', () => {
    const viewer = slotById('viewer');
    const widest = (width: number, height: number) =>
      widthAt(ruleFor(viewer, 'own', { width, height }), 5000);
    expect(widest(3000, 2000)).toBe(1600);
    expect(widest(2000, 3000)).toBe(800);
    expect(widest(320, 213)).toBe(320);
  });
  test('shapes are named once, in order', () => {
    expect(shapesOf(['hero', 'half', 'grid'])).toEqual(['3:1', '4:5', '1:1']);
  });
  test('an unknown slot is an error', () => {
    expect(() => slotById('poster' as never)).toThrow('no slot');
  });
  test('the shares of the device table sum to 1', () => {
    expect(DEFAULT_DEVICES.reduce((sum, device) => sum + device.share, 0)).toBeCloseTo(1, 10);
  });
});

describe('sharpness', () => {
  const wide = hero.shapes[0]!;
  test('sharp, soft and too small, with the pixels that are missing', () => {
    expect(sharpnessOf(hero, wide, { width: 3000, height: 1000 })).toMatchObject({
      verdict: 'sharp',
      missing: 0,
    });
    expect(sharpnessOf(hero, wide, { width: 2000, height: 667 })).toMatchObject({
      verdict: 'soft',
      missing: 880,
    });
    expect(sharpnessOf(hero, wide, { width: 1200, height: 400 })).toMatchObject({
      verdict: 'too-small',
      missing: 720,
    });
  });
});

describe('candidate widths', () => {
  const wide = hero.shapes[0]!;
  test('hand-computed for the hero: the largest demand, then steps of at most 0.8', () => {
    const pixels = demandsOf(hero, wide, { width: 9000, height: 3000 }).map((d) => d.pixels);
    expect(pixels).toEqual([1280, 1640, 1920, 1920, 2880]);
    expect(candidateWidths(hero, wide, { width: 9000, height: 3000 })).toEqual([1280, 1920, 2880]);
  });
  test('never above the crop, never more than six, ascending, each once', () => {
    for (const slot of SLOTS) {
      for (const part of slot.shapes) {
        for (const width of [100, 320, 700, 1500, 4000]) {
          const widths = candidateWidths(slot, part, { width, height: width });
          expect(widths.length).toBeGreaterThan(0);
          expect(widths.length).toBeLessThanOrEqual(6);
          expect(Math.max(...widths)).toBeLessThanOrEqual(width);
          expect([...new Set(widths)].sort((a, b) => a - b)).toEqual(widths);
        }
      }
    }
  });
  test('a browser takes the smallest that is dense enough, else the largest', () => {
    expect(chosenWidth([386, 860, 1440], 358, 2)).toBe(860);
    expect(chosenWidth([386, 860], 720, 2)).toBe(860);
    expect(chosenWidth([860, 386], 193, 2)).toBe(386);
    expect(chosenWidth([], 100, 1)).toBeNull();
  });
});
