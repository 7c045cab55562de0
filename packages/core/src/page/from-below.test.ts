// Links of a page as they are from a folder below its own.
import { expect, test } from '@jest/globals';
import { linkFrom } from '../html/link.ts';
import { sampleRow } from '../testing/sample.ts';
import { pageFrom, photoFrom } from './from-below.ts';
import { firstPage } from './page.ts';

const ownPage = { base: '../../', page: '../' };

test.each([
  ['shop/', '../../shop/'],
  ['../', '../../../'],
  ['film.webm', '../../film.webm'],
  [' jug.html ', '../../jug.html'],
  ['#pots', '../#pots'],
  ['?page=2', '../?page=2'],
  ['', ''],
  ['/shop/', '/shop/'],
  ['//gullmoor.example/', '//gullmoor.example/'],
  ['https://gullmoor.example/', 'https://gullmoor.example/'],
  ['mailto:kiln@gullmoor.example', 'mailto:kiln@gullmoor.example'],
  ['tel:123', 'tel:123'],
])('%s leads to %s', (link, from) => expect(linkFrom(link, ownPage)).toBe(from));

test('a page’s links, in each language, and those of photos', () => {
  const runs = [{ text: 'Shop', link: 'shop/' }];
  const page = {
    ...firstPage('Kiln', [], () => false),
    home: { text: 'Home', address: '../' },
    parts: [
      {
        kind: 'text' as const,
        passage: [{ kind: 'paragraph' as const, runs }],
        others: { de: [{ kind: 'paragraph' as const, runs: [{ text: 'Laden', link: 'laden/' }] }] },
      },
    ],
  };
  const here = { base: '', page: '' };
  expect(pageFrom(page, here)).toBe(page);
  const german = JSON.stringify(pageFrom(page, { base: '../', page: '' }));
  expect(german).toContain('"address":"../../"');
  expect(german).toContain('"link":"../shop/"');
  expect(german).toContain('"link":"../laden/"');

  const row = sampleRow(['column']);
  const linked = {
    ...row,
    words: { ...row.words, link: 'shop/' },
    placements: [{ slot: 'column', link: 'film.webm', words: { link: 'here/' }, crops: {} }],
  };
  const deeper = photoFrom(linked, ownPage);
  expect(deeper.words.link).toBe('../../shop/');
  expect(deeper.placements![0]).toMatchObject({ link: '../../film.webm', words: { link: '../../here/' } });
});
