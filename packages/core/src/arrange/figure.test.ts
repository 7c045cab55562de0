// Widths of a figure with paper around it.
import { expect, test } from '@jest/globals';
import { widthAt } from '../css/width-rule.ts';
import { slotsOfArrangement } from './cells.ts';
import { optionsFor } from './options.ts';

const container = [{ from: 0, vw: 1, px: -32 }];
const widths = (options: object): number[] =>
  [390, 1280].map((window) =>
    widthAt(
      slotsOfArrangement({
        ...{ shortName: 'a', title: 'A', container },
        options: { ...optionsFor('figure'), ...options },
      }).cell.rule,
      window,
    ),
  );

test.each([
  [{ side: 'full' }, [358, 1248]],
  [{ side: 'left', width: { part: 0.5 } }, [358, 624]],
  [{ side: 'centre', width: { px: 500 } }, [358, 500]],
])('a mat lies within the width that %j has, in every window', (options, all) => {
  expect(widths({ ...options, frame: 'line' })).toEqual(all);
  expect(widths({ ...options, frame: 'mat' })).toEqual(all.map((width) => width - 24));
});
