import { describe, expect, test } from '@jest/globals';
import { wordsCsv } from '../markup/manifest.ts';
import { openIn } from '../plan/set-places.ts';
import { sampleRow, slotById } from '../testing/sample.ts';
import { LONGEST_TEXT } from './text/text.ts';
import { NO_WORDS } from './no-words.ts';
import { matched, placesMeant, readWordsFile, wordsChange } from './words-file.ts';

describe('a table of words', () => {
  test('names its columns in any order and spelling', () => {
    const { lines, unknown, problem } = readWordsFile(
      'Alt-Text;File Name\nx;y\n'.replaceAll(';', ',') + 'A bowl.,photos\\GM_1.JPG\n,b.jpg\n',
    );
    expect(problem).toBeNull();
    expect(unknown).toEqual([]);
    expect(lines.map(({ fileName, words, line }) => [line, fileName, words])).toEqual([
      [2, 'y', { alt: 'x' }],
      [3, 'GM_1.JPG', { alt: 'A bowl.' }],
      [4, 'b.jpg', {}],
    ]);
  });
  test('says what it can’t read, line by line', () => {
    const { lines, unknown } = readWordsFile(
      `file,role,link,stars\na.jpg,pretty,,5\nb.jpg,,javascript:x,\n,informs,,\nc.jpg,Decorative,/shop,\n`,
    );
    expect(unknown).toEqual(['stars']);
    expect(lines.map(({ problem }) => problem)).toEqual([
      '“pretty” is no role.',
      'A picture can’t lead to “javascript:” addresses.',
      'The line names no file.',
      null,
    ]);
    expect(lines[3]!.words).toEqual({ role: 'decorative', link: '/shop' });
  });
  test.each([
    ['', 'The file is empty.'],
    ['alt\nx', 'No column names the files.'],
    ['PK\u0003\u0000', 'This is no table'],
    [`file\n${'a.jpg\n'.repeat(20_001)}`, 'The table has more than 20000 lines'],
  ])('refuses %j', (text, sentence) => expect(readWordsFile(text).problem).toContain(sentence));
  test('what was written is read as it was: quotes, umlauts, emoji, line breaks, formulas, right to left', () => {
    const words = {
      ...NO_WORDS,
      role: 'complex' as const,
      alt: '=2+3 “größer” 🏺',
      caption: 'a,"b"',
      title: 'مزهرية خضراء',
      longDescription: 'One\n\n| a | b |\n| --- | --- |\n| 1 | 2 |',
      link: '/shop?a=1',
      newWindow: true,
    };
    const { lines } = readWordsFile(wordsCsv([sampleRow(['grid'], { words })]));
    expect(lines[0]!.words).toEqual({ ...words, credit: undefined, kept: undefined });
    expect(lines[0]!.hash).toBe('ab'.repeat(32));
  });
});

describe('words of single places', () => {
  const column = { id: 'column', name: 'Text column' };
  test('are written in columns of their own, and read as they were', () => {
    const [first, second] = [1, 2].map((id) => sampleRow(['column', 'grid'], { id }));
    const here = { alt: 'The bay, here', caption: '=1+1', link: '/here' };
    const rows = [{ ...first!, placements: [{ slot: 'column', link: '', words: here, crops: {} }] }, second!];
    const csv = wordsCsv(rows, { slots: [slotById('column'), slotById('grid')], setPlaces: openIn('grid') });
    expect(csv.split('\r\n')[0]).toMatch(/,place,alt text in Text column,caption in Text column$/);
    const { lines, unknown } = readWordsFile(csv);
    expect(unknown).toEqual([]);
    expect(lines[0]!.here).toEqual([
      { place: 'Text column', words: { alt: 'The bay, here', caption: '=1+1' } },
    ]);
    expect(lines[1]!.here).toBeUndefined();
    expect(placesMeant(['text COLUMN'], [column]).slots).toEqual(['column']);
  });
  test.each([
    ['Alt text  IN  the shop in town', 'the shop in town'],
    ['Bildunterschrift in Titelbild', 'Titelbild'],
  ])('head %j', (head, place) => {
    expect(readWordsFile(`file,${head}\na.jpg,Said\n`).lines[0]!.here).toMatchObject([{ place }]);
  });
  test.each(['role in Hero', 'in Hero', 'alt text in', 'alt text into Hero', `alt ${' '.repeat(90)}in`])(
    '%j is no head of them',
    (head) => {
      const { lines, unknown } = readWordsFile(`file,${head}\na.jpg,Said\n`);
      expect([lines[0]!.here, unknown.length]).toEqual([undefined, 1]);
    },
  );
  test('too long a text is said, as elsewhere', () => {
    const { lines } = readWordsFile(`file,alt in Hero\na.jpg,${'x'.repeat(LONGEST_TEXT + 1)}\n`);
    expect(lines[0]!.problem).toMatch(/longer than/);
  });
});

