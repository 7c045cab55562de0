// A page's limit: what it counts, what stays, and what is decided.
import { describe, expect, test } from '@jest/globals';
import type { PhotoRow, RowVariant } from '../contract/index.ts';
import { openIn } from '../plan/set-places.ts';
import { CONTEXT, placed, samplePhoto, sampleRow } from '../testing/sample.ts';
import {
  decisionFor,
  picturesSent,
  planWithin,
  withOneQuality,
  type QualityPoint,
  type SentPicture,
} from './page-limit.ts';
import { pointQualities } from '../weight/point-ladder.ts';
import { formatsByBytes, leastOf, offeredFormats } from '../weight/served.ts';

const PHONE = { viewport: 390, density: 2 };
const rowIn = (id: number, change: Partial<PhotoRow> = {}, slots = ['column']): PhotoRow => {
  const row = sampleRow([], { ...samplePhoto({ id }), placements: placed(...slots), ...change });
  return { ...row, variants: row.variants.map((v) => ({ ...v, bytes: v.width * 50 })) };
};
const points = (scale: number): QualityPoint[] =>
  [0.8, 1.2, 2, 3, 5].map((difference, n) => ({
    quality: 90 - n * 15,
    difference,
    bytes: Math.round(scale * 40_000 * difference ** -1.1),
  }));

describe('pictures of a page', () => {
  test('are the files that the screen is sent, larger ones of more importance', () => {
    const sent = picturesSent([rowIn(1, {}, ['column', 'grid']), rowIn(2)], openIn(), CONTEXT, PHONE);
    expect(sent.map(({ id }) => id)).toEqual(['1 column', '1 grid', '2 column']);
    const [column, grid] = sent as [SentPicture, SentPicture];
    expect(column.bytes).toBe(column.variant.bytes);
    expect(column.importance).toBeGreaterThan(grid.importance);
    expect(sent.every(({ fixed }) => fixed === null)).toBe(true);
  });
  test('say why they stay as they are; what is not made yet is left out', () => {
    const pinned = rowIn(1, { quality: { column: { pinned: 70 } } });
    const unmade = rowIn(2);
    unmade.variants = unmade.variants.map((v) => ({ ...v, bytes: null }));
    const exact = rowIn(3);
    exact.variants = exact.variants.map((v) => ({ ...v, quality: null, difference: 0 }));
    const moving = rowIn(4);
    moving.original = { ...moving.original, frames: 9 };
    const sent = picturesSent([pinned, unmade, exact, moving], openIn(), CONTEXT, PHONE);
    expect(sent.map(({ row, fixed }) => [row.id, fixed])).toEqual([
      [1, 'pinned'],
      [3, 'without loss'],
      [4, 'moves'],
    ]);
  });
});

