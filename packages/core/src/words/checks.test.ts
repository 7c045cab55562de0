// Word checks: what they find, what they leave alone, and that a mend mends.
import { describe, expect, test } from '@jest/globals';
import type { Words } from '../contract/index.ts';
import { checkWords, imageOpening, isPlaceholder, looksLikeFileName } from './checks.ts';

const words = (change: Partial<Words> = {}): Words => ({
  role: 'informative',
  alt: 'Bowls in rows on the drying shelf, most of them sea green.',
  caption: '',
  title: '',
  credit: '',
  longDescription: '',
  ...change,
});
const codes = (change: Partial<Words>) => checkWords(words(change), 'GM_0412.JPG').map((f) => f.code);

describe('findings', () => {
  test('good words have none', () => expect(codes({})).toEqual([]));
  test('missing, also when only spaces', () => {
    expect(codes({ alt: '' })).toEqual(['missing']);
    expect(codes({ alt: '  \n' })).toEqual(['missing']);
  });
  test('no role beside the alt’s own finding', () => {
    expect(codes({ role: null })).toEqual(['no-role']);
    expect(codes({ role: null, alt: '' })).toEqual(['missing', 'no-role']);
  });
  test('decorative needs no alt', () => expect(codes({ role: 'decorative', alt: '' })).toEqual([]));
  test('every finding says what and why', () => {
    for (const alt of ['', 'GM_0412', 'test', 'image of plate']) {
      const [finding] = checkWords(words({ alt }), 'GM_0412.JPG');
      expect(finding!.sentence.length).toBeGreaterThan(5);
      expect(finding!.why).toMatch(/\.$/);
    }
  });
  test('the mend of an opening has no finding left', () => {
    const [finding] = checkWords(words({ alt: 'Picture of a green vase' }), 'x.jpg');
    expect(finding!.mend).toBe('A green vase');
    expect(codes({ alt: finding!.mend! })).toEqual([]);
  });
});

describe('file names', () => {
  test.each([
    'GM_0412.JPG',
    'gm_0412',
    'DSC00198',
    'IMG-20260822-203118.jpg',
    'bay-at-dusk.webp',
    'dsc_0042',
    'P1040233',
    'IMG 2041',
  ])('%s is one', (alt) => expect(looksLikeFileName(alt, 'GM_0412.JPG')).toBe(true));
  test.each([
    'Vase 12 on the shelf',
    'Kiln at 1240 degrees',
    'Firing guide',
    'Image 3 of the firing shows the cones',
    'glaze test board',
  ])('%s is none', (alt) => expect(looksLikeFileName(alt, 'GM_0412.JPG')).toBe(false));
  test('a file called as its picture shows is still a file name', () => {
    expect(looksLikeFileName('drying shelf', 'drying shelf.jpg')).toBe(true);
  });
});

describe('placeholders', () => {
  test.each([
    'test',
    'Test.',
    'asdf',
    'image 1',
    'Photo #12',
    'TODO',
    'Lorem ipsum dolor sit',
    'xxx',
    '...',
    'aaaa',
    'alt text',
    'n/a',
    'untitled-3',
  ])('%s is one', (alt) => expect(isPlaceholder(alt)).toBe(true));
  test.each([
    'Test tiles on a board',
    'A photo album on the table',
    'Text carved into wet clay',
    'Oak',
    'Six cups',
    'Kiln',
  ])('%s is none', (alt) => expect(isPlaceholder(alt)).toBe(false));
});

describe('openings', () => {
  test.each([
    ['Image of a vase', 'Image of'],
    ['  a photo of the bay', 'a photo of'],
    ['This picture shows the kiln', 'This picture shows'],
    ['Photograph of cups', 'Photograph of'],
  ])('%s', (alt, opening) => expect(imageOpening(alt)).toBe(opening));
  test.each([
    'Imagery of the sea on a tile',
    'A vase, image of calm',
    'Pictures of the firing on a pin board',
    'Photo offset print in a frame',
  ])('%s opens with none', (alt) => expect(imageOpening(alt)).toBeNull());
});
