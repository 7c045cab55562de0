// Contrast of words over pictures, beside WCAG's own figures.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { buttonContrast, contrastOver, scrimFor } from './contrast.ts';

describe('words over a picture', () => {
  const field = (...colours: [number, number, number][]) => ({
    ...{ width: colours.length, height: 1, channels: 3 as const },
    data: Uint8Array.from(colours.flat()),
  });
  const grey = (code: number) => field([code, code, code]);
  test('have the contrast that WCAG computes', () => {
    expect(contrastOver(grey(0), 'light', 0)).toBeCloseTo(21, 6);
    // #767676 on white: 4.54 by every checker.
    expect(contrastOver(grey(0x76), 'light', 0)).toBeCloseTo(4.54, 2);
    expect(contrastOver(grey(255), 'light', 0)).toBe(1);
    // Half black over white is #808080 (127.5): as browsers mix.
    expect(contrastOver(grey(255), 'light', 0.5)).toBeCloseTo(3.98, 1);
    expect(contrastOver(grey(0), 'dark', 1)).toBeCloseTo(21, 6);
  });
  test('are judged by nearly the worst pixel, not by the mean', () => {
    const dark = Array.from({ length: 95 }, () => [0, 0, 0] as [number, number, number]);
    const bright = Array.from({ length: 5 }, () => [255, 255, 255] as [number, number, number]);
    expect(contrastOver(field(...dark, ...bright), 'light', 0)).toBe(1);
    expect(contrastOver(field(...dark, ...dark, [255, 255, 255]), 'light', 0)).toBeCloseTo(21, 6);
  });
  test('get the least cover that is enough for every piece', () => {
    const { next } = chance(7);
    for (let round = 0; round < 20; round++) {
      const pieces = [1, 2].map(() => grey(Math.round(255 * next())));
      for (const tone of ['light', 'dark'] as const) {
        const scrim = scrimFor(pieces, tone)!;
        const least = (cover: number) => Math.min(...pieces.map((one) => contrastOver(one, tone, cover)));
        expect(least(scrim)).toBeGreaterThanOrEqual(4.5);
        if (scrim > 0) expect(least(scrim - 0.01)).toBeLessThan(4.5);
      }
    }
    expect(scrimFor([grey(0)], 'light')).toBe(0);
    expect(scrimFor([grey(255)], 'light', 20.9)).toBeNull();
  });
});

test('signs of buttons are seen over any picture, in either colour', () => {
  // White on black that lets 28 % of white through, and the other way round.
  expect(buttonContrast('light')).toBeCloseTo(9.3, 1);
  expect(buttonContrast('dark')).toBeCloseTo(10.5, 0);
  for (const signs of ['light', 'dark'] as const) {
    for (let code = 0; code < 256; code += 5) {
      const pixels = { data: Uint8Array.of(code, code, code), width: 1, height: 1, channels: 3 as const };
      expect(contrastOver(pixels, signs, 0.72)).toBeGreaterThanOrEqual(buttonContrast(signs) - 1e-9);
    }
  }
});
