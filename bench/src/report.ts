// Prints a benchmark's table and writes the same figures to bench/results.
import { mkdir, writeFile } from 'node:fs/promises';
import { cpus } from 'node:os';
import { resolve } from 'node:path';

export const ROOT = resolve(import.meta.dirname, '../..');

export type Figures = Record<string, string | number | boolean | null>;

/** One row a line of the table. Ratios, not seconds, are what may be compared between machines. */
export async function report(name: string, about: string, rows: Figures[], summary: Figures): Promise<void> {
  console.log(`\n${name}: ${about}`);
  console.table(rows);
  console.log(summary);
  const folder = resolve(ROOT, 'bench/results');
  await mkdir(folder, { recursive: true });
  const machine = { cores: cpus().length, node: process.version };
  await writeFile(
    resolve(folder, `${name}.json`),
    `${JSON.stringify({ about, machine, summary, rows }, null, 2)}\n`,
  );
}

/** For tables: a number with so many decimal places at most. */
export const rounded = (value: number, places = 3): number => Number(value.toFixed(places));

/** The middle value, the upper of two. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1]!;

export const seconds = (from: number): number => Math.round((performance.now() - from) / 10) / 100;
