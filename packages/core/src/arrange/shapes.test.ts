// Shapes that an arrangement's places have by the window's width.
import { expect, test } from '@jest/globals';
import type { RotatingOptions, ShapeId } from '../contract/index.ts';
import { slotsOfArrangement } from './cells.ts';
import { optionsFor } from './options.ts';

test('a rotating hero may have another shape in narrow windows', () => {
  const first = optionsFor('rotating') as RotatingOptions;
  const shapesOf = (narrowShape: ShapeId | null) =>
    slotsOfArrangement({
      ...{ shortName: 'hero', title: 'Hero', container: [{ from: 0, vw: 1, px: 0 }] },
      options: { ...first, shape: '3:1', narrowShape },
    }).cell.shapes;
  const wide = { shape: '3:1', from: 0, to: null };
  expect(shapesOf('4:5')).toEqual([
    { ...wide, from: 640 },
    { shape: '4:5', from: 0, to: 640 },
  ]);
  expect([shapesOf(null), shapesOf('3:1')]).toEqual([[wide], [wide]]);
});
