import { describe, expect, test } from '@jest/globals';
import { filled, placeholdersIn, replaced } from './pattern.ts';

describe('a pattern', () => {
  test('names its placeholders once', () =>
    expect(placeholdersIn('{Title}, {place} and {title}')).toEqual(['title', 'place']));
  test.each([
    ['{title}, {place}', { title: 'Red teapot', place: 'Shop grid' }, 'Red teapot, Shop grid'],
    ['{title}, {place}', { title: '', place: 'Shop grid' }, 'Shop grid'],
    ['{title}, {place}', { title: 'Red teapot', place: ' ' }, 'Red teapot'],
    ['{title} – {place}', {}, ''],
    ['Photo: {credit}', { credit: 'Gullmoor Pottery' }, 'Photo: Gullmoor Pottery'],
    ['{constructor}', {}, ''],
    ['{title}', { title: '{place}', place: 'x' }, '{place}'],
    ['No. {number}', { number: '3' }, 'No. 3'],
  ])('%s with %j', (pattern, values, expected) => expect(filled(pattern, values)).toBe(expected));
});

describe('replacing', () => {
  const by = (find: string, replacement: string, more = {}) => ({
    ...{ find, replacement, exactCase: false, wholeWords: false },
    ...more,
  });
  test.each([
    ['Pot on a pot', by('pot', 'jug'), 'jug on a jug'],
    ['Pot on a pot', by('pot', 'jug', { exactCase: true }), 'Pot on a jug'],
    ['Pottery pot', by('pot', 'jug', { wholeWords: true }), 'Pottery jug'],
    ['aaa', by('aa', 'b'), 'ba'],
    ['a', by('', 'b'), 'a'],
    ['pot', by('pot', 'pot pot'), 'pot pot'],
    ['$& pot', by('pot', '$&'), '$& $&'],
    ['İstanbul pot', by('POT', 'jug'), 'İstanbul pot'],
    ['Töpfe', by('töpf', 'Krüg'), 'Krüge'],
  ])('%s', (text, how, expected) => expect(replaced(text, how)).toBe(expected));
});
