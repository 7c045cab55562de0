// What a table changes of photos: what is not said yet, and what else was agreed to, everywhere and in single places.
import { describe, expect, test } from '@jest/globals';
import { NO_WORDS } from '@dusky-otter/core/words';
import { samplePhoto } from '../../../core/src/testing/sample.ts';
import { conflictsIn, nameOfText, placementsThen, type Change } from './table-changes.ts';

const photo = samplePhoto({ id: 7 });
const change: Change = {
  line: 2,
  photo: { id: 7, fileName: 'a.jpg', words: NO_WORDS, original: { hash: 'ab' } },
  added: {},
  conflicts: { alt: 'Theirs' },
  slots: null,
  unknownPlaces: [],
  here: [
    { slot: 'column', now: { alt: 'Mine' }, added: { caption: 'Sold' }, conflicts: { alt: 'Theirs, here' } },
  ],
};
const where = { setPlaces: { open: ['column', 'grid'], shown: null }, language: 'en', main: 'en' };

describe('words of a table', () => {
  test('that stand instead of others are asked about one by one', () => {
    expect(conflictsIn(change)).toEqual(['7 alt', '7 alt in column']);
  });
  test('go into the places where a photo stands, and no others', () => {
    const then = placementsThen(change, photo, where, new Set());
    expect(then!.map(({ slot, words }) => [slot, words])).toEqual([
      ['column', { caption: 'Sold' }],
      ['grid', {}],
    ]);
    const taken = new Set([nameOfText(7, 'alt in column')]);
    expect(placementsThen(change, photo, where, taken)![0]!.words).toEqual({
      caption: 'Sold',
      alt: 'Theirs, here',
    });
  });
  test('in another language leave the first as it is', () => {
    const [column] = placementsThen(change, photo, { ...where, language: 'de' }, new Set())!;
    expect([column!.words, column!.others]).toEqual([{}, { de: { caption: 'Sold' } }]);
  });
  test('with places of their own, and without any', () => {
    expect(placementsThen({ ...change, slots: ['hero'], here: [] }, photo, where, new Set())).toMatchObject([
      { slot: 'hero', words: {} },
    ]);
    expect(placementsThen({ ...change, here: [] }, photo, where, new Set())).toBeNull();
  });
});
