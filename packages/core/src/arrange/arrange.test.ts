// Widths inside arrangements, line breaking against brute force, places that are derived, and orders.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { Arrangement, ArrangementOptions, WidthPiece } from '../contract/index.ts';
import { widthAt } from '../css/width-rule.ts';
import { cellsOf, slotsOfArrangement } from './cells.ts';
import { composed } from './composed.ts';
import { brokenLines, costOf, heightOf, isShort, type Lines } from './justify.ts';
import { slotProblem } from '../places/problem.ts';
import { ARRANGEMENT_KINDS, arrangementProblems, optionsFor, wholeOptions } from './options.ts';
import { orderedBy } from './order.ts';
import { ROW_BANDS, justifiedWidths, rowsByBand } from './row-widths.ts';

/** A column of 1140 px with 16 px on both sides. */
const CONTAINER: WidthPiece[] = [
  { from: 0, vw: 1, px: -32 },
  { from: 1172, vw: 0, px: 1140 },
];

describe('a width inside a container', () => {
  test('is the inner rule at the width that the container has', () => {
    const columns = [
      { from: 0, vw: 1 / 2, px: -6 },
      { from: 600, vw: 1 / 3, px: -8 },
      { from: 900, vw: 1 / 4, px: -9 },
    ];
    const rule = composed(CONTAINER, columns);
    for (let window = 320; window <= 2000; window += 1) {
      const own = widthAt(CONTAINER, window);
      expect(widthAt(rule, window)).toBeCloseTo(widthAt(columns, own), 9);
    }
    expect(rule.map(({ from }) => from)).toEqual([0, 632, 932, 1172]);
  });
  test('refuses a container that gets narrower in wider windows', () => {
    expect(() => composed([{ from: 0, vw: -1, px: 900 }], [{ from: 0, vw: 1, px: 0 }])).toThrow(RangeError);
  });
});

/** The cheapest of all ways to break a list, by trying them all. */
function bruteForce(lines: Lines): number {
  const { ratios } = lines;
  const n = ratios.length;
  let best = Infinity;
  for (let breaks = 0; breaks < 2 ** (n - 1); breaks++) {
    let cost = 0;
    let from = 0;
    for (let at = 1; at <= n; at++) {
      if (at < n && !((breaks >> (at - 1)) & 1)) continue;
      cost += costOf(ratios.slice(from, at), lines, at === n);
      from = at;
    }
    best = Math.min(best, cost);
  }
  return best;
}

const priceOf = (counts: readonly number[], lines: Lines): number => {
  let at = 0;
  return counts.reduce((sum, count, row) => {
    const own = lines.ratios.slice(at, (at += count));
    return sum + costOf(own, lines, row === counts.length - 1);
  }, 0);
};

