// Tables as CSV (RFC 4180), written so that no spreadsheet takes a cell for a formula, and read back as they were.
import Papa from 'papaparse';

/** Marks the text as UTF-8: without it spreadsheets read umlauts in an old encoding. */
export const BYTE_ORDER_MARK = '\uFEFF';

/** What spreadsheets calculate instead of showing it (OWASP, CSV injection), behind any apostrophes. */
const FORMULA = /^'*[=+\-@\t\r\n＝＋－＠]/;

/** An apostrophe before a cell that would be calculated; one more where it has some already, so that reading can take it away. */
export const escapeCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);

/** The cell as it was before `escapeCell`. */
export const unescapeCell = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text;

/** Lines of cells as CSV: byte order mark, comma, CRLF, quotes doubled. */
export const writeCsv = (lines: readonly (readonly string[])[]): string =>
  `${BYTE_ORDER_MARK}${Papa.unparse(
    lines.map((line) => line.map(escapeCell)),
    { newline: '\r\n' },
  )}\r\n`;

/** Lines of cells from CSV as `writeCsv` or a spreadsheet wrote it; empty lines are left out. */
export function readCsv(text: string): string[][] {
  const bare = text.startsWith(BYTE_ORDER_MARK) ? text.slice(1) : text;
  const { data } = Papa.parse<string[]>(bare, { skipEmptyLines: true });
  return data.map((line) => line.map(unescapeCell));
}
