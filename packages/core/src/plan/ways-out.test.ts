// The ways out of a budget that can't be met: their order, what each is, and what it is expected to weigh.
import { describe, expect, test } from '@jest/globals';
import type { StoredFacts } from '../contract/index.ts';
import { chosenWidth } from '../source/choice.ts';
import { CONTEXT, sampleContext, samplePhoto, slotById } from '../testing/sample.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { planPhoto } from './plan.ts';
import { waysOut } from './ways-out.ts';
import { openIn } from './set-places.ts';

/** Everything stored, at so many bytes a pixel to the power 0.75. */
function storedAt(
  factor: number,
  slots: Parameters<typeof planPhoto>[1],
  policy = DEFAULT_POLICY,
  photo = samplePhoto(),
) {
  const facts = new Map<string, StoredFacts>();
  for (const { key, width, height } of planPhoto(photo, slots, sampleContext(policy))) {
    const bytes = Math.round(factor * (width * height) ** 0.75);
    facts.set(key, { bytes, contentHash: key, quality: 60, difference: 1.95 });
  }
  return (key: string) => facts.get(key);
}

describe('ways out', () => {
  const photo = samplePhoto();
  test('none while the file is within its budget, or not made', () => {
    expect(waysOut(photo, slotById('column'), CONTEXT, storedAt(0.5, openIn('column')))).toBeNull();
    expect(waysOut(photo, slotById('column'), CONTEXT, () => undefined)).toBeNull();
  });
  test('in the domain’s order, each with its file, bytes and D', () => {
    // A phone shows 173 px of the grid at 2×: it is sent 346 px of 240, 346, 386 and 510; about 26 kB here, of 15 kB.
    const found = waysOut(photo, slotById('grid'), CONTEXT, storedAt(4, openIn('grid')))!;
    expect(found).toMatchObject({
      budget: 15_000,
      bytes: Math.round(4 * 346 ** 1.5),
      variant: { width: 346, format: 'avif' },
    });
    expect(found.ways.map((way) => way.way)).toEqual(['smaller-set', 'lower-target', 'fewer-pixels']);
    const [smaller, lower, fewer] = found.ways;
    // Any larger file would be loaded instead.
    expect(smaller).toMatchObject({ widths: [240], variant: { width: 240 }, fits: true });
    expect(smaller!.expected).toEqual({ bytes: Math.round(4 * 240 ** 1.5), difference: 1.95 });
    expect(lower).toMatchObject({ widths: [240, 346, 386, 510], variant: { width: 346 } });
    expect(lower!.variant.settings.target).toBe(3);
    expect(lower!.expected!.difference).toBeCloseTo(2.925, 6);
    expect(fewer!.fits).toBe(true);
    for (const { variant, expected, sentence } of found.ways) {
      expect(variant.slot).toBe('grid');
      expect(expected!.bytes).toBeLessThan(found.bytes);
      expect(sentence).toMatch(/about \d+ kB instead of 26 kB\.$/);
    }
  });
  test('fewer pixels: the widest file that fits, and the phone does load it', () => {
    // 720 × 480 px of the text column, about 71 kB, of 50 kB; there is no smaller file to fall back on.
    const found = waysOut(photo, slotById('column'), CONTEXT, storedAt(5, openIn('column')))!;
    expect(found.ways.map((way) => way.way)).toEqual(['lower-target', 'fewer-pixels']);
    const { variant, expected, widths } = found.ways.at(-1)!;
    // The stored files follow (w²)^0.75: so do the expected ones.
    expect(expected!.bytes / found.bytes).toBeCloseTo((variant.width / 720) ** 1.5, 3);
    expect(expected!.bytes).toBeLessThanOrEqual(50_000);
    expect(found.bytes * ((variant.width + 1) / 720) ** 1.5).toBeGreaterThan(50_000);
    expect(chosenWidth(widths, 358, 2)).toBe(variant.width);
  });
  test('never below 1×: then the way says that it does not fit', () => {
    const found = waysOut(photo, slotById('column'), CONTEXT, storedAt(40, openIn('column')))!;
    expect(found.ways.at(-1)!.variant.width).toBe(358);
    expect(found.ways.map((way) => way.fits)).toEqual([false, false]);
  });
  test('each is a decision: taken, a phone is sent just the file that it showed', () => {
    const decided = samplePhoto({ quality: { grid: { format: 'webp' } } });
    const stored = storedAt(4, openIn('grid'), DEFAULT_POLICY, decided);
    const { ways } = waysOut(decided, slotById('grid'), CONTEXT, stored)!;
    expect(ways.map(({ decision }) => decision)).toEqual([
      { format: 'webp', widest: 240 },
      { format: 'webp', target: 'lean' },
      { format: 'webp', widest: expect.any(Number) },
    ]);
    for (const { decision, variant, widths } of ways) {
      const after = planPhoto(samplePhoto({ quality: { grid: decision } }), openIn('grid'), CONTEXT);
      expect(after.map(({ key }) => key)).toContain(variant.key);
      expect([...new Set(after.map(({ width }) => width))]).toEqual(widths);
    }
  });
  test('for an animation one frame of it, of which nothing tells what it weighs', () => {
    const moving = samplePhoto({}, { frames: 12, format: 'gif' });
    const found = waysOut(
      moving,
      slotById('grid'),
      CONTEXT,
      storedAt(5, openIn('grid'), DEFAULT_POLICY, moving),
    )!;
    expect(found.ways.at(-2)).toMatchObject({
      way: 'fewer-frames',
      decision: { every: 2 },
      what: '6 frames of its 12, at the same pace.',
      variant: { format: 'webp', settings: { every: 2 } },
    });
    const halved = samplePhoto({ quality: { grid: { every: 8 } } }, { frames: 12, format: 'gif' });
    const again = waysOut(
      halved,
      slotById('grid'),
      CONTEXT,
      storedAt(5, openIn('grid'), DEFAULT_POLICY, halved),
    )!;
    expect(again.ways.map(({ way }) => way)).not.toContain('fewer-frames');
    expect(found.ways.at(-1)).toMatchObject({
      way: 'still',
      decision: { still: true },
      expected: null,
      fits: null,
      variant: { format: 'avif', settings: { still: true } },
    });
  });
  test('at the lowest target there is no lower one', () => {
    const lean = { ...DEFAULT_POLICY, target: 'lean' as const };
    const found = waysOut(photo, slotById('grid'), sampleContext(lean), storedAt(5, openIn('grid'), lean))!;
    expect(found.ways.map((way) => way.way)).toEqual(['smaller-set', 'fewer-pixels']);
  });
  test('what is lossless has no target to lower', () => {
    const flat = samplePhoto({}, { format: 'png', content: { colours: 9, commonest: 0.5, common: 1 } });
    const found = waysOut(
      flat,
      slotById('grid'),
      CONTEXT,
      storedAt(5, openIn('grid'), DEFAULT_POLICY, flat),
    )!;
    expect(found.ways.map((way) => way.way)).toEqual(['smaller-set', 'fewer-pixels']);
    expect(found.variant.format).toBe('webp');
  });
});