describe('justified rows', () => {
  test.each([1, 2, 3, 4, 5])('cost no more than the best of all ways to break them (%i)', (seed) => {
    const { next, whole } = chance(seed);
    for (let round = 0; round < 20; round++) {
      const from = 280 + next() * 900;
      const lines: Lines = {
        ratios: Array.from({ length: whole(1, 11) }, () => 0.4 + next() * 2),
        widths: [from, from * 1.15, from * 1.3],
        height: 100 + next() * 300,
        gap: whole(0, 24),
      };
      const counts = brokenLines(lines);
      expect(counts.reduce((sum, count) => sum + count, 0)).toBe(lines.ratios.length);
      expect(priceOf(counts, lines)).toBeCloseTo(bruteForce(lines), 9);
    }
  });
  test('look ahead: taken row by row, the best that each can be costs more in the end', () => {
    const rowByRow = (lines: Lines): number[] => {
      const counts: number[] = [];
      for (let at = 0; at < lines.ratios.length; at += counts.at(-1)!) {
        const left = lines.ratios.length - at;
        const costs = Array.from({ length: left }, (_, n) =>
          costOf(lines.ratios.slice(at, at + n + 1), lines, n + 1 === left),
        );
        counts.push(costs.indexOf(Math.min(...costs)) + 1);
      }
      return counts;
    };
    const { next } = chance(11);
    const ratiosOf = () => Array.from({ length: 12 }, () => 0.5 + next() * 1.5);
    const saved = Array.from({ length: 40 }, () => {
      const lines: Lines = { ratios: ratiosOf(), widths: [700, 800], height: 220, gap: 8 };
      return priceOf(rowByRow(lines), lines) - priceOf(brokenLines(lines), lines);
    });
    expect(Math.min(...saved)).toBeGreaterThan(-1e-9);
    expect(saved.filter((less) => less > 0.05).length).toBeGreaterThan(2);
  });
  test('fill the width exactly, and a last row that is short keeps the height', () => {
    const ratios = [1.5, 0.75, 1.5, 1, 1.5, 0.66, 1.33, 1.5];
    const rules = justifiedWidths(ratios, 240, 8);
    for (const { from, counts } of rowsByBand(ratios, 240, 8)) {
      const [low, high] = [Math.max(280, from), ROW_BANDS[ROW_BANDS.indexOf(from as 0) + 1] ?? 2026];
      for (const width of [low, (low + high) / 2, high - 1]) {
        let at = 0;
        counts.forEach((count, row) => {
          const own = ratios.slice(at, at + count);
          const widths = own.map((_, n) => widthAt(rules[at + n]!, width));
          const all = widths.reduce((sum, one) => sum + one, 8 * (count - 1));
          const heights = widths.map((one, n) => one / own[n]!);
          for (const height of heights) expect(height).toBeCloseTo(heights[0]!, 9);
          const short = row === counts.length - 1 && isShort(own, { widths: [low], height: 240, gap: 8 });
          if (short) expect(heights[0]).toBeCloseTo(240, 9);
          else {
            expect(all).toBeCloseTo(width, 9);
            expect(heights[0]).toBeCloseTo(heightOf(own, width, 8), 9);
          }
          at += count;
        });
      }
    }
  });
  test('of hundreds of pictures are found at once', () => {
    const { next } = chance(7);
    const ratios = Array.from({ length: 400 }, () => 0.5 + next());
    expect(rowsByBand(ratios, 220, 8)).toHaveLength(ROW_BANDS.length);
  });
});

const photos = [1, 2, 3].map((id) => ({ id, size: { width: 3000, height: 2000 } }));
const SEVERAL = {
  gap: 12,
  captions: 'below',
  click: 'viewer',
  download: false,
  effect: 'lighten',
  perPage: null,
  ownPages: false,
} as const;
/** Options of which some are left out. */
type Some = Partial<ArrangementOptions> & Pick<ArrangementOptions, 'kind'>;
const arranged = (options: Some): Arrangement => ({
  shortName: 'pots',
  title: 'Pots from this firing',
  options: wholeOptions(options as ArrangementOptions),
  container: CONTAINER,
});
const COLUMNS = [
  { from: 0, count: 2 },
  { from: 600, count: 3 },
];

