// Heights that are said with a width, and what they make of places.
import { describe, expect, test } from '@jest/globals';
import type { Slot, Tallest } from '../contract/index.ts';
import { browserSizes } from '../css/sizes.ts';
import { widthAt } from '../css/width-rule.ts';
import { figureStyles } from '../markup/styles.ts';
import { pictureMarkup } from '../markup/picture.ts';
import { readPlaces, writePlaces } from '../places/places-file.ts';
import { slotProblem } from '../places/problem.ts';
import { parseSizes } from '../css/sizes.ts';
import { CONTEXT, sampleRow, slotById } from '../testing/sample.ts';
import { withoutHeight } from './phrase-height.ts';
import { shownSize, tallestSaid, usualHeight, widestByHeight } from './tallest.ts';
import { readWidth } from './typed-width.ts';

describe('a height is said with a width', () => {
  test.each<[string, string, number, Tallest['unit'], boolean | null]>([
    ['full width, at most 70vh high', 'full width', 70, 'vh', null],
    ['full bleed and no taller than 80 vh, cut off', 'full bleed', 80, 'vh', true],
    ['text column, no higher than 600 px high', 'text column', 600, 'px', null],
    ['full width, max-height 70vh', 'full width', 70, 'vh', null],
    ['full width, max height of 480px, seen whole', 'full width', 480, 'px', false],
    ["full bleed, at most 60 % of the window's height", 'full bleed', 60, 'vh', null],
    ['full bleed, up to half the height of the window, cropped', 'full bleed', 50, 'vh', true],
    ['full bleed, as high as the window', 'full bleed', 100, 'vh', null],
    ['100vw, at most 12.5vh tall', '100vw', 12.5, 'vh', null],
    ['at most 70vh high', '', 70, 'vh', null],
    ['min(100vw - 32px, 720px), at most 70vh high', 'min(100vw - 32px, 720px)', 70, 'vh', null],
    ['volle Breite, höchstens 70vh hoch', 'volle Breite', 70, 'vh', null],
    ['volle Breite, nicht höher als 480 px hoch, beschnitten', 'volle Breite', 480, 'px', true],
    ['volle Breite, höchstens 70 % der Fensterhöhe', 'volle Breite', 70, 'vh', null],
    ['randlos, höchstens die halbe Fensterhöhe, ganz zu sehen', 'randlos', 50, 'vh', false],
    ['ganzes Fenster und so hoch wie der Bildschirm', 'ganzes Fenster', 100, 'vh', null],
  ])('“%s”', (said, width, height, unit, cut) => {
    expect(withoutHeight(said)).toEqual({ text: width, height: { height, unit, cut } });
    expect(readWidth(said).height).toEqual({ height, unit, cut });
  });
  test.each(['half of a 1140 px column', 'at most 960 x 720', '100vw', 'text column, cut', '12em wide'])(
    '“%s” says none',
    (said) => expect(withoutHeight(said)).toEqual({ text: said, height: null }),
  );
  test('a height that is no limit is none', () => {
    expect(withoutHeight('full width, at most 0vh high').height).toBeNull();
    expect(withoutHeight('full width, at most 5000vh high').height).toBeNull();
  });
  test('a height alone leaves the width that pages leave', () =>
    expect(widthAt(readWidth('at most 70vh high').rule, 1000)).toBe(968));
  test('what a height hangs on is told where it is written as CSS', () =>
    expect(() => readWidth('min(100vw, 70vh)')).toThrow('at most 70vh high'));
});

const plain = (shape: Slot['shapes'][number]['shape']): Slot => ({
  ...slotById('hero'),
  rule: parseSizes('100vw'),
  shapes: [{ shape, from: 0, to: null }],
});
const hero = (tallest: Tallest, shape: Slot['shapes'][number]['shape'] = '2:1'): Slot => ({
  ...plain(shape),
  tallest,
});
const crop = { width: 4000, height: 2000 };

