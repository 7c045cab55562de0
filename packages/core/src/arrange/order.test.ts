// An order of an arrangement's own.
import { describe, expect, test } from '@jest/globals';
import { asOrdered, movedBefore } from './order.ts';

describe('an order of one’s own', () => {
  const photos = [1, 2, 3, 4, 5].map((id) => ({ id }));
  const ids = (order: readonly number[]) => asOrdered(photos, order).map(({ id }) => id);
  test('stands before what it does not name, and passes over what is gone', () => {
    expect(ids([])).toEqual([1, 2, 3, 4, 5]);
    expect(ids([4, 9, 2])).toEqual([4, 2, 1, 3, 5]);
  });
  test('several go together, in their order, wherever they are let go', () => {
    const all = [1, 2, 3, 4, 5];
    expect(movedBefore(all, [2, 4], 1)).toEqual([2, 4, 1, 3, 5]);
    expect(movedBefore(all, [4, 2], null)).toEqual([1, 3, 5, 2, 4]);
    expect(movedBefore(all, [1, 2], 2)).toEqual([1, 2, 3, 4, 5]);
    expect(movedBefore(all, [1, 3], 5)).toEqual([2, 4, 1, 3, 5]);
    expect(movedBefore(all, [], 3)).toEqual(all);
    expect(movedBefore(all, all, 1)).toEqual(all);
  });
});
