// What edits touch, and orders made of keys.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { inOrder, isPosition, positionBetween, positions } from './positions.ts';
import { overlap, touchedBy } from './touched.ts';

const here = { set: 3, site: 2 };
const parts = (...commands: Parameters<typeof touchedBy>[0]) => touchedBy(commands, here).map((t) => t.part);

describe('parts', () => {
  test('are the fields of words, the places, and in a set what is the set’s own', () => {
    expect(parts({ kind: 'words', photo: 1, language: 'en', words: { alt: '', role: null } })).toEqual([
      'words.en.alt',
      'words.en.role',
    ]);
    expect(parts({ kind: 'bin', photo: 1, binned: true })).toEqual(['set.3.bin']);
    expect(touchedBy([{ kind: 'slot', slot: 'grid', value: null }], here)).toEqual([
      { entity: 'site', id: 2, part: 'slot.grid' },
    ]);
    expect(touchedBy([{ kind: 'set', change: { name: 'x' } }], here)).toEqual([
      { entity: 'set', id: 3, part: 'name' },
    ]);
  });
  test('are named once', () => {
    const focal = { x: 0, y: 0, confirmed: true };
    expect(parts({ kind: 'focal', photo: 1, focal }, { kind: 'focal', photo: 1, focal })).toHaveLength(1);
  });
  test('a whole frame is in the way of each of its parts, one crop not of another', () => {
    expect(overlap('frame', 'frame.focal')).toBe(true);
    expect(overlap('frame.crop.3:1', 'frame')).toBe(true);
    expect(overlap('frame.crop.3:1', 'frame.crop.3:2')).toBe(false);
    expect(overlap('words.en.alt', 'words.en.al')).toBe(false);
  });
});

describe('positions', () => {
  test('random moves keep the order that they made, and every key is one', () => {
    const { next } = chance(11);
    const keys = positions(20).map((position, id) => ({ id, position }));
    const wished = keys.map(({ id }) => id);
    for (let n = 0; n < 3000; n++) {
      const from = Math.floor(next() * wished.length);
      const [id] = wished.splice(from, 1);
      const to = Math.floor(next() * (wished.length + 1));
      const key = (at: number) => keys[wished[at] ?? -1]?.position ?? null;
      keys[id!]!.position = positionBetween(key(to - 1), key(to));
      wished.splice(to, 0, id!);
      expect([...keys].sort(inOrder).map((one) => one.id)).toEqual(wished);
    }
    expect(keys.every(({ position }) => isPosition(position))).toBe(true);
  });
  test('between two that two windows gave one key, there is a place behind both', () => {
    const key = positionBetween('a0', 'a0');
    expect(key > 'a0' && key < 'a1').toBe(true);
    expect(positionBetween('zz', 'a!') > 'zz').toBe(true);
  });
});