describe('matching', () => {
  const photos = [
    { id: 1, fileName: 'A.JPG', hash: 'aa'.repeat(32) },
    { id: 2, fileName: 'b.jpg', hash: 'bb'.repeat(32) },
    { id: 3, fileName: 'a.jpg', hash: 'cc'.repeat(32) },
  ];
  test('by hash before the name; a name of several is not clear; a stranger is none', () => {
    const { lines } = readWordsFile(`file,sha256\nx.jpg,${'CC'.repeat(32)}\na.jpg,\nB.JPG,\nz.jpg,\n`);
    expect(matched(lines, photos).map((line) => line.photos)).toEqual([[3], [1, 3], [2], []]);
  });
  test('nothing that is said is overwritten unasked', () => {
    const now = { ...NO_WORDS, role: 'informative' as const, alt: 'Mine', caption: ' ' };
    expect(wordsChange(now, { role: 'informative', alt: 'Theirs', caption: 'New', newWindow: true })).toEqual(
      {
        added: { caption: 'New', newWindow: true },
        conflicts: { alt: 'Theirs' },
      },
    );
  });
  test('places by name or short name', () =>
    expect(
      placesMeant(
        ['Text column', 'grid', 'moon'],
        [
          { id: 'column', name: 'Text column' },
          { id: 'grid', name: 'Square thumbnail grid' },
        ],
      ),
    ).toEqual({ slots: ['column', 'grid'], unknown: ['moon'] }));
});

describe('a table that is made to take long', () => {
  test('is read once over, whatever it is: columns nobody knows are not walked, lines and cells have limits', () => {
    const wide = `file${',x'.repeat(990)}\n${'a\n'.repeat(19_999)}`;
    expect(readWordsFile(wide).lines).toHaveLength(19_999);
    expect(readWordsFile(wide).unknown).toHaveLength(50);
  });
  test.each([
    ['of many columns', `file${',x'.repeat(20_000)}\n${'a\n'.repeat(20_000)}`, /has 20001 cells/],
    ['of one long line', `file\n${'a'.repeat(400_000)}`, /Line 2 is longer/],
    ['whose quote is never closed', `file,alt\na.jpg,"${'never '.repeat(80_000)}`, /Line 2 is longer/],
    ['of many lines', `file\n${'a.jpg\r\n'.repeat(20_001)}`, /more than 20000 lines/],
    ['whose head is a long line of commas', ','.repeat(3_000_000), /longer|cells/],
  ])('%s is refused', (_, text, sentence) => expect(readWordsFile(text).problem).toMatch(sentence));
  test('of one line that names a million places takes none of them', () => {
    const { lines } = readWordsFile(
      `file,place\n${'b.jpg,shop\n'.repeat(10)}a.jpg,"${'x;'.repeat(50_000)}"\n`,
    );
    expect(lines[10]!.problem).toContain('50000 places');
  });
  test('heads that objects know are heads like any other', () => {
    const { unknown, lines } = readWordsFile('file,constructor,__proto__,role\na.jpg,1,2,constructor\n');
    expect(unknown).toEqual(['constructor', '__proto__']);
    expect(lines[0]!.problem).toBe('“constructor” is no role.');
  });
});

test('lines are counted as editors of text count them: behind blank ones, and ones with breaks inside', () => {
  const { lines } = readWordsFile('\r\nfile,alt\r\n\r\na.jpg,"one\r\ntwo"\r\n\r\nb.jpg,three\r\n');
  expect(lines.map(({ line, fileName }) => [line, fileName])).toEqual([
    [4, 'a.jpg'],
    [7, 'b.jpg'],
  ]);
});