describe('a limit', () => {
  const pictures = picturesSent([rowIn(1), rowIn(2), rowIn(3)], openIn(), CONTEXT, PHONE);
  const known = new Map(pictures.map(({ id }, n) => [id, points(n + 1)]));
  const now = pictures.reduce((sum, { bytes }) => sum + bytes, 0);
  test('is kept, and no exchange of two points would show less', () => {
    for (const part of [0.5, 0.7, 0.9]) {
      const { plan, least } = planWithin(pictures, known, new Set(), now * part);
      expect(plan.bytes).toBeLessThanOrEqual(now * part);
      expect(plan.over).toBe(0);
      expect(least).toBeLessThan(plan.bytes);
      const seen = pictures.reduce((sum, p) => sum + p.importance * plan.chosen.get(p.id)!.difference, 0);
      expect(plan.difference).toBeCloseTo(seen, 6);
    }
  });
  test('leaves what is kept, and what nothing is known of', () => {
    const [first, second, third] = pictures as [SentPicture, SentPicture, SentPicture];
    const some = new Map([...known].filter(([id]) => id !== third.id));
    const { plan } = planWithin(pictures, some, new Set([first.id]), now * 0.8);
    expect(plan.chosen.get(first.id)!.bytes).toBe(first.bytes);
    expect(plan.chosen.get(third.id)!.bytes).toBe(third.bytes);
    expect(plan.chosen.get(second.id)!.bytes).toBeLessThan(second.bytes);
  });
  test('that can’t be met says by how much, and what the least is', () => {
    const { plan, least } = planWithin(pictures, known, new Set(), 1000);
    expect(plan.over).toBe(plan.bytes - 1000);
    expect(plan.bytes).toBe(least);
  });
  test('becomes a point that is pinned; what stays needs no decision', () => {
    const [first] = pictures as [SentPicture];
    const [, , point] = points(1) as [QualityPoint, QualityPoint, QualityPoint];
    first.row.quality = { column: { target: 'lean', widest: 900 } };
    expect(decisionFor(first, point)).toEqual({
      widest: 900,
      pinned: { format: first.variant.format, quality: point.quality, difference: point.difference },
    });
    const same = { quality: first.variant.quality!, bytes: first.bytes, difference: first.difference };
    expect(decisionFor(first, same)).toBeNull();
    // Neither does what has no quality of its own.
    const exact = { ...first, fixed: 'without loss' as const, variant: { ...first.variant, quality: null } };
    expect(decisionFor(exact, { quality: 0, bytes: first.bytes, difference: 0 })).toBeNull();
  });
  test('with one quality for all is between the points beside it', () => {
    const two = new Map(
      pictures.map(({ id }) => [
        id,
        [
          { quality: 50, bytes: 10_000, difference: 4 },
          { quality: 70, bytes: 40_000, difference: 1 },
        ],
      ]),
    );
    // AVIF at 60, half way on both logarithms.
    expect(withOneQuality(pictures, two, 1.9)).toEqual({ bytes: 60_000, above: 3 });
    expect(withOneQuality(pictures, two, 2.1).above).toBe(0);
    const high = new Map(pictures.map(({ id }) => [id, [{ quality: 80, bytes: 9, difference: 1 }]]));
    expect(withOneQuality(pictures, high, 2).bytes).toBe(27);
  });
});

test('points are asked for at rising qualities within the encoder’s range', () => {
  for (const curve of ['jpeg', 'webp', 'avif'] as const) {
    for (const exposure of [-2, -1, 0] as const) {
      const known = {
        exposure: [exposure, exposure, exposure] as const,
        colour: -11,
        width: 600,
        height: 400,
        density: 1,
      };
      const qualities = pointQualities(curve, known);
      expect(qualities.length).toBeGreaterThan(3);
      expect(qualities).toEqual([...new Set(qualities)].sort((a, b) => a - b));
      expect(qualities[0]).toBeGreaterThanOrEqual(15);
      expect(qualities.at(-1)).toBeLessThanOrEqual(98);
    }
  }
});

describe('of two modern formats', () => {
  const file = (format: RowVariant['format'], bytes: number | null) =>
    ({ ...rowIn(1).variants[0]!, format, bytes }) satisfies RowVariant;
  test('the one with fewer bytes over all widths comes first, as soon as all are made', () => {
    const own = [file('avif', 10), file('avif', 90), file('webp', 40), file('webp', 41), file('jpeg', 1)];
    expect(formatsByBytes(own)).toEqual(['webp', 'avif', 'jpeg']);
    expect(formatsByBytes([...own, file('webp', null)])).toEqual(['avif', 'webp', 'jpeg']);
    expect(offeredFormats(own, true)).toEqual(['webp', 'avif', 'jpeg']);
    expect(offeredFormats(own, false)).toEqual(['webp', 'jpeg']);
  });
  test('nothing is changed where there is one, or none', () => {
    expect(offeredFormats([file('webp', 9), file('png', 1)], false)).toEqual(['webp', 'png']);
    expect(offeredFormats([file('svg', 9)], false)).toEqual(['svg']);
    expect(offeredFormats([], false)).toEqual([]);
    expect(leastOf([3, 2, 2])).toBe(1);
    expect(leastOf([3, null])).toBe(0);
  });
});
