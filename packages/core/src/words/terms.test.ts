// A site's own terms: read, found in any form, offered only where something around the photo says them.
import { describe, expect, test } from '@jest/globals';
import { checkWords } from './checks.ts';
import { NO_WORDS } from './no-words.ts';
import { carriableTerms, saysTerm, TermCount, termsFrom, termsProblem } from './terms.ts';

describe('a list of terms', () => {
  test('is typed with commas or lines, and holds each once', () =>
    expect(termsFrom(' stoneware,\nwood  kiln; Stoneware ,, ')).toEqual(['stoneware', 'wood kiln']));
  test('has limits that are said', () => {
    expect(termsProblem(['stoneware'])).toBeNull();
    expect(termsProblem(Array.from({ length: 101 }, (_, n) => `term ${n}`))).toMatch(/More than 100/);
    expect(termsProblem(['a'.repeat(61)])).toMatch(/too long/);
  });
  test('of hostile text takes no memory of it', () =>
    expect(termsFrom(`${','.repeat(50_000)}a`)).toEqual(['a']));
});

test.each([
  ['Two stoneware bowls on slate', 'stoneware bowl', true],
  ['Zwei Schalen aus Steinzeug', 'Schale', true],
  ['A bowling alley', 'bowl', false],
  ['Bowls of stoneware', 'stoneware bowl', false],
  ['', 'bowl', false],
])('%j says %j: %s', (text, term, says) => expect(saysTerm(text, term)).toBe(says));

test('a photo could carry what its title, page or neighbours say, and its alt text doesn’t yet', () => {
  const terms = ['stoneware', 'wood kiln', 'teapot', 'porcelain'];
  const around = {
    title: ['Red teapot'],
    page: ['Kiln diary: the wood kiln in autumn'],
    neighbour: ['Stoneware bowl', 'Wood kiln at dusk'],
  };
  expect(carriableTerms(terms, 'A teapot on slate', around)).toEqual([
    { term: 'wood kiln', where: 'page' },
    { term: 'stoneware', where: 'neighbour' },
  ]);
  expect(carriableTerms(terms, '', {})).toEqual([]);
});

test('a term in every alt text of a page is told, from three texts on; empty ones don’t count', () => {
  const count = new TermCount(['stoneware', 'bowl']);
  for (const alt of ['A stoneware bowl', '', 'Stoneware jug']) count.add(alt);
  expect(count.inEvery()).toEqual([]);
  count.add('Plates of stoneware');
  expect(count.inEvery()).toEqual(['stoneware']);
  count.add('A lamp');
  expect(count.inEvery()).toEqual([]);
});

test('a text that is stuffed with terms is found, one that tells with some of them is not', () => {
  const terms = ['stoneware', 'bowl', 'wood kiln', 'handmade'];
  const codes = (alt: string) =>
    checkWords({ ...NO_WORDS, role: 'informative', alt }, 'a.jpg', { terms }).map(({ sentence }) => sentence);
  expect(codes('Handmade stoneware bowl from the wood kiln')).toEqual([
    expect.stringMatching(/^Full of the site’s terms: “stoneware”, “bowl”/),
  ]);
  expect(codes('A stoneware bowl with a crackled glaze stands on a shelf by the window')).toEqual([]);
});
