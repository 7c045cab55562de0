// Speaking file names.
import { describe, expect, test } from '@jest/globals';
import { optionsFor } from '../arrange/options.ts';
import type { ShapeId, Words } from '../contract/index.ts';
import { slotById } from '../testing/sample.ts';
import { foldersOf, isDeviceName } from './folders.ts';
import { slugOf, speakingNames, speakingSlug, variantFileName } from './naming.ts';

const slugsOf = (photos: readonly { id: number; fileName: string; words: Pick<Words, 'title' | 'alt'> }[]) =>
  new Map(photos.map(({ id, words, fileName }) => [id, speakingSlug(words, fileName)]));

describe('slugs', () => {
  test.each([
    ['Bay at dusk', 'bay-at-dusk'],
    ['Töpferei – früh & spät', 'topferei-fruh-and-spat'],
    ['GM_0412', 'gm-0412'],
    ['  “Quoted”, 50 % off!  ', 'quoted-50-percent-off'],
    ['../../etc/passwd', 'etc-passwd'],
    ['日本', ''],
    ['Bowls—fired/glazed', 'bowls-fired-glazed'],
    ['The potter’s wheel', 'the-potters-wheel'],
    ['Café “Zur Möwe”, Łódź', 'cafe-zur-mowe-lodz'],
    ['Гончар и печь', 'gonchar-i-pech'],
    ['Κεραμικά', 'keramika'],
    ['Gốm sứ', 'gom-su'],
    ['Straße nach Åbo', 'strasse-nach-abo'],
    // The same letters, written as one sign and as two; a ligature; full-width digits.
    ['Cafe\u0301 ﬁring １２', 'cafe-firing-12'],
    ['kiln\u0000\n\t🔥 two', 'kiln-two'],
    ['con', 'con'],
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
  test('two photos of one name: the first keeps it, later ones get numbers that nobody has', () => {
    const photo = (id: number, title: string) => ({ id, fileName: `${id}.jpg`, words: { title, alt: '' } });
    const names = speakingNames(
      slugsOf([photo(9, 'Bay'), photo(2, 'Bay'), photo(3, 'Bay 2'), photo(5, 'bay!')]),
    );
    expect(Object.fromEntries(names)).toEqual({ 2: 'bay', 3: 'bay-2', 5: 'bay-3', 9: 'bay-4' });
  });
  test('neither order nor additions change a name, and a number fits into the length', () => {
    const long = 'Bowls in rows on the drying shelf most of themselves';
    const photos = Array.from({ length: 12 }, (_, i) => ({
      id: i + 1,
      fileName: 'x.jpg',
      words: { title: i % 2 ? long : '', alt: '' },
    }));
    const before = speakingNames(slugsOf(photos.slice(0, 8)));
    const after = speakingNames(slugsOf([...photos].reverse()));
    for (const [id, name] of before) expect(after.get(id)).toBe(name);
    expect(new Set(after.values()).size).toBe(12);
    for (const name of after.values()) expect(name.length).toBeLessThanOrEqual(48);
  });
  test('the whole name', () => {
    const shape = '3:1' as const;
    const variant = {
      ...{ width: 1600, shape, format: 'jpeg' as const },
      contentHash: '3fa91c2e' + '0'.repeat(56),
    };
    expect(variantFileName('bay-at-dusk', 'hero', variant)).toBe('bay-at-dusk-hero-1600w.3fa91c2e.jpg');
    expect(variantFileName('bay-at-dusk', 'hero', variant, 'plain')).toBe('bay-at-dusk-hero-3x1-1600w.jpg');
    expect(variantFileName('bay', 'viewer', { ...variant, shape: 'own' }, 'plain')).toBe(
      'bay-viewer-1600w.jpg',
    );
  });
});

describe('plain names', () => {
  const slots = ['hero', 'wide', 'hero-wide', 'hero-3x1'].map((id) => ({
    ...slotById('hero'),
    id,
    shapes: [
      { shape: '3:1' as const, from: 600, to: null },
      { shape: 'own' as const, from: 0, to: 600 },
    ],
  }));
  const name = (photo: string, slot: string, shape: ShapeId) =>
    variantFileName(photo, slot, { width: 800, shape, format: 'jpeg', contentHash: 'ab' }, 'plain', slots);
  test('are as short as they can be, and never those of another photo, place or shape', () => {
    expect(name('bay', 'wide', 'own')).toBe('bay-wide-800w.jpg');
    const photos = ['bay', 'bay-hero', 'bay-hero-3x1', 'bay-3x1', 'hero'];
    const names = photos.flatMap((photo) =>
      slots.flatMap(({ id, shapes }) => shapes.map(({ shape }) => name(photo, id, shape))),
    );
    expect(new Set(names).size).toBe(photos.length * slots.length * 2);
  });
});

describe('folders', () => {
  const arranged = { options: optionsFor('grid'), container: [{ from: 0, vw: 1, px: 0 }] };
  const slots = ['photos', 'con', 'de', 'pots', 'com1', 'de-2'].map((id) => ({
    ...slotById('grid'),
    id,
    arranged,
  }));
  test('of languages and arrangements collide with nothing, and can be made everywhere', () => {
    const { ofLanguage, ofArrangement } = foldersOf({ languages: ['en', 'de', 'DE', 'pt-BR', 'aux'], slots });
    const all = [...ofLanguage.values(), ...ofArrangement.values()];
    expect(ofLanguage.get('de')).toBe('de');
    expect(ofLanguage.get('pt-BR')).toBe('pt-BR');
    expect(ofArrangement.get('pots')).toBe('pots');
    expect(new Set(['photos', ...all].map((one) => one.toLowerCase())).size).toBe(all.length + 1);
    expect(all.filter(isDeviceName)).toEqual([]);
  });
  test('of languages are the same on every page of a site', () => {
    const languages = ['en', 'de', 'photos'];
    expect(foldersOf({ languages, slots }).ofLanguage).toEqual(
      foldersOf({ languages, slots: [] }).ofLanguage,
    );
  });
  test.each(['con', 'CON', 'aux.jpg', 'nul', 'com1', 'LPT9.tar.gz', 'com¹', 'prn ', 'conin$'])(
    '%s is a device',
    (name) => expect(isDeviceName(name)).toBe(true),
  );
  test.each(['cone', 'con-2', 'auxiliary', 'com', 'com10', 'null', 'a.con'])('%s is none', (name) =>
    expect(isDeviceName(name)).toBe(false),
  );
});

describe('names that have gone out', () => {
  const photo = (id: number, title: string) => ({ id, fileName: `${id}.jpg`, words: { title, alt: '' } });
  const names = (photos: ReturnType<typeof photo>[], published: Record<string, number> = {}) =>
    Object.fromEntries(speakingNames(slugsOf(photos), published));
  test('never change hands, whoever joins with a lower id', () => {
    expect(names([photo(7, 'Bowl')])).toEqual({ 7: 'bowl' });
    expect(names([photo(3, 'Bowl'), photo(7, 'Bowl')], { bowl: 7 })).toEqual({ 3: 'bowl-2', 7: 'bowl' });
  });
  test('with a number stay with it, also when the name before gets free', () => {
    expect(names([photo(7, 'Bowl')], { bowl: 3, 'bowl-2': 7 })).toEqual({ 7: 'bowl-2' });
  });
  test('are kept for a photo that was retitled, and are its own again when it is titled back', () => {
    expect(names([photo(3, 'Jar'), photo(7, 'Bowl')], { bowl: 3 })).toEqual({ 3: 'jar', 7: 'bowl-2' });
    expect(names([photo(3, 'Bowl'), photo(7, 'Bowl')], { bowl: 3, jar: 3 })).toEqual({
      3: 'bowl',
      7: 'bowl-2',
    });
  });
  test('cut to their length with a number are recognised', () => {
    const long = 'A very long title of a bowl that has to be cut somewhere between words';
    const [first, second] = Object.values(names([photo(1, long), photo(2, long)]));
    expect(names([photo(2, long)], { [first!]: 1, [second!]: 2 })).toEqual({ 2: second });
  });
  test('ten thousand photos without a title are named in one pass', () => {
    const many = Array.from({ length: 10_000 }, (_, id) => photo(id, 'Bowl'));
    expect(new Set(Object.values(names(many))).size).toBe(10_000);
  });
});