describe('places', () => {
  test('of a grid are as wide as its columns leave, and its large ones as the viewer', () => {
    const cells = cellsOf(arranged({ kind: 'grid', shape: '3:2', columns: COLUMNS, ...SEVERAL }), photos);
    expect(cells).toHaveLength(3);
    expect(new Set(cells.map(({ cell }) => cell)).size).toBe(1);
    const { cell, large } = cells[0]!;
    expect([390, 1280].map((window) => widthAt(cell.rule, window))).toEqual([
      (358 - 12) / 2,
      (1140 - 24) / 3,
    ]);
    expect(cell).toMatchObject({
      id: 'pots',
      loading: 'lazy',
      shapes: [{ shape: '3:2', from: 0, to: null }],
    });
    expect(large).toMatchObject({ id: 'pots-large', fit: { width: 1600, height: 1200 } });
    const none = cellsOf(
      arranged({ kind: 'grid', shape: '3:2', columns: COLUMNS, ...SEVERAL, click: 'nothing' }),
      photos,
    );
    expect(none[0]!.large).toBeNull();
  });
  test('in justified rows are one that is planned for, and each as wide as its row makes it', () => {
    const rows = arranged({ kind: 'rows', height: 240, ...SEVERAL });
    const { cell: planned } = slotsOfArrangement(rows);
    expect(planned).toMatchObject({ fit: { height: 300 }, arranged: { container: CONTAINER } });
    const cells = cellsOf(rows, photos);
    expect(cells.map(({ cell }) => cell.id)).toEqual(['pots', 'pots', 'pots']);
    for (const { cell } of cells)
      for (const window of [390, 820, 1280])
        expect(widthAt(cell.rule, window)).toBeLessThanOrEqual(widthAt(CONTAINER, window));
    expect(cells.every(({ cell }) => cell.shapes[0]!.shape === 'own')).toBe(true);
  });
  test.each<[Some, number, number]>([
    [{ kind: 'figure', side: 'left', width: { part: 0.5 }, caption: 'below', shape: '3:2' }, 358, 570],
    [{ kind: 'figure', side: 'centre', width: { px: 420 }, caption: 'none', shape: '3:2' }, 358, 420],
    [
      { kind: 'figure', side: 'full', width: { part: 1 }, caption: 'beside', shape: '3:2' },
      358,
      (1124 * 2) / 3,
    ],
    [{ kind: 'feed', direction: 'down', shape: '3:2' }, 358, 1140],
    [{ kind: 'feed', direction: 'sideways', shape: '3:2' }, 300.72, 480],
    [{ kind: 'rotating', shape: '3:1', change: 'fade', seconds: 6, arrows: 'inside' }, 358, 1140],
    [{ kind: 'strip', shape: '3:2', side: 'beside' }, 84, 84],
    [{ kind: 'zoom', shape: '1:1', times: 2 }, 358, 1140],
    [{ kind: 'cover', shape: '3:2', download: true }, 358, 1140],
  ])('of %j are %d px wide on a phone and %d px on a laptop', (options, phone, laptop) => {
    const [first] = cellsOf(arranged(options), photos);
    expect(widthAt(first!.cell.rule, 390)).toBeCloseTo(phone, 6);
    expect(widthAt(first!.cell.rule, 1280)).toBeCloseTo(laptop, 6);
  });
  test('of a strip and of a closer look are larger ones beside them', () => {
    const [strip] = cellsOf(arranged({ kind: 'strip', shape: '3:2', side: 'beside' }), photos);
    expect([390, 1280].map((window) => widthAt(strip!.large!.rule, window))).toEqual([358, 1140 - 108]);
    const [zoom] = cellsOf(arranged({ kind: 'zoom', shape: '1:1', times: 2 }), photos);
    expect(widthAt(zoom!.large!.rule, 390)).toBe(2280);
  });
  test('of nothing are none', () => {
    for (const kind of ['rows', 'grid'] as const)
      expect(
        cellsOf(
          arranged(
            kind === 'rows'
              ? { kind, height: 200, ...SEVERAL }
              : { kind, shape: '1:1', columns: COLUMNS, ...SEVERAL },
          ),
          [],
        ),
      ).toEqual([]);
  });
});

