// Speaking file names.
import { describe, expect, test } from '@jest/globals';
import { slugOf, speakingSlug, variantFileName } from './naming.ts';

describe('slugs', () => {
  test.each([
    ['Bay at dusk', 'bay-at-dusk'],
    ['Töpferei – früh & spät', 'topferei-fruh-and-spat'],
    ['GM_0412', 'gm-0412'],
    ['  “Quoted”, 50 % off!  ', 'quoted-50-percent-off'],
    ['../../etc/passwd', 'etcpasswd'],
    ['日本', ''],
  ])('%s', (text, slug) => expect(slugOf(text)).toBe(slug));
  test('long ones end between words', () => {
    const slug = slugOf('Bowls in rows on the drying shelf, most of them sea green or white, in the morning');
    expect(slug).toBe('bowls-in-rows-on-the-drying-shelf-most-of-them');
    expect(slugOf('x'.repeat(200))).toHaveLength(48);
  });
  test('title goes before alt, alt before file name, and something always stands', () => {
    expect(speakingSlug({ title: 'A', alt: 'B' }, 'C.jpg')).toBe('a');
    expect(speakingSlug({ title: '', alt: 'B b' }, 'C.jpg')).toBe('b-b');
    expect(speakingSlug({ title: '', alt: '' }, 'table from above (2).jpeg')).toBe('table-from-above-2');
    expect(speakingSlug({ title: '?', alt: '' }, '日本.jpg')).toBe('photo');
  });
  test('the whole name', () => {
    const variant = { width: 1600, format: 'jpeg' as const, contentHash: '3fa91c2e' + '0'.repeat(56) };
    expect(variantFileName('bay-at-dusk', 'hero', variant)).toBe('bay-at-dusk-hero-1600w.3fa91c2e.jpg');
  });
});
