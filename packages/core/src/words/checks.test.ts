// Word checks: what they find, what they leave alone, and that a mend mends.
import { describe, expect, test } from '@jest/globals';
import type { Words } from '../contract/index.ts';
import { WORD_CHECKS } from './catalogue.ts';
import { checkWords } from './checks.ts';
import { isPlaceholder, looksLikeFileName } from './checks/absent.ts';
import { imageOpening } from './checks/opening.ts';
import { sameAlts, saysTheSame } from './checks/repetition.ts';
import { describesLook } from './checks/role.ts';
import { bookFor } from './data/languages.ts';
import { NO_WORDS } from './no-words.ts';

const ENGLISH = bookFor('en');

const words = (change: Partial<Words> = {}): Words => ({
  ...NO_WORDS,
  role: 'informative',
  alt: 'Bowls in rows on the drying shelf, most of them sea green.',
  ...change,
});
const codes = (change: Partial<Words>) => checkWords(words(change), 'GM_0412.JPG').map((f) => f.code);

describe('findings', () => {
  test('a script without capitals is not shouted', () =>
    expect(codes({ alt: 'مزهرية خضراء على طاولة من خشب البلوط' })).toEqual([]));
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
  test.each([
    ['Picture of a green vase', { alt: 'A green vase' }],
    ['GM_0412.JPG: bowls on a shelf', { alt: 'Bowls on a shelf' }],
    ['GM_0412', { alt: '' }],
    ['test', { alt: '' }],
    [
      'IMG_0412 wood kiln at dusk with split logs stacked beside it.',
      { alt: 'Wood kiln at dusk with split logs stacked beside it.' },
    ],
    ['Blue blue sky sky over the bay bay', { alt: 'Blue sky over the bay' }],
    ['Cups on on the the shelf.', { alt: 'Cups on the shelf.' }],
    ['Bowls in the the kiln.', { alt: 'Bowls in the kiln.' }],
    ['BOWLS ON THE DRYING SHELF. THEY ARE GREEN.', { alt: 'Bowls on the drying shelf. They are green.' }],
  ])('the mend of %j is %j, and is done with it', (alt, mend) => {
    const [finding] = checkWords(words({ alt }), 'GM_0412.JPG');
    expect(finding!.mend).toEqual(mend);
    expect(codes(finding!.mend!)).not.toContain(finding!.code);
  });
  test('what is too long is cut at a sentence, and all of it becomes the long description', () => {
    const first =
      'Bowls in rows on the drying shelf, most of them sea green or white, with three jugs behind them.';
    const alt = `${first} On the floor stand two buckets of glaze, a broom, and a tray of broken pieces.`;
    const [finding] = checkWords(words({ alt }), 'x.jpg');
    expect(finding).toMatchObject({ code: 'too-long', mend: { alt: first, longDescription: alt } });
    const [kept] = checkWords(words({ alt, longDescription: 'Told already.' }), 'x.jpg');
    expect(kept!.mend).toEqual({ alt: first });
  });
  test('words on a decorative photo: the mend takes them away', () => {
    const [finding] = checkWords(words({ role: 'decorative', alt: 'A line' }), 'x.jpg');
    expect(finding).toMatchObject({ code: 'decorative-with-alt', mend: { alt: '' } });
  });
});

describe('texts that nobody can have written', () => {
  test('are read up to a length, and judged by it', () => {
    const long = 'Bowls in rows on the drying shelf. '.repeat(100_000);
    const found = checkWords(words({ alt: long, caption: long }), 'x'.repeat(100_000));
    expect(found.map(({ code }) => code)).toContain('too-long');
    expect(found.find(({ code }) => code === 'too-long')!.sentence).toContain(
      `${long.trim().length} characters`,
    );
  });
  test.each([
    'Bora Bora on a painted tile',
    'A very, very large jar',
    'Long, long ago: a shard',
    'Door 12 12 cm wide',
  ])('%j does not stutter', (alt) => expect(codes({ alt })).not.toContain('keyword-list'));
});

describe('the catalogue', () => {
  test.each(WORD_CHECKS.map((check) => [check.code, check] as const))(
    '%s finds its example, not the good one',
    (code, check) => {
      const found = ({ role, alt, caption = '', other, shown }: (typeof check)['found']) => {
        const page = [alt, ...(other === undefined ? [] : [other])].map((text, id) => ({
          id,
          name: `photo ${id}`,
          alt: text,
          decorative: false,
        }));
        return checkWords(words({ role, alt, caption }), 'DSC00198.JPG', {
          sameAs: sameAlts(page).get(0) ?? [],
          ...(shown && { shown: [{ text: shown, box: { left: 0, top: 0, right: 1, bottom: 1 } }] }),
        }).map((finding) => finding.code);
      };
      expect(found(check.found)).toContain(code);
      expect(found(check.good)).toEqual([]);
    },
  );
});

