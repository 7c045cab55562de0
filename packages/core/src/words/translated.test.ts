// Words for a page in another language: its own, or the first ones, marked as such.
import { expect, test } from '@jest/globals';
import { NO_WORDS } from './no-words.ts';
import { isRightToLeft } from '../html/languages.ts';
import { spokenPhoto, wordsFor } from './translated.ts';

const main = {
  language: 'en',
  words: {
    ...NO_WORDS,
    role: 'functional' as const,
    alt: 'To the shop',
    caption: 'Shop',
    credit: 'Gullmoor',
    link: '/shop',
    newWindow: true,
  },
};
const own = (words: Partial<typeof NO_WORDS>, language = 'de') => ({
  language,
  words: { ...NO_WORDS, ...words },
});

test('what is written in the page’s language, with what hangs on none from the first', () => {
  expect(wordsFor(main, own({ alt: 'Zum Laden' }))).toEqual({
    language: 'de',
    words: {
      ...NO_WORDS,
      role: 'functional',
      alt: 'Zum Laden',
      credit: 'Gullmoor',
      link: '/shop',
      newWindow: true,
    },
  });
  expect(wordsFor(main, own({ alt: 'Zum Laden', link: '/de/laden' })).words).toMatchObject({
    link: '/de/laden',
    newWindow: false,
  });
});

test('where nobody wrote in it, the first language stands in and says so', () => {
  expect(wordsFor(main, undefined)).toBe(main);
  expect(wordsFor(main, own({ caption: 'Laden' }))).toBe(main);
  const decorative = { ...main, words: { ...main.words, role: 'decorative' as const } };
  expect(wordsFor(decorative, own({})).language).toBe('de');
});

test('what is said in one place alone follows the language; links and roles hold in all', () => {
  const placements = [
    {
      slot: 'column',
      link: '',
      crops: {},
      words: { alt: 'To the shop, here', caption: 'Here', link: '/here' },
      others: { de: { alt: 'Zum Laden, hier' } },
    },
  ];
  const photo = { words: main.words, placements };
  const german = spokenPhoto(photo, 'en', own({ alt: 'Zum Laden' }));
  expect(german.language).toBe('de');
  expect(german.photo.placements[0]!.words).toEqual({ link: '/here', alt: 'Zum Laden, hier' });
  // In the first language, and where a photo falls back to it, nothing is another.
  expect(spokenPhoto(photo, 'en', undefined)).toEqual({ photo, language: 'en' });
});

test.each([
  ['ar', true],
  ['ar-EG', true],
  ['he', true],
  ['de', false],
  ['en-GB', false],
])('%s is written from right to left: %s', (language, right) => expect(isRightToLeft(language)).toBe(right));
