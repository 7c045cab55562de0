// What was measured, as a table for other programs.
import { writeCsv } from '@dusky-otter/core/csv';
import type { MeasuredPage } from '@dusky-otter/core/pages';

/** A line a picture and window; sizes in CSS px. */
export const csvOf = ({ page, pictures }: MeasuredPage): string =>
  writeCsv([
    ['page', 'number', 'picture', 'window', 'box', 'width', 'height', 'x', 'y'],
    ...pictures.flatMap(({ name, samples }, n) =>
      samples.map(({ viewport, box, width, height, x, y }) =>
        [page, n + 1, name, viewport, box, width, height, x, y].map(String),
      ),
    ),
  ]);
