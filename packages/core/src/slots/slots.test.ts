// Slots, sharpness, candidate widths and the device table.
import { describe, expect, test } from '@jest/globals';
import type { Slot } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { chosenWidth } from '../source/choice.ts';
import { candidateWidths, demandsOf, sharpnessOf, viewingDensity } from './candidates.ts';
import { DEFAULT_DEVICES, devicesCsv, parseDevices } from './devices.ts';
import { surplusOf } from './optimal-widths.ts';
import { CONTEXT, slotById } from '../testing/sample.ts';
import { slotProblem } from '../places/problem.ts';
import { SHIPPED_SLOTS } from './shipped.ts';
import { ruleFor, shapesOf } from './slots.ts';

const hero = slotById('hero');

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
    expect(shapesOf(CONTEXT, ['hero', 'half', 'grid'])).toEqual(['3:1', '4:5', '1:1']);
  });
  test('a slot that is gone has no shapes', () => {
    expect(shapesOf(CONTEXT, ['poster', 'grid'])).toEqual(['1:1']);
  });
  test('the shipped ones are in order, and what is not is told in a sentence', () => {
    expect(SHIPPED_SLOTS.map(slotProblem)).toEqual(SHIPPED_SLOTS.map(() => null));
    const bad: [Partial<Slot>, RegExp][] = [
      [{ id: 'Hero!' }, /small letters/],
      [{ name: ' ' }, /needs a name/],
      [{ budget: 0 }, /bytes/],
      [{ rule: [] }, /1 to 40 pieces/],
      [{ rule: [{ from: 5, vw: 1, px: 0 }] }, /start at 0/],
      [{ rule: [{ from: 0, vw: NaN, px: 0 }] }, /numbers/],
      [{ shapes: [{ shape: '3:1', from: 700, to: null }] }, /every viewport/],
      [{ shapes: [{ shape: '0:1', from: 0, to: null }] }, /not a ratio/],
    ];
    for (const [change, sentence] of bad) expect(slotProblem({ ...hero, ...change })).toMatch(sentence);
  });
  test('the shares of the device table sum to 1', () => {
    expect(DEFAULT_DEVICES.reduce((sum, device) => sum + device.share, 0)).toBeCloseTo(1, 10);
  });
});

describe('sharpness', () => {
  const wide = hero.shapes[0]!;
  test('sharp, soft and too small, with the pixels that are missing', () => {
    expect(sharpnessOf(hero, wide, { width: 3000, height: 1000 }, DEFAULT_DEVICES)).toMatchObject({
      verdict: 'sharp',
      missing: 0,
    });
    expect(sharpnessOf(hero, wide, { width: 2000, height: 667 }, DEFAULT_DEVICES)).toMatchObject({
      verdict: 'soft',
      missing: 880,
    });
    expect(sharpnessOf(hero, wide, { width: 1200, height: 400 }, DEFAULT_DEVICES)).toMatchObject({
      verdict: 'too-small',
      missing: 720,
    });
  });
});

describe('candidate widths', () => {
  const wide = hero.shapes[0]!;
  const crop = { width: 9000, height: 3000 };
  test('hand-computed for the wide hero: demands of five devices, and the widths that waste least', () => {
    const demands = demandsOf(hero, wide, crop, DEFAULT_DEVICES);
    expect(demands.map((d) => [d.pixels, d.share])).toEqual([
      [1280, 0.1],
      [1640, 0.08],
      [1920, 0.12],
      [1920, 0.08],
      [2880, 0.1],
    ]);
    const plan = candidateWidths(hero, wide, crop, DEFAULT_DEVICES);
    // Two widths waste more than a tenth: 1280 and 1640 on 1920 are 0.1 × 2.048 + 0.08 × 0.9968 of 1.946 Mpx.
    expect(surplusOf([1920, 2880], demands)).toBeCloseTo(0.2845 / 1.9456, 3);
    expect(plan.widths).toEqual([1280, 1920, 2880]);
    expect(plan.surplus).toBeCloseTo((0.08 * (1920 ** 2 - 1640 ** 2)) / 1.9456e6, 4);
  });
  test('for every slot: within a tenth, at most six, never above the crop, ascending, each once', () => {
    for (const slot of SHIPPED_SLOTS) {
      for (const part of slot.shapes) {
        for (const width of [100, 320, 700, 1500, 4000]) {
          const { widths, surplus } = candidateWidths(slot, part, { width, height: width }, DEFAULT_DEVICES);
          expect(widths.length).toBeGreaterThan(0);
          expect(widths.length).toBeLessThanOrEqual(6);
          expect(surplus).toBeLessThanOrEqual(0.1);
          expect(Math.max(...widths)).toBeLessThanOrEqual(width);
          expect([...new Set(widths)].sort((a, b) => a - b)).toEqual(widths);
        }
      }
    }
  });
  test('a table without a device for a shape: somebody comes with one', () => {
    const phones = [{ name: 'phone', viewport: 390, density: 3, share: 1 }];
    const { widths } = candidateWidths(hero, wide, crop, phones);
    expect(widths).toEqual([700, 1400]);
  });
  test('the density a width is looked at is the lowest of the devices that load it, in quarters', () => {
    const demands = demandsOf(hero, wide, crop, DEFAULT_DEVICES);
    const { widths } = candidateWidths(hero, wide, crop, DEFAULT_DEVICES);
    // 1280 px go to the laptop at 1×; 1920 px to the tablet (2.34), the wide laptop (1.25) and the desktop (1).
    expect(widths.map((w) => viewingDensity(w, widths, demands))).toEqual([1, 1, 2]);
    const grid = slotById('grid');
    const own = demandsOf(grid, grid.shapes[0]!, crop, DEFAULT_DEVICES);
    const plan = candidateWidths(grid, grid.shapes[0]!, crop, DEFAULT_DEVICES);
    for (const width of plan.widths) {
      const loading = own.filter((d) => chosenWidth(plan.widths, d.display, d.device.density) === width);
      const density = viewingDensity(width, plan.widths, own);
      for (const { display } of loading) expect(density).toBeLessThanOrEqual(Math.max(1, width / display));
    }
  });
});

describe('the device table', () => {
  test('goes out as CSV and comes back', () => {
    const back = parseDevices(devicesCsv(DEFAULT_DEVICES));
    expect(back.map(({ share, ...device }) => ({ ...device, share: expect.closeTo(share, 9) }))).toEqual(
      DEFAULT_DEVICES,
    );
  });
  test('columns in any order, shares as per cent, quotes, a name that is missing', () => {
    const csv = 'Density,SHARE,name,viewport\r\n2,75%,"Anna’s, tablet",820\r\n1,25%,,1280\r\n';
    expect(parseDevices(csv)).toEqual([
      { name: 'Anna’s, tablet', viewport: 820, density: 2, share: 0.75 },
      { name: 'device 2', viewport: 1280, density: 1, share: 0.25 },
    ]);
  });
  test.each([
    ['name,viewport,share\na,1,1', 'no column “density”'],
    ['name,viewport,density,share\na,wide,1,1', 'Line 2, viewport: “wide” is not a number from 100'],
    ['name,viewport,density,share\na,800,9,1', 'Line 2, density: “9”'],
    ['name,viewport,density,share\na,800,1,1\nb,800,1,', 'Line 3, share: “”'],
    ['name,viewport,density,share\na,800,1,0', 'add up to nothing'],
    ['', 'no column'],
  ])('%j is refused with a sentence', (csv, sentence) => {
    expect(() => parseDevices(csv)).toThrow(sentence);
  });
});
