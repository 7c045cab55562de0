// Alt texts that sound alike: grouped, and found as comparing every pair finds them.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import { alikeAlts } from './alike.ts';
import { sharedPart, tellingWords, type PagePhoto } from './checks/repetition.ts';
import { bookFor } from './data/languages.ts';
import { sounded } from './text/text.ts';

const photos = (...alts: string[]): PagePhoto[] =>
  alts.map((alt, id) => ({ id, name: `photo ${id}`, alt, decorative: false }));

describe('alike alt texts', () => {
  test('are those with the same words but for articles, marks and order', () => {
    const alts = [
      'A green jar on a shelf in the sun',
      'The green jar on the shelf, in the sun.',
      'A white jar on a shelf in the sun',
      'A cup',
      'a cup.',
      'A jug',
      '',
      '  ',
    ];
    // Five of six words are one text less than four fifths of all seven: white and green keep two jars apart.
    expect(alikeAlts(photos(...alts), 'en')).toEqual([
      [0, 1],
      [3, 4],
    ]);
  });
  test('a decorative photo is heard like no other', () => {
    const [a, b] = photos('A cup on a table', 'A cup on a table');
    expect(alikeAlts([a!, { ...b!, decorative: true }], 'en')).toEqual([]);
  });
  test.each([1, 2, 3])('are what comparing every pair finds (%i)', (seed) => {
    const { next } = chance(seed);
    const vocabulary = ['green', 'white', 'jar', 'jug', 'shelf', 'sun', 'table', 'kiln', 'hand', 'glaze'];
    const many = photos(
      ...Array.from({ length: 120 }, () =>
        Array.from({ length: 2 + Math.floor(next() * 6) }, () =>
          next() < 0.2 ? 'the' : vocabulary[Math.floor(next() * vocabulary.length)],
        ).join(' '),
      ),
    );
    const book = bookFor('en');
    const areAlike = (a: string, b: string): boolean => {
      const [first, second] = [tellingWords(a, book), tellingWords(b, book)];
      const enough = Math.min(first.size, second.size) >= 4;
      return sounded(a) === sounded(b) || (enough && sharedPart(first, second) >= 0.8);
    };
    const groups = alikeAlts(many, 'en');
    const groupOf = new Map(groups.flatMap((group, n) => group.map((id) => [id, n] as const)));
    expect(groups.length).toBeGreaterThan(3);
    // No text of a group is alone in it, and none outside is like one inside by sharing most of its words.
    for (const { id, alt } of many) {
      const like = many.filter((other) => other.id !== id && areAlike(alt, other.alt));
      if (groupOf.has(id)) expect(like.length).toBeGreaterThan(0);
      for (const other of like) expect(groupOf.get(other.id)).toBe(groupOf.get(id));
      if (like.length > 0) expect(groupOf.has(id)).toBe(true);
    }
  });
});
