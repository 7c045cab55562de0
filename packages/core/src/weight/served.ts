// Which of several modern formats a picture is served in: the one that needs fewer bytes.
import type { OutputFormat, RowVariant } from '../contract/index.ts';
import { MODERN } from './format.ts';

/** Whether it is a format that not every browser reads. */
export const isModern = (format: OutputFormat): boolean =>
  (MODERN as readonly OutputFormat[]).includes(format);

/** The place of the least sum; the first where one of them is not known yet. */
export function leastOf(sums: readonly (number | null)[]): number {
  if (sums.some((sum) => sum === null)) return 0;
  return sums.reduce<number>((best, sum, at) => (sum! < sums[best]! ? at : best), 0);
}

/**
 * The formats of one shape in one place, in the order in which a browser is offered them: of the modern ones the one
 * with fewer bytes over all widths first, as soon as all are made.
 * @param own the variants of one shape in one place
 */
export function formatsByBytes(own: readonly RowVariant[]): OutputFormat[] {
  const formats = [...new Set(own.map(({ format }) => format))];
  const modern = formats.filter(isModern);
  const sums = modern.map((format) =>
    own
      .filter((v) => v.format === format)
      .reduce<number | null>((sum, { bytes }) => (sum === null || bytes === null ? null : sum + bytes), 0),
  );
  const first = modern[leastOf(sums)];
  const rest = formats.filter((format) => format !== first);
  return first ? [first, ...rest] : rest;
}

/** The formats that markup offers: of two modern ones only the smaller where the policy wants one. */
export function offeredFormats(own: readonly RowVariant[], both: boolean): OutputFormat[] {
  const [first, ...rest] = formatsByBytes(own);
  if (first === undefined) return [];
  return both || !isModern(first) ? [first, ...rest] : [first, ...rest.filter((format) => !isModern(format))];
}
