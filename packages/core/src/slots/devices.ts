// The table of device classes that widths are planned for. A documented default; shares are invented but plausible.
import type { DeviceClass } from '../contract/index.ts';
import { csvLines, writeCsv } from '../csv/csv.ts';

export const DEFAULT_DEVICES: readonly DeviceClass[] = [
  { name: 'small phone', viewport: 360, density: 3, share: 0.16 },
  { name: 'phone', viewport: 390, density: 3, share: 0.22 },
  { name: 'large phone', viewport: 430, density: 3, share: 0.14 },
  { name: 'tablet', viewport: 820, density: 2, share: 0.08 },
  { name: 'laptop', viewport: 1280, density: 1, share: 0.1 },
  { name: 'wide laptop', viewport: 1536, density: 1.25, share: 0.12 },
  { name: 'retina laptop', viewport: 1440, density: 2, share: 0.1 },
  { name: 'desktop', viewport: 1920, density: 1, share: 0.08 },
];

/** Densities above 2 count as 2: more pixels than that are not seen at reading distance. */
export const MOST_DENSITY = 2;

/**
 * Browsers load for the density that a screen has. So that one denser than 2 loads what 2× needs, `sizes` tells it a
 * part of the width that is shown: from 2.5× on two thirds, which makes 3× into 2×. A hair less than two thirds, so
 * that rounding never asks for a pixel more than a file has.
 */
export const DENSE_SCREEN = { from: 2.5, share: 0.666 } as const;

/** The width that a screen is told for a display width, both in CSS px. */
export const toldWidth = (display: number, density: number): number =>
  density >= DENSE_SCREEN.from ? display * DENSE_SCREEN.share : display;

/** The phone and the retina laptop that the worktable's totals speak of. */
export const PHONE = { viewport: 390, density: 2 } as const;
export const RETINA_LAPTOP = { viewport: 1440, density: 2 } as const;

const COLUMNS = ['name', 'viewport', 'density', 'share'] as const;
const RANGES = { viewport: [100, 10_000], density: [0.5, 5], share: [0, Infinity] } as const;

/**
 * Reads a device table from CSV (RFC 4180) with the columns name, viewport, density and share, in any order.
 * Shares may be parts of 1, per cent or counts: they come out as parts of 1.
 * @throws RangeError with a sentence that names the line and the column.
 */
export function parseDevices(csv: string): DeviceClass[] {
  const [head, ...lines] = csvLines(csv);
  const names = (head?.cells ?? []).map((name) => name.trim().toLowerCase());
  const missing = COLUMNS.filter((column) => !names.includes(column));
  if (missing.length > 0) {
    throw new RangeError(
      `The table has no column “${missing.join('”, “')}”; it needs ${COLUMNS.join(', ')}.`,
    );
  }
  const rows = lines.map(({ line, cells }, index) => {
    const row = Object.fromEntries(COLUMNS.map((column) => [column, cells[names.indexOf(column)]]));
    const number = (column: keyof typeof RANGES): number => {
      const text = (row[column] ?? '').trim().replace(/%$/, '');
      const value = Number(text);
      const [least, most] = RANGES[column];
      if (text === '' || !Number.isFinite(value) || value < least || value > most) {
        const range = most === Infinity ? `a number from ${least}` : `a number from ${least} to ${most}`;
        throw new RangeError(`Line ${line}, ${column}: “${row[column] ?? ''}” is not ${range}.`);
      }
      return value;
    };
    return {
      name: (row.name ?? '').trim() || `device ${index + 1}`,
      viewport: number('viewport'),
      density: number('density'),
      share: number('share'),
    };
  });
  const total = rows.reduce((sum, { share }) => sum + share, 0);
  if (!(total > 0)) throw new RangeError('The shares add up to nothing; at least one device needs a share.');
  return rows.map((row) => ({ ...row, share: row.share / total }));
}

/** A device table as CSV, as `parseDevices` reads it. */
export const devicesCsv = (devices: readonly DeviceClass[]): string =>
  writeCsv([[...COLUMNS], ...devices.map((device) => COLUMNS.map((column) => String(device[column])))]);
