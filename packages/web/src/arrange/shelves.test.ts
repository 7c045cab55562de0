import { describe, expect, test } from '@jest/globals';
import { firstPage } from '@dusky-otter/core/page';
import { SHIPPED_SLOTS } from '@dusky-otter/core/slots';
import { actOf, beforeAt, neighboursOf, shelfRows } from './shelves.ts';

const site = { slots: SHIPPED_SLOTS };
const [first, second] = SHIPPED_SLOTS.filter(({ of }) => of === undefined).map(({ id }) => id) as [
  string,
  string,
];
const counted = (...slots: string[]) => ({
  places: Object.fromEntries(
    slots.map((slot) => [
      slot,
      { photos: 1, phone: { sent: 0, complete: true }, open: { frame: 0, weigh: 0, describe: 0 } },
    ]),
  ),
});
const page = firstPage('Pots', SHIPPED_SLOTS, (slot) => slot === second);

describe('rows of the Arrange stop', () => {
  test('are the places of the page in its order, also where nothing stands in them', () => {
    const parts = [
      ...page.parts,
      { kind: 'heading', text: 'More' } as const,
      { kind: 'place', slot: first, titled: false } as const,
    ];
    const rows = shelfRows({ slots: [] }, site, { ...page, parts }, counted());
    expect(rows.map((row) => (row.kind === 'shelf' ? [row.slot.id, row.part] : row.id))).toEqual([
      'page',
      [second, 0],
      [first, 2],
    ]);
  });
  test('end with places that the page does not show, and in which photos stand', () => {
    const rows = shelfRows({ slots: [] }, site, page, counted(first, second));
    expect(rows.map((row) => (row.kind === 'shelf' ? [row.slot.id, row.shown] : row.id))).toEqual([
      'page',
      [second, true],
      'aside',
      [first, false],
    ]);
  });
  test('a place that is gone is none', () => {
    const parts = [{ kind: 'place', slot: 'gone', titled: false } as const];
    expect(shelfRows({ slots: [] }, site, { ...page, parts }, null)).toHaveLength(1);
  });
});

describe('photos that are let go', () => {
  test.each([
    [{ from: 'a', to: 'a' }, 'order'],
    [{ from: 'a', to: 'b' }, 'move'],
    [{ from: 'a', to: null }, 'out'],
    [{ from: null, to: 'b' }, 'put'],
    [{ from: null, to: null }, 'nothing'],
  ] as const)('%j: %s', (way, act) => expect(actOf({ ...way, ids: [1] })).toBe(act));
  test('none is nothing', () => expect(actOf({ from: 'a', to: 'b', ids: [] })).toBe('nothing'));
  test('go before the first whose middle lies behind them, or behind all', () => {
    const drawn = [
      { id: 4, middle: 50 },
      { id: 7, middle: 150 },
    ];
    expect(beforeAt(20, drawn)).toBe(4);
    expect(beforeAt(50, drawn)).toBe(7);
    expect(beforeAt(151, drawn)).toBeNull();
    expect(beforeAt(1, [])).toBeNull();
  });
  test('come between photos of the set that the place may not show', () => {
    const [all, here] = [
      [1, 2, 3, 4, 5],
      [2, 3, 5],
    ];
    // Before the first of the place is behind the one that stands elsewhere.
    expect(neighboursOf(all, here, { ids: [3], before: 2 })).toEqual({ ahead: 1, behind: 2 });
    expect(neighboursOf(all, here, { ids: [2], before: null })).toEqual({ ahead: 5, behind: null });
    expect(neighboursOf(all, [1, 2], { ids: [1], before: null })).toEqual({ ahead: 2, behind: 3 });
    expect(neighboursOf(all, here, { ids: [2, 3], before: 5 })).toEqual({ ahead: 4, behind: 5 });
    expect(neighboursOf(all, here, { ids: [2, 3], before: 3 })).toEqual({ ahead: 4, behind: 5 });
    expect(neighboursOf(all, [1, 2], { ids: [2], before: 1 })).toEqual({ ahead: null, behind: 1 });
  });
});
