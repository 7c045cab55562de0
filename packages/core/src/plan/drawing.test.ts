// A drawing that goes out as one: from its kind through the plan to its markup.
import { describe, expect, test } from '@jest/globals';
import type { DrawingFacts, PhotoRow, SlotId } from '../contract/index.ts';
import { figureMarkup, plainMarkup } from '../markup/picture.ts';
import { variantFileName } from '../naming/naming.ts';
import { concernsOf } from '../readiness/readiness.ts';
import { variantSentTo } from '../readiness/weight.ts';
import { CONTEXT, sampleRow, slotById } from '../testing/sample.ts';
import { treatmentOf } from '../weight/kind.ts';
import { isDrawingIn, planPhoto } from './plan.ts';
import { sharpnessIn, sharpnessInWords } from './sharpness.ts';
import { openIn } from './set-places.ts';

const DRAWING: DrawingFacts = { bytes: 4_000, bitmap: 14_000, unsafe: null };
const FACTS = { format: 'svg', transparent: true, width: 3200, height: 1600 } as const;

const rowOf = (slots: SlotId[], drawing: Partial<DrawingFacts> = {}, change: Partial<PhotoRow> = {}) =>
  sampleRow(slots, change, { ...FACTS, drawing: { ...DRAWING, ...drawing } });

const kindOf = (drawing?: Partial<DrawingFacts>, asDrawing = true) =>
  treatmentOf(
    {
      ...FACTS,
      frames: 1,
      content: { colours: 90, commonest: 0.8, common: 0.99 },
      ...(drawing && { drawing: { ...DRAWING, ...drawing } }),
    },
    asDrawing,
  );

describe('the kind', () => {
  test('is a drawing where that is safe and no larger than a phone’s bitmap', () => {
    expect(kindOf({})).toEqual({
      kind: 'drawing',
      lossless: true,
      reason: 'A drawing: it goes out as one, 4 kB at every size, where a phone’s bitmap alone has 14 kB.',
    });
    expect(kindOf({ bytes: 14_000 }).kind).toBe('drawing');
  });
  test.each([
    [
      { bytes: 14_001 },
      /^A drawing of 14 kB, more than a phone’s bitmap \(14 kB\): it goes out as bitmaps\. /,
    ],
    [{ unsafe: 'a part of it may be missing' }, /^A drawing, but a part of it may be missing: .*bitmaps\. /],
    // Taken in before there were drawings.
    [undefined, /^A graphic with transparency/],
  ])('is that of its pixels otherwise: %j', (drawing, reason) => {
    expect(kindOf(drawing)).toMatchObject({ kind: 'transparent-graphic', lossless: true });
    expect(kindOf(drawing).reason).toMatch(reason);
  });
  test('follows the editor who wants bitmaps', () => {
    expect(kindOf({}, false)).toMatchObject({ kind: 'transparent-graphic' });
    expect(kindOf({}, false).reason).toMatch(/as was chosen for it/);
    const row = rowOf(['column'], {}, { quality: { column: { format: 'webp' } } });
    expect(isDrawingIn(row, 'column')).toBe(false);
    expect(new Set(row.variants.map(({ format }) => format))).toEqual(new Set(['webp', 'png']));
  });
});

describe('a drawing', () => {
  test('is one file for each shape of a place, as wide as it stands on a laptop', () => {
    const planned = planPhoto(rowOf(['hero', 'column']), openIn('hero', 'column'), CONTEXT);
    const told = planned.map(({ slot, shape, width, height, format }) => [
      slot,
      shape,
      width,
      height,
      format,
    ]);
    expect(told).toEqual([
      ['hero', '3:1', 1280, 427, 'svg'],
      // Below 700 px: a screen of 699 is the widest.
      ['hero', '4:5', 699, 874, 'svg'],
      ['column', '3:2', 720, 480, 'svg'],
    ]);
    expect(new Set(planned.map(({ key }) => key)).size).toBe(planned.length);
  });
  test('has markup without widths to choose from', () => {
    const urlOf = (v: { shape: string; format: string }) => `${v.shape.replace(':', 'x')}.${v.format}`;
    const column = { row: rowOf(['column']), slot: slotById('column'), urlOf, first: false };
    const html = figureMarkup(column)!;
    expect(html).toContain('src="3x2.svg" width="720" height="480"');
    expect(html).not.toMatch(/srcset|sizes|<source/);
    const hero = figureMarkup({ ...column, row: rowOf(['hero']), slot: slotById('hero') })!;
    expect(hero).toMatch(/<source[^>]*type="image\/svg\+xml" srcset="\dx\d\.svg" width/);
    expect(plainMarkup(column, CONTEXT.devices)).toMatch(/^<img class="[^"]+" src="3x2\.svg" width="720"/);
  });
  test('has a name without a width', () => {
    const variant = { width: 720, shape: '3:2', format: 'svg', contentHash: '0b7d2e11ff' } as const;
    expect(variantFileName('logo', 'column', variant)).toBe('logo-column.0b7d2e11.svg');
  });
  test('is sharp on every screen, however small its part that is shown', () => {
    const slot = slotById('hero');
    const part = slot.shapes[0]!;
    const crop = { x: 0, y: 0, width: 80, height: 40 };
    const row = rowOf(['hero'], {}, { frame: { ...rowOf([]).frame, crops: { [part.shape]: crop } } });
    expect(sharpnessIn(row, slot, part, crop, CONTEXT.devices)).toMatchObject({
      verdict: 'sharp',
      missing: 0,
    });
    expect(sharpnessInWords(row, slot, part, crop, CONTEXT.devices)).toMatch(/^Sharp on every screen/);
    expect(concernsOf(row, openIn('hero'), CONTEXT, []).map(({ code }) => code)).not.toContain('too-small');
    const bitmap = { ...row, quality: { hero: { format: 'webp' } } } as const;
    expect(sharpnessIn(bitmap, slot, part, crop, CONTEXT.devices).verdict).toBe('too-small');
    expect(concernsOf(bitmap, openIn('hero'), CONTEXT, []).map(({ code }) => code)).toContain('too-small');
  });
  test('is what every screen is sent', () => {
    const row = rowOf(['column']);
    for (const viewport of [320, 390, 1440, 2560])
      for (const density of [1, 2, 3])
        expect(variantSentTo(row, slotById('column'), { viewport, density })?.format).toBe('svg');
  });
});
