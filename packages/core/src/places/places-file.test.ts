import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { Ajv } from 'ajv';
import { describe, expect, test } from '@jest/globals';
import type { Slot } from '../contract/index.ts';
import { chance } from '../chance/chance.ts';
import { MOST_PLACES, PlacesFileError, readPlaces, slotIdFor, writePlaces } from './places-file.ts';
import { SHIPPED_SLOTS } from '../slots/shipped.ts';
import { widthAt } from '../css/width-rule.ts';

const WINDOWS = [320, 390, 599, 600, 752, 959, 960, 1280, 2560];

describe('places as a file', () => {
  test('come back as they went', () => {
    const read = readPlaces(writePlaces(SHIPPED_SLOTS), []);
    const bare = (slots: readonly Slot[]) =>
      slots.map((slot) => ({ ...slot, said: undefined, rule: undefined }));
    expect(bare(read)).toEqual(bare(SHIPPED_SLOTS));
    read.forEach((slot, n) => {
      for (const window of WINDOWS) {
        // As the sizes attribute: within a CSS px.
        expect(
          Math.abs(widthAt(slot.rule, window) - widthAt(SHIPPED_SLOTS[n]!.rule, window)),
        ).toBeLessThanOrEqual(1);
      }
    });
    // Read a second time they are the very same.
    expect(readPlaces(writePlaces(read), [])).toEqual(read);
  });

  test('get short names that are not taken', () => {
    const read = readPlaces(writePlaces(SHIPPED_SLOTS), ['hero', 'hero-2']);
    expect(read[0]!.id).toBe('hero-3');
    expect(slotIdFor('Vue générale, 2×', [])).toBe('vue-generale-2');
    expect(slotIdFor('風景', ['place'])).toBe('place-2');
    expect(slotIdFor('x'.repeat(200), [])).toHaveLength(36);
  });

  const place = { name: 'Aside', width: '420 px column', shapes: [{ from: 0, shape: '3:2' }] };
  const file = (change: object, more: object = {}) =>
    JSON.stringify({ file: 'dusky-otter/places', version: 1, places: [{ ...place, ...change }], ...more });

  test('need no more than a name, a width and a shape', () => {
    expect(readPlaces(file({}), [])).toEqual([
      expect.objectContaining({
        id: 'aside',
        said: '420 px column',
        loading: 'lazy',
        fit: null,
        budget: 50_000,
      }),
    ]);
  });

  test.each([
    ['not JSON', '{', 'no JSON'],
    ['another file', '{}', 'holds no places'],
    ['null', 'null', 'holds no places'],
    ['a later version', file({}, { version: 2 }), 'version is 2'],
    ['none', file({}, { places: [] }), 'no place'],
    ['too many', file({}, { places: Array(MOST_PLACES + 1).fill(place) }), '50 places'],
    ['no place', file({}, { places: [7] }), 'Place 1 is no place'],
    ['no name', file({ name: ' ' }), 'no name'],
    ['no width', file({ width: 420 }), '“width” is a text'],
    ['a bad width', file({ width: 'min(1px, )' }), 'At character 10'],
    ['no shapes', file({ shapes: [] }), 'one shape'],
    ['a bad shape', file({ shapes: [{ from: 0, shape: '3x2' }] }), 'not a ratio'],
    ['a shape that starts late', file({ shapes: [{ from: 5, shape: '3:2' }] }), 'cover every viewport'],
    ['a shape that is no object', file({ shapes: ['3:2'] }), 'every shape'],
    ['a bad box', file({ fit: { width: 'a' } }), '“fit” is null'],
    ['a bad budget', file({ budgetBytes: -1 }), 'number of bytes'],
    ['a bad loading', file({ loading: 'eager' }), '“loading”'],
    ['a bad hint', file({ hint: {} }), '“hint”'],
    ['a shape of three numbers', file({ shapes: [{ from: 0, shape: '3:2:9' }] }), 'not a ratio'],
    ['a shape in another base', file({ shapes: [{ from: 0, shape: '0x3:2' }] }), 'not a ratio'],
    ['a shape with an exponent', file({ shapes: [{ from: 0, shape: '1e308:1' }] }), 'not a ratio'],
    ['a shape with a fraction', file({ shapes: [{ from: 0, shape: '1.5:1' }] }), 'not a ratio'],
    [
      'a shape at no window',
      file({
        shapes: [
          { from: 1e308, shape: '3:2' },
          { from: 0, shape: '1:1' },
        ],
      }),
      'windows of 0 to',
    ],
    ['a box of nothing', file({ fit: { width: 0.5, height: 900 } }), '1 to 20000 px'],
    ['a box that never ends', file({ fit: { width: 1e308, height: 900 } }), '1 to 20000 px'],
    ['a budget that never ends', file({ budgetBytes: 1e308 }), '1 to 100000000 bytes'],
    ['a width beyond all windows', file({ width: '200000px' }), 'of up to'],
    ['a long name', file({ name: 'x'.repeat(101) }), 'up to 100 characters'],
    ['a long hint', file({ hint: 'x'.repeat(201) }), 'up to 200 characters'],
  ])('%s is refused with a sentence', (_, text, sentence) => {
    expect(() => readPlaces(text, [])).toThrow(PlacesFileError);
    expect(() => readPlaces(text, [])).toThrow(sentence);
  });

  test('a place called as something that every object has gets another short name', () => {
    expect(slotIdFor('Constructor', [])).toBe('constructor-place');
    expect(slotIdFor('Constructor', ['constructor-place'])).toBe('constructor-place-2');
  });

  test('broken files are refused, never a fault', () => {
    const luck = chance(11);
    const whole = writePlaces(SHIPPED_SLOTS);
    for (let round = 0; round < 300; round++) {
      const at = luck.whole(0, whole.length - 1);
      const text =
        whole.slice(0, at) + String.fromCharCode(luck.whole(32, 126)) + whole.slice(at + luck.whole(0, 3));
      try {
        readPlaces(text, []);
      } catch (error) {
        expect(error).toBeInstanceOf(PlacesFileError);
      }
    }
  });
});

test('the schema that ships says the same', () => {
  const schema = JSON.parse(
    readFileSync(resolve(import.meta.dirname, '../../../../docs/schema/places.schema.json'), 'utf8'),
  ) as object;
  const valid = new Ajv().compile(schema);
  expect(valid(JSON.parse(writePlaces(SHIPPED_SLOTS)))).toBe(true);
  for (const wrong of [
    { places: [] },
    { version: 2 },
    { places: [{ name: 'x' }] },
    { places: [{ name: 'x', width: '1px', shapes: [{ from: 0, shape: '3x2' }] }] },
  ])
    expect(valid({ file: 'dusky-otter/places', version: 1, places: [], ...wrong })).toBe(false);
});
