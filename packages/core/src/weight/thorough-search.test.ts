// The thorough search on made-up pictures whose truth is known: never worse than the quick one, near the least, in few encodes.
import { describe, expect, test } from '@jest/globals';
import { chance, type Chance } from '../chance/chance.ts';
import { typicalLog, type LossyFormat } from './curves.ts';
import { predictedOffset, type Features } from './prediction.ts';
import { MOST_ENCODES } from './search.ts';
import { ThoroughSearch } from './thorough-search.ts';
import { recipeKey } from './recipes.ts';
import { VariantSearch, type Trial, type VariantAttempt } from './variant-search.ts';

const FORMATS: LossyFormat[] = ['jpeg', 'webp', 'avif'];
const FEATURES: Features = { exposure: [-1, -1, -1], colour: -10, width: 600, height: 400, density: 1 };
const TARGET = 2;

/** What an encoder does to a picture: every recipe has a gain of its own, and a quality scale of its own. */
function encoder(luck: Chance, format: LossyFormat): (trial: Trial) => VariantAttempt {
  const miss = (luck.next() - 0.5) * 0.5;
  const memory = new Map<string, { gain: number; shift: number }>();
  const bumps = Array.from({ length: 101 }, () => (luck.next() - 0.5) * 0.02);
  return (trial) => {
    const { quality } = trial;
    const name = recipeKey(trial);
    const own = memory.get(name) ?? { gain: 0.75 + luck.next() * 0.5, shift: (luck.next() - 0.5) * 14 };
    memory.set(name, own);
    const curve = format === 'jpeg' && trial.fullChroma ? 'jpegFull' : format;
    const logD =
      typicalLog(curve, quality - own.shift) + predictedOffset(curve, FEATURES) + miss + bumps[quality]!;
    const difference = Math.exp(logD);
    return { ...trial, difference, bytes: Math.round(60_000 * own.gain * Math.exp(-1.1 * logD)) };
  };
}

function run<T extends VariantSearch | ThoroughSearch>(search: T, at: (trial: Trial) => VariantAttempt): T {
  for (let trial = search.next; trial; trial = search.next) search.take(at(trial));
  return search;
}

describe.each(FORMATS)('a thorough search for %s', (format) => {
  test('is never worse than the quick one, and within the target where that is', () => {
    const luck = chance(7);
    let smaller = 0;
    for (let i = 0; i < 300; i++) {
      const at = encoder(luck, format);
      const quick = run(new VariantSearch(format, TARGET, FEATURES), at).best!;
      const thorough = run(new ThoroughSearch(format, TARGET, FEATURES), at).best!;
      if (quick.difference <= TARGET) {
        expect(thorough.difference).toBeLessThanOrEqual(TARGET);
        expect(thorough.bytes).toBeLessThanOrEqual(quick.bytes);
      } else expect(thorough.difference).toBeLessThanOrEqual(quick.difference);
      if (thorough.bytes < quick.bytes) smaller += 1;
    }
    // With one recipe more of a gain of its own, better or worse by chance, and less slack.
    expect(smaller).toBeGreaterThan(150);
  });
  test('begins as the quick one does, and ends', () => {
    const luck = chance(8);
    for (let i = 0; i < 100; i++) {
      const at = encoder(luck, format);
      const quick = run(new VariantSearch(format, TARGET, FEATURES), at).attempts;
      const { attempts } = run(new ThoroughSearch(format, TARGET, FEATURES), at);
      expect(attempts.slice(0, quick.length)).toEqual(quick);
      const recipes = new Set(attempts.slice(quick.length).map(recipeKey));
      expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES + 6 * recipes.size);
    }
  });
  test('of the recipes that it tries, the best is within some per cent of its own least', () => {
    const luck = chance(9);
    const ratios: number[] = [];
    for (let i = 0; i < 200; i++) {
      const at = encoder(luck, format);
      const { best } = run(new ThoroughSearch(format, TARGET, FEATURES), at);
      if (best!.difference > TARGET) continue;
      const within = Array.from({ length: 80 }, (_, q) => at({ ...best!, quality: q + 18 })).filter(
        ({ difference }) => difference <= TARGET,
      );
      ratios.push(best!.bytes / Math.min(...within.map(({ bytes }) => bytes)));
    }
    ratios.sort((a, b) => a - b);
    expect(ratios.length).toBeGreaterThan(150);
    expect(ratios[Math.floor(ratios.length / 2)]).toBeLessThan(1.03);
  });
});

test('a recipe that fails with more bytes than another needs is given up at once', () => {
  const luck = chance(10);
  const at = encoder(luck, 'webp');
  const dear = (trial: Trial) => {
    const attempt = at(trial);
    return trial.sharpChroma ? { ...attempt, difference: 9, bytes: 900_000 } : attempt;
  };
  const { attempts } = run(new ThoroughSearch('webp', TARGET, FEATURES), dear);
  expect(attempts.filter((a) => a.sharpChroma)).toHaveLength(1);
});
