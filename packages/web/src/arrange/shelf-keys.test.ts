// Keys on a photo of a shelf: what each asks for, at the ends, too.
import { describe, expect, jest, test } from '@jest/globals';
import type { KeyboardEvent } from 'react';
import { pressOn, type ShelfActs } from './shelf-keys.ts';
import type { Carried } from './shelves.ts';

const SHELVES: Record<string, number[]> = { hero: [1, 2], column: [3, 4, 5], empty: [] };

/** What a key asked for: the acts that were called, each with what it was given. */
function pressed(
  key: string,
  { on = 'column', id = 4, picked = [] as number[], shift = false, ctrl = false, alt = false } = {},
) {
  const called: [string, ...unknown[]][] = [];
  const acts: ShelfActs = {
    boards: ['hero', 'column', 'empty'],
    members: (slot) => SHELVES[slot]!,
    together: (slot, one) =>
      picked.includes(one) ? SHELVES[slot]!.filter((other) => picked.includes(other)) : [one],
    go: (slot, to) => called.push(['go', slot, to]),
    carry: (carried: Carried) => {
      called.push(['carry', carried]);
      return Promise.resolve();
    },
    pick: (slot, one) => called.push(['pick', slot, one]),
    pickAll: (slot, one) => called.push(['pickAll', slot, one]),
    pickNone: jest.fn(),
    open: (slot, one) => called.push(['open', slot, one]),
  };
  const event = { key, shiftKey: shift, ctrlKey: ctrl, metaKey: false, altKey: alt };
  const meant = pressOn(on, id, event as unknown as KeyboardEvent, acts);
  return { meant, called };
}

describe('a key on a photo of a shelf', () => {
  test.each([
    ['ArrowLeft', {}, [['go', 'column', 3]]],
    ['ArrowRight', {}, [['go', 'column', 5]]],
    ['ArrowRight', { id: 5 }, []],
    ['ArrowLeft', { id: 3 }, []],
    ['Home', { id: 5 }, [['go', 'column', 3]]],
    ['End', { id: 3 }, [['go', 'column', 5]]],
    // As far along in the other place as it has photos.
    ['ArrowUp', { id: 5 }, [['go', 'hero', 2]]],
    ['ArrowDown', {}, []],
    ['ArrowUp', { on: 'hero', id: 1 }, []],
    [' ', {}, [['pick', 'column', 4]]],
    ['Enter', {}, [['open', 'column', 4]]],
    ['a', { ctrl: true }, [['pickAll', 'column', 4]]],
  ] as const)('%s %j', (key, how, called) => expect(pressed(key, how)).toEqual({ meant: true, called }));

  test.each([
    ['ArrowLeft', {}, { from: 'column', to: 'column', ids: [4], before: 3 }],
    ['ArrowRight', { id: 3 }, { from: 'column', to: 'column', ids: [3], before: 5 }],
    ['ArrowRight', { id: 4 }, { from: 'column', to: 'column', ids: [4], before: null }],
    ['ArrowUp', {}, { from: 'column', to: 'hero', ids: [4], before: null }],
    ['ArrowDown', { picked: [3, 4] }, { from: 'column', to: 'empty', ids: [3, 4], before: null }],
    ['ArrowLeft', { picked: [4, 5] }, { from: 'column', to: 'column', ids: [4, 5], before: 3 }],
  ] as const)('with Shift, %s %j carries', (key, how, carried) => {
    const { called } = pressed(key, {
      ...how,
      picked: [...('picked' in how ? how.picked : [])],
      shift: true,
    });
    expect(called[0]).toEqual(['carry', carried]);
  });
  test.each([
    ['ArrowLeft', { id: 3 }],
    ['ArrowRight', { id: 5 }],
    ['ArrowUp', { on: 'hero', id: 1 }],
    ['ArrowDown', { on: 'empty', id: 9 }],
  ] as const)('with Shift, %s %j: at an end nothing moves', (key, how) =>
    expect(pressed(key, { ...how, shift: true })).toEqual({ meant: true, called: [] }),
  );
  test('Delete takes what is picked out', () => {
    const { called } = pressed('Delete', { picked: [3, 4], id: 3 });
    expect(called[0]).toEqual(['carry', { from: 'column', to: null, ids: [3, 4], before: null }]);
  });
  test.each([
    ['q', {}],
    ['ArrowLeft', { alt: true }],
    ['z', { ctrl: true }],
    ['Delete', { ctrl: true }],
  ] as const)('%s %j is left to others', (key, how) =>
    expect(pressed(key, how)).toEqual({ meant: false, called: [] }),
  );
});