describe('repetition', () => {
  test.each([
    ['The kiln before the firing.', 'the kiln, before the firing', true],
    ['The brick kiln before the firing', 'The brick kiln before the firing, at six in the morning', true],
    ['Kiln', 'Kiln', true],
    ['Kiln', 'The kiln before the firing', false],
    ['Split logs stacked beside the kiln', 'The kiln before the firing', false],
    ['', '', false],
  ])('%j and %j: %s', (alt, other, same) => expect(saysTheSame(alt, other, ENGLISH)).toBe(same));
  test('a heading beside the photo counts like its caption', () => {
    const around = { nearby: ['Bowls in rows on the drying shelf, most of them sea green'] };
    expect(checkWords(words(), 'x.jpg', around).map((f) => f.sentence)).toEqual([
      'Says the same as the text beside it',
    ]);
  });
  test('two names are enough, and a page of equal texts stays cheap', () => {
    const page = Array.from({ length: 2000 }, (_, id) => ({
      id,
      name: `p${id}`,
      alt: 'Cups',
      decorative: false,
    }));
    const same = sameAlts(page);
    expect(same.get(0)).toEqual(['p1', 'p2']);
    expect(same.get(1)).toEqual(['p0', 'p2']);
    expect(sameAlts([{ ...page[0]!, decorative: true }, page[1]!]).size).toBe(0);
  });
});

describe('links', () => {
  test('a target that is known decides', () => {
    expect(describesLook('A white arrow on a green circle', ENGLISH)).toBe(true);
    expect(describesLook('A white bowl, to the bowl shop', ENGLISH, 'Bowl shop')).toBe(false);
    const [finding] = checkWords(words({ role: 'functional', alt: 'A white arrow on a circle' }), 'x.jpg', {
      target: 'Next page of the diary',
    });
    expect(finding!.mend).toEqual({ alt: 'Next page of the diary' });
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
    'IMG_0412-edited (1)',
    'Screenshot 2026-05-01 at 11.04.22',
    'Some Program Image 2026-04-03 at 10.11.12',
    'Bildschirmfoto 2026-05-01 um 11.04.22 (2)',
    'Scan 2026-5-1 9-05-11.png',
    'Screenshot 2026-05-01 at 11.04.22 AM',
  ])('%s is one', (alt) => expect(looksLikeFileName(alt, 'GM_0412.JPG')).toBe(true));
  test.each([
    'Vase 12 on the shelf',
    'Kiln at 1240 degrees',
    'Firing guide',
    'Image 3 of the firing shows the cones',
    'Photo 1240 degrees hot: the kiln glows',
    'The kiln door was opened on 2026-05-01 at 11.04.22',
    'Opening on 1 May 2026 at 11.04',
    'glaze test board',
  ])('%s is none', (alt) => expect(looksLikeFileName(alt, 'GM_0412.JPG')).toBe(false));
  test.each<[string, Partial<Words>, string | null]>([
    ['drying shelf.jpg', { alt: 'drying shelf' }, 'Same as the file’s name'],
    ['town-hall-at-dusk.jpg', { alt: 'town hall at dusk' }, null],
    ['town-hall-at-dusk.jpg', { alt: 'town-hall-at-dusk' }, 'Is a file name'],
    ['menu.jpg', { alt: 'Menu', role: 'functional' }, null],
    ['drying-shelf.jpg', { alt: 'Drying shelf.' }, 'Same as the file’s name'],
  ])('%s with %j: %s', (file, change, sentence) => {
    const found = checkWords(words(change), file).find(({ code }) => code === 'file-name');
    expect(found?.sentence ?? null).toBe(sentence);
    // What is said in words may be all that there is to say: nothing empties it.
    if (sentence?.startsWith('Same')) expect(found!.mend).toBeNull();
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
  ])('%s is one', (alt) => expect(isPlaceholder(alt, ENGLISH)).toBe(true));
  test.each([
    'Test tiles on a board',
    'A photo album on the table',
    'Text carved into wet clay',
    'Oak',
    'Six cups',
    'Kiln',
  ])('%s is none', (alt) => expect(isPlaceholder(alt, ENGLISH)).toBe(false));
});

describe('openings', () => {
  test.each([
    ['Image of a vase', 'Image of'],
    ['  a photo of the bay', 'a photo of'],
    ['This picture shows the kiln', 'This picture shows'],
    ['Photograph of cups', 'Photograph of'],
  ])('%s', (alt, opening) => expect(imageOpening(alt, ENGLISH)).toBe(opening));
  test.each([
    'Imagery of the sea on a tile',
    'A vase, image of calm',
    'Pictures of the firing on a pin board',
    'Photo offset print in a frame',
  ])('%s opens with none', (alt) => expect(imageOpening(alt, ENGLISH)).toBeNull());
});
