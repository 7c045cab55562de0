// Which files pictures in justified rows have: their widths hang on their neighbours.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { Arrangement, ArrangementOptions, WidthPiece } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { candidateWidths } from '../slots/candidates.ts';
import { DEFAULT_DEVICES } from '../slots/devices.ts';
import { chosenWidth } from '../source/choice.ts';
import { cellsOf, slotsOfArrangement } from './cells.ts';
import { optionsFor, wholeOptions } from './options.ts';

/** A column of 1140 px with 16 px on both sides. */
const CONTAINER: WidthPiece[] = [
  { from: 0, vw: 1, px: -32 },
  { from: 1172, vw: 0, px: 1140 },
];

describe('files of pictures in justified rows', () => {
  test('are never sent to a screen of 1× much wider than they are seen there', () => {
    const { next: random } = chance(5);
    let worst = 0;
    for (let round = 0; round < 40; round += 1) {
      const photos = Array.from({ length: 3 + Math.floor(random() * 9) }, (_, n) => ({
        id: n + 1,
        size: [
          { width: 3000, height: 2000 },
          { width: 2000, height: 3000 },
          { width: 3000, height: 3000 },
          { width: 4000, height: 1800 },
        ][Math.floor(random() * 4)]!,
      }));
      const rows: Arrangement = {
        ...{ shortName: 'pots', title: 'Pots', container: CONTAINER },
        options: wholeOptions({
          ...optionsFor('rows'),
          height: 160 + Math.round(random() * 200),
        } as ArrangementOptions),
      };
      const { cell: planned } = slotsOfArrangement(rows);
      cellsOf(rows, photos).forEach(({ cell }, n) => {
        const { widths } = candidateWidths(planned, planned.shapes[0]!, photos[n]!.size, DEFAULT_DEVICES);
        for (const window of [820, 1024, 1280, 1440, 1920]) {
          const seen = widthAt(cell.rule, window);
          worst = Math.max(worst, chosenWidth(widths, seen, 1)! / seen);
        }
      });
    }
    expect(worst).toBeLessThanOrEqual(1.5);
  });
});