describe('a place of limited height', () => {
  const part = { shape: '2:1', from: 0, to: null } as const;
  test.each<[Tallest, number, number]>([
    [{ height: 50, unit: 'vh', cut: true }, 1280, 360],
    [{ height: 50, unit: 'vh', cut: false }, 720, 360],
    [{ height: 400, unit: 'px', cut: false }, 800, 400],
    [{ height: 400, unit: 'px', cut: true }, 1280, 400],
    [{ height: 100, unit: 'vh', cut: true }, 1280, 640],
  ])('%o', (tallest, width, height) => {
    expect(shownSize(hero(tallest), part, crop, { width: 1280, height: 720 })).toEqual({ width, height });
  });
  test('says so in words', () =>
    expect(tallestSaid({ height: 70, unit: 'vh', cut: true })).toBe('at most 70vh high, cut to it'));
  test('is narrower by its ratio where pictures stay whole', () => {
    expect(widestByHeight(hero({ height: 70, unit: 'vh', cut: false }), 1.5)).toBe('105vh');
    expect(widestByHeight(hero({ height: 70, unit: 'vh', cut: true }), 1.5)).toBeNull();
  });
  test('has windows that are higher on phones than wide', () => {
    expect(usualHeight(390)).toBeGreaterThan(390);
    expect(usualHeight(1280)).toBeLessThan(1280);
  });
  test('tells browsers in sizes, as they read it', () => {
    const slot = hero({ height: 50, unit: 'vh', cut: false });
    const row = sampleRow(['hero'], {}, {}, 5000, { ...CONTEXT, slots: [slot] });
    const html = pictureMarkup({ row, slot, urlOf: ({ width }) => `${width}.jpg`, first: false })!;
    const [, sizes] = /sizes="([^"]+)"/.exec(html)!;
    expect(sizes).toContain('min(100vw, 100vh)');
    expect(widthAt(browserSizes(sizes!, 1, 700), 1280)).toBeCloseTo(700);
    expect(widthAt(browserSizes(sizes!, 1, 4000), 1280)).toBeCloseTo(1280);
    expect(widthAt(browserSizes('50vmin', 1, 700), 1280)).toBe(350);
    expect(widthAt(browserSizes('50vmax', 1, 700), 1280)).toBe(640);
  });
  test('stands in the stylesheet, which does not override a host’s own', () => {
    expect(figureStyles({ slots: [hero({ height: 70, unit: 'vh', cut: true })] })).toContain(
      'img.dusky-in-hero { max-height: 70vh !important; }',
    );
    expect(figureStyles({ slots: [hero({ height: 70, unit: 'vh', cut: false })] })).toContain(
      '.dusky-in-hero { --dusky-most: 140vh; }',
    );
    expect(figureStyles({ slots: [plain('2:1')] })).not.toContain('max-height');
  });
  test('is kept by a file of places; a height in words is enough', () => {
    const slot = { ...hero({ height: 70, unit: 'vh', cut: false }), said: '100vw' };
    const text = writePlaces([slot]);
    expect(readPlaces(text, [])[0]!.tallest).toEqual({ height: 70, unit: 'vh', cut: false });
    const said = text.replace('"width": "100vw"', '"width": "100vw, at most 40vh high"');
    expect(() => readPlaces(said, [])).toThrow('The height that was said is not the height that is kept.');
    const words = said.replace(/"tallest": \{[^}]*\},/, '');
    expect(readPlaces(words, [])[0]!.tallest).toEqual({ height: 40, unit: 'vh', cut: true });
    for (const bad of ['7', '{"height":"70","unit":"vh","cut":true}', '{"height":70,"unit":"em","cut":true}'])
      expect(() => readPlaces(text.replace(/"tallest": \{[^}]*\}/, `"tallest": ${bad}`), [])).toThrow(
        'tallest',
      );
  });
  test.each([0, -1, NaN, 30_000])('has no height of %d', (height) =>
    expect(slotProblem(hero({ height, unit: 'px', cut: true }))).toMatch(/may be 1 to/),
  );
});