describe('options', () => {
  const container = CONTAINER;
  test.each<Some>([
    { kind: 'grid', shape: '1:1', columns: [], ...SEVERAL },
    { kind: 'grid', shape: '1:1', columns: [{ from: 300, count: 2 }], ...SEVERAL },
    { kind: 'grid', shape: '1:1', columns: [{ from: 0, count: 0 }], ...SEVERAL },
    { kind: 'grid', shape: '1:1', columns: [{ from: 0, count: 2.5 }], ...SEVERAL },
    { kind: 'grid', shape: '1:1', columns: COLUMNS, ...SEVERAL, gap: -1 },
    { kind: 'rows', height: 5, ...SEVERAL },
    { kind: 'figure', side: 'left', width: { part: 0 }, caption: 'none', shape: 'own' },
    { kind: 'figure', side: 'left', width: { px: NaN }, caption: 'none', shape: 'own' },
    { kind: 'rotating', shape: '3:1', change: 'fade', seconds: 1, arrows: 'inside' },
    { kind: 'zoom', shape: '1:1', times: 9 },
  ])('%j are refused with a sentence', (options) => {
    const [sentence] = arrangementProblems({ options: options as ArrangementOptions, container });
    expect(sentence).toMatch(/^[A-Z“].*\.$/u);
  });
  test.each<unknown>([
    { kind: 'moon' },
    { kind: 'constructor' },
    { kind: 'grid', perPage: 1 },
    { kind: 'grid', effect: 'spin' },
    { kind: 'figure', corners: '4px' },
    { kind: 'rotating', scrim: 1 },
    { kind: 'rotating', narrowShape: 'tall' },
    { kind: 'grid', narrowShape: '1:1' },
    { kind: 'feed', between: [{ before: 1, heading: 'A' }] },
    { kind: 'feed', between: [{ before: 0, heading: 'A', passage: [] }] },
    { kind: 'feed', between: [{ before: null, heading: 'A', passage: [{ kind: 'script', runs: [] }] }] },
    {
      kind: 'index',
      galleries: [
        { photo: 1, set: 2, text: '' },
        { photo: 1, set: 3, text: '' },
      ],
    },
    { kind: 'index', galleries: [{ photo: 1, set: 2, text: 4 }] },
    { kind: 'cover', shape: '3:2', download: 'yes' },
    { kind: 'strip', shape: '3:2', side: 'left' },
    { kind: 'strip', shape: 'a:b', side: 'below' },
    { kind: 'strip', shape: '3:2', side: 'below', gap: 4 },
    { kind: 'figure', side: 'left', width: { px: 400, part: 0.5 }, caption: 'none', shape: 'own' },
    { kind: 'grid', shape: '1:1', columns: 'many', ...SEVERAL },
  ])('%j are refused, whoever sent them', (options) => {
    expect(arrangementProblems({ options: options as never, container })).not.toEqual([]);
  });
  test('that were kept before there were as many mean what they meant', () => {
    const before = { kind: 'rotating', shape: '3:1', change: 'fade', seconds: 6, arrows: 'inside' };
    const arranged = { options: before as ArrangementOptions, container };
    expect(arrangementProblems(arranged)).toEqual([]);
    expect(wholeOptions(arranged.options)).toMatchObject({ seconds: 6, texts: 'below' });
    const { cell } = slotsOfArrangement({ shortName: 'a', title: 'A', ...arranged });
    expect(slotProblem(cell)).toBeNull();
  });
  test.each([[[1, 1]], [['1']], ['1,2'], [[0.5]]])('an order of %j is refused', (order) => {
    expect(
      arrangementProblems({ options: optionsFor('grid'), container, order: order as number[] }),
    ).not.toEqual([]);
  });
  test('of every kind are such as can be built, and hold on where the next kind has them too', () => {
    for (const kind of ARRANGEMENT_KINDS)
      for (const other of ARRANGEMENT_KINDS) {
        const options = optionsFor(other, optionsFor(kind));
        expect(options.kind).toBe(other);
        expect(arrangementProblems({ options, container })).toEqual([]);
      }
    const grid = optionsFor('grid');
    expect(optionsFor('rows', { ...grid, gap: 30, captions: 'over' } as ArrangementOptions)).toMatchObject({
      gap: 30,
      captions: 'over',
      height: 240,
    });
    expect(optionsFor('figure', optionsFor('strip'))).toMatchObject({ side: 'full', shape: '3:2' });
  });
});

describe('orders', () => {
  const photo = (name: string, colour: string, takenAt: string | null = null) => ({
    name,
    original: { colour, takenAt },
  });
  const list = [
    photo('pot 10', '#806020', '2026-05-02T10:00:00'),
    photo('Pot 2', '#204080'),
    photo('pot 1', '#888888', '2026-05-01T10:00:00'),
    photo('kiln', '#a02020', '2026-06-01T10:00:00'),
  ];
  const names = (order: Parameters<typeof orderedBy>[1]) => orderedBy(list, order).map(({ name }) => name);
  test('are by hand, time, name as people count, and colour with greys behind', () => {
    expect(names('hand')).toEqual(['pot 10', 'Pot 2', 'pot 1', 'kiln']);
    expect(names('taken')).toEqual(['pot 1', 'pot 10', 'kiln', 'Pot 2']);
    expect(names('name')).toEqual(['kiln', 'pot 1', 'Pot 2', 'pot 10']);
    expect(names('colour')).toEqual(['kiln', 'pot 10', 'Pot 2', 'pot 1']);
  });
  test('shuffled with a seed are the same each time, and lose nobody', () => {
    expect(names({ seed: 3 })).toEqual(names({ seed: 3 }));
    expect([...names({ seed: 4 })].sort()).toEqual([...names('hand')].sort());
    expect(new Set([1, 2, 3, 4, 5, 6].map((seed) => names({ seed }).join())).size).toBeGreaterThan(2);
  });
});
