// Fitting straight lines through measured widths: exact, fewest pieces (against all ways to cut), contradictions.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { fitRule, lineThrough, type WidthSample } from './fit.ts';
import { parseSizes, sizesOf } from './sizes.ts';
import { widthAt } from './width-rule.ts';

const measured = (css: string, from = 320, to = 2000, step = 20): WidthSample[] => {
  const rule = parseSizes(css);
  const samples: WidthSample[] = [];
  for (let viewport = from; viewport <= to; viewport += step) {
    samples.push({ viewport, width: widthAt(rule, viewport) });
  }
  return samples;
};

/** Fewest lines by trying every place to cut. */
function fewestByTrying(samples: readonly WidthSample[]): number {
  const best = [0];
  for (let end = 1; end <= samples.length; end++) {
    best[end] = Infinity;
    for (let start = 0; start < end; start++) {
      if (lineThrough(samples.slice(start, end), 1)) best[end] = Math.min(best[end]!, best[start]! + 1);
    }
  }
  return best[samples.length]!;
}

describe('fitting', () => {
  test.each([
    'min(100vw - 32px, 720px)',
    '(min-width: 960px) 240px, (min-width: 600px) calc(33.3333vw - 16px), calc(50vw - 24px)',
    '50vw',
  ])('finds %s again', (css) => {
    expect(sizesOf(fitRule(measured(css)))).toBe(sizesOf(parseSizes(css)));
  });
  test.each([
    ['min(100vw, 2100px)', [2099, 2100, 2101, 2102, 2103]],
    ['min(100vw - 32px, 1140px)', [1170, 1171, 1172, 1173, 1174]],
    ['min(50vw, 600px)', [1198, 1199, 1200, 1201, 1202]],
  ])('%s is found as that, also from windows close around its bend', (css, around) => {
    const rule = parseSizes(css);
    const samples = [
      ...measured(css, 320, 2560, 102),
      ...around.map((viewport) => ({ viewport, width: widthAt(rule, viewport) })),
    ];
    expect(sizesOf(fitRule(samples, 0.5))).toBe(css);
  });
  test('rounded measurements give the plain numbers that were meant', () => {
    const samples = measured('calc(33.3333vw - 16px)').map((s) => ({ ...s, width: Math.round(s.width) }));
    const [piece] = fitRule(samples);
    expect(piece!.vw).toBeCloseTo(1 / 3, 3);
    expect(piece!.px).toBe(-16);
  });
  test('random measurements: every sample within 1 px, as few pieces as any way of cutting', () => {
    const luck = chance(3);
    for (let round = 0; round < 60; round++) {
      let width = 300;
      const samples = Array.from({ length: 9 }, (_, i) => {
        width += luck.whole(-3, 40);
        return { viewport: 320 + i * 100, width };
      });
      const rule = fitRule(samples);
      for (const { viewport, width: w } of samples) {
        expect(Math.abs(widthAt(rule, viewport) - w)).toBeLessThanOrEqual(1 + 1e-6);
      }
      expect(rule.length).toBe(fewestByTrying(samples));
    }
  });
  test('one sample is a constant', () => {
    expect(fitRule([{ viewport: 800, width: 300 }])).toEqual([{ from: 0, vw: 0, px: 300 }]);
  });
  test('no samples, and samples that contradict each other', () => {
    expect(() => fitRule([])).toThrow('At least one');
    const twice = [
      { viewport: 800, width: 300 },
      { viewport: 800, width: 310 },
    ];
    expect(() => fitRule(twice)).toThrow('800 px contradict');
  });
});
