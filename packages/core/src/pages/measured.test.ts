import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { parseSizes } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { FIRST_WINDOWS, MOST_WINDOWS, SWEPT, sweep } from './measured.ts';

/** A page whose pictures follow these rules; heights are left out. */
const pageOf = (rules: readonly string[]) => {
  const parsed = rules.map((css) => parseSizes(css));
  let looks = 0;
  return {
    look: (window: number) => {
      looks++;
      return Promise.resolve(parsed.map((rule) => widthAt(rule, window)));
    },
    count: () => looks,
    parsed,
  };
};

describe('a sweep', () => {
  test('begins with 23 windows and looks once between them where widths are straight', async () => {
    const page = pageOf(['50vw', '320px']);
    const windows = await sweep(page.look);
    expect(FIRST_WINDOWS).toHaveLength(23);
    expect([windows[0], windows.at(-1)]).toEqual([SWEPT.from, SWEPT.to]);
    expect(windows).toHaveLength(45);
    expect(page.count()).toBe(45);
  });

  test('finds breaks to the pixel', async () => {
    const page = pageOf(['(min-width: 701px) 240px, 100vw', 'min(100vw - 32px, 720px)']);
    const windows = await sweep(page.look);
    expect(windows).toEqual(expect.arrayContaining([700, 701]));
    // 720 px are reached at 752: from there on the width stays.
    expect(windows.some((window) => Math.abs(window - 752) <= 2)).toBe(true);
    expect(windows.length).toBeLessThan(90);
  });

  test('finds a breakpoint that is told, although widths are the same in the middle of its gap', async () => {
    const page = pageOf(['(min-width: 430px) and (max-width: 470px) 90px, 200px']);
    expect(await sweep(page.look, [429, 430, 470, 471])).toEqual(
      expect.arrayContaining([429, 430, 470, 471]),
    );
  });

  test('between the windows it looked at, widths are known: random rules', async () => {
    const luck = chance(5);
    for (let round = 0; round < 40; round++) {
      const at = luck.whole(340, 2400);
      const page = pageOf([
        `(min-width: ${at}px) ${luck.whole(100, 900)}px, calc(${luck.whole(20, 100)}vw - ${luck.whole(0, 60)}px)`,
        `min(${luck.whole(30, 100)}vw, ${luck.whole(200, 1500)}px)`,
      ]);
      const windows = await sweep(page.look, [at - 1, at]);
      for (let n = 0; n < 60; n++) {
        const window = luck.whole(SWEPT.from, SWEPT.to);
        const [below, above] = [
          windows.findLast((one) => one <= window)!,
          windows.find((one) => one >= window)!,
        ];
        const part = above === below ? 0 : (window - below) / (above - below);
        for (const rule of page.parsed) {
          const line = widthAt(rule, below) * (1 - part) + widthAt(rule, above) * part;
          expect(Math.abs(line - widthAt(rule, window))).toBeLessThan(1);
        }
      }
    }
  });

  test('a page that is another in every window is looked at in no more than it may', async () => {
    const luck = chance(9);
    const windows = await sweep(() => Promise.resolve([luck.whole(1, 900)]));
    expect(windows).toHaveLength(MOST_WINDOWS);
  });

  test('a picture that comes and goes is a break', async () => {
    const windows = await sweep((window) => Promise.resolve([window > 999 ? 300 : 0]));
    expect(windows).toEqual(expect.arrayContaining([999, 1000]));
  });

  test('what it is told to begin with may be nonsense', async () => {
    const page = pageOf(['320px']);
    expect(await sweep(page.look, [NaN, -5, 1e9, 400.5, 319, 2561])).toHaveLength(45);
  });
});
