// Tables as CSV (RFC 4180), written so that no spreadsheet takes a cell for a formula, and read back as they were.
import Papa from 'papaparse';

/** Marks the text as UTF-8: without it spreadsheets read umlauts in an old encoding. */
export const BYTE_ORDER_MARK = '\uFEFF';

/** Characters of one line, and its cells; what is longer is no line of a table that people fill in. */
export const LONGEST_LINE = 250_000;
export const MOST_CELLS = 1_000;

/**
 * What spreadsheets calculate instead of showing it (OWASP, CSV injection): behind apostrophes, spaces of any kind and
 * characters that nobody sees, which programs strip before they look.
 */
const FORMULA = /^['\s\p{Z}\p{C}]*[=+\-@\t\r\n＝＋－＠]/u;

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

/** A line of a table, with the number that editors of text show beside it, from 1. */
export interface CsvLine {
  line: number;
  cells: string[];
}

/** Lines that are parsed at a time. */
const BLOCK = 200;

const lineBreaksIn = (cells: readonly string[]): number =>
  cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);

/** The first `most` lines of a piece of text, and where the next one begins in it. */
const parsed = (piece: string, most: number, { delimiter, newline }: Separators) =>
  // The quick way of the parser counts its place wrongly where it stops early.
  Papa.parse<string[]>(piece, { preview: most, fastMode: false, delimiter, newline });

interface Separators {
  delimiter: string;
  newline: '\r\n' | '\n' | '\r' | undefined;
}

/**
 * Lines of CSV as `writeCsv` or a spreadsheet wrote it, read block by block as they are asked for: whoever reads a long
 * table can let others have their turn between them. Empty lines are left out, and counted.
 * @throws RangeError with a sentence for a line that is too long, or has too many cells
 */
export function* csvLines(text: string): Generator<CsvLine, void, void> {
  let at = text.startsWith(BYTE_ORDER_MARK) ? 1 : 0;
  let line = 1;
  // Found by the first block, and the same for all.
  let separators: Separators = { delimiter: '', newline: undefined };
  while (at < text.length) {
    const piece = text.slice(at, at + LONGEST_LINE);
    const isEnd = at + piece.length === text.length;
    let { data, meta } = parsed(piece, BLOCK, separators);
    separators = { delimiter: meta.delimiter, newline: meta.linebreak as Separators['newline'] };
    if (!isEnd && (data.length < BLOCK || meta.cursor >= piece.length)) {
      // The last line may go on beyond the piece: it is read with the next one.
      if (data.length < 2) throw new RangeError(`Line ${line} is longer than ${LONGEST_LINE} characters.`);
      ({ data, meta } = parsed(piece, data.length - 1, separators));
    }
    for (const cells of data) {
      if (cells.length > MOST_CELLS)
        throw new RangeError(`Line ${line} has ${cells.length} cells; ${MOST_CELLS} can be read.`);
      if (cells.length > 1 || cells[0] !== '') yield { line, cells: cells.map(unescapeCell) };
      line += 1 + lineBreaksIn(cells);
    }
    at += meta.cursor;
  }
}

/** All lines of cells of CSV, see `csvLines`. @throws RangeError likewise */
export const readCsv = (text: string): string[][] => Array.from(csvLines(text), ({ cells }) => cells);
