// Cells that spreadsheets would calculate, and the way there and back.
import { describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { chance } from '../chance/chance.ts';
import { BYTE_ORDER_MARK, csvLines, LONGEST_LINE, readCsv, writeCsv } from './csv.ts';

describe('a table as CSV', () => {
  test('is marked as UTF-8, with commas, CRLF and doubled quotes', () => {
    expect(
      writeCsv([
        ['file', 'alt'],
        ['a.jpg', 'Say "oat", please'],
      ]),
    ).toBe(`${BYTE_ORDER_MARK}file,alt\r\na.jpg,"Say ""oat"", please"\r\n`);
  });
  test.each([
    '=HYPERLINK("http://x","y")',
    '+1',
    '-2',
    '@sum',
    '\tcmd',
    '\rcmd',
    "'=1",
    "''=1",
    '＝1',
    ' =1',
    '\u00a0=1',
    '\u200b+1',
    '\ufeff@x',
    "' \u200b\u00a0-1",
    '\u0001=1',
  ])('%j is no formula for a spreadsheet, and is itself again when read', (cell) => {
    const written = writeCsv([['x', cell]]);
    const [[, seen]] = Papa.parse<string[]>(written.slice(1), { skipEmptyLines: true }).data as [string[]];
    expect(seen).toMatch(/^'/);
    expect(readCsv(written)).toEqual([['x', cell]]);
  });
  test('an apostrophe that escapes nothing stays', () => {
    expect(readCsv(writeCsv([["'tis a bowl", "'"]]))).toEqual([["'tis a bowl", "'"]]);
  });
  test('any text comes back', () => {
    const { pick, whole } = chance(7);
    const letters = ['=', '+', "'", '\u200b', '"', ',', '\r\n', '\n', ' ', 'ü', '😀', 'a', '@', ';'];
    for (let n = 0; n < 500; n++) {
      const cell = () => Array.from({ length: whole(1, 6) }, () => pick(letters)).join('');
      const lines = [
        ['head', 'of'],
        [cell(), cell()],
        ['x', cell()],
      ];
      expect(readCsv(writeCsv(lines))).toEqual(lines);
    }
  });
  test('long tables come back whole, wherever a block or a piece ends', () => {
    const { whole } = chance(9);
    const lines = Array.from({ length: 3_000 }, (_, n) => [
      String(n),
      `${'kiln "and"\r\nglaze '.repeat(whole(0, 40))}x`,
    ]);
    const text = writeCsv(lines);
    expect(text.length).toBeGreaterThan(3 * LONGEST_LINE);
    expect(readCsv(text)).toEqual(lines);
    const numbers = Array.from(csvLines(text), ({ line }) => line);
    const breaks = lines.map(([, cell]) => 1 + cell!.split('\r\n').length - 1);
    expect(numbers.at(-1)).toBe(1 + breaks.slice(0, -1).reduce((sum, more) => sum + more, 0));
  });
});
