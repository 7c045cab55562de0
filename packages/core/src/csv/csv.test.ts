// Cells that spreadsheets would calculate, and the way there and back.
import { describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { chance } from '../chance/chance.ts';
import { BYTE_ORDER_MARK, readCsv, writeCsv } from './csv.ts';

describe('a table as CSV', () => {
  test('is marked as UTF-8, with commas, CRLF and doubled quotes', () => {
    expect(
      writeCsv([
        ['file', 'alt'],
        ['a.jpg', 'Say "oat", please'],
      ]),
    ).toBe(`${BYTE_ORDER_MARK}file,alt\r\na.jpg,"Say ""oat"", please"\r\n`);
  });
  test.each(['=HYPERLINK("http://x","y")', '+1', '-2', '@sum', '\tcmd', '\rcmd', "'=1", "''=1", '＝1'])(
    '%j is no formula for a spreadsheet, and is itself again when read',
    (cell) => {
      const written = writeCsv([['x', cell]]);
      const [[, seen]] = Papa.parse<string[]>(written.slice(1), { skipEmptyLines: true }).data as [string[]];
      expect(seen).toMatch(/^'/);
      expect(readCsv(written)).toEqual([['x', cell]]);
    },
  );
  test('an apostrophe that escapes nothing stays', () => {
    expect(readCsv(writeCsv([["'tis a bowl", "'"]]))).toEqual([["'tis a bowl", "'"]]);
  });
  test('any text comes back', () => {
    const { pick, whole } = chance(7);
    const letters = ['=', '+', "'", '"', ',', '\r\n', '\n', ' ', 'ü', '😀', 'a', '@', ';'];
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
});
