// Quality search on curves whose truth is known: few encodes, the target met, hardly more bytes than the least.
import { describe, expect, test } from '@jest/globals';
import { chance, type Chance } from '../chance/chance.ts';
import { QUALITY_RANGE, typicalLog, typicalQuality, type Curve, type LossyFormat } from './curves.ts';
import { predictedOffset, type Features } from './prediction.ts';
import { bestOf, MOST_ENCODES, offsetOf, QualitySearch, type Attempt } from './search.ts';
import { VariantSearch, type Trial } from './variant-search.ts';

const CURVES: Curve[] = ['jpeg', 'jpegFull', 'webp', 'avif'];

/** A picture: D and bytes by quality, with a slope of its own and small bumps. */
function picture(luck: Chance, curve: Curve, spread = 0.2): (quality: number) => Attempt {
  const offset = (luck.next() + luck.next() - 1) * 2.4 * spread;
  const steep = 0.85 + luck.next() * 0.3;
  const bumps = Array.from({ length: 101 }, () => (luck.next() - 0.5) * 0.03);
  return (quality) => {
    const logD = 0.7 + (typicalLog(curve, quality) - 0.7) * steep + offset;
    return {
      quality,
      difference: Math.exp(logD + bumps[quality]!),
      bytes: Math.round(50_000 * Math.exp(-1.1 * logD)),
    };
  };
}

function run(search: QualitySearch, at: (quality: number) => Attempt): QualitySearch {
  while (search.next !== null) search.take(at(search.next));
  return search;
}

describe('typical curves', () => {
  test.each(CURVES)('%s falls with quality, and both directions agree', (curve) => {
    const [low, high] = QUALITY_RANGE[curve];
    for (let quality = low; quality <= high; quality++) {
      if (quality > low) expect(typicalLog(curve, quality)).toBeLessThan(typicalLog(curve, quality - 1));
      expect(typicalQuality(curve, typicalLog(curve, quality))).toBeCloseTo(quality, 6);
    }
  });
  test('an offset is what an attempt lies above the curve', () => {
    const difference = Math.exp(typicalLog('avif', 58) + 0.3);
    expect(offsetOf('avif', { quality: 58, difference })).toBeCloseTo(0.3, 9);
    expect(Number.isFinite(offsetOf('avif', { quality: 58, difference: 0 }))).toBe(true);
  });
});

describe('search', () => {
  test.each(CURVES)('%s: at most 4 encodes on average and 5 at most, always within the target', (curve) => {
    const luck = chance(51);
    let encodes = 0;
    let lost = 0;
    const rounds = 400;
    for (let i = 0; i < rounds; i++) {
      const at = picture(luck, curve);
      const target = luck.pick([1.3, 2, 3]);
      const { attempts } = run(new QualitySearch({ curve, target, offset: 0 }), at);
      const best = bestOf(attempts, target)!;
      const [low, high] = QUALITY_RANGE[curve];
      const good = Array.from({ length: high - low + 1 }, (_, k) => at(low + k)).filter(
        (a) => a.difference <= target,
      );
      expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
      encodes += attempts.length;
      if (good.length === 0) continue;
      expect(best.difference).toBeLessThanOrEqual(target);
      lost += best.bytes / Math.min(...good.map((a) => a.bytes)) - 1;
    }
    expect(encodes / rounds).toBeLessThanOrEqual(4);
    // What stopping near the target costs in bytes, on average.
    expect(lost / rounds).toBeLessThan(0.08);
  });
  test('a right prediction needs one encode', () => {
    const at = (quality: number) => ({
      quality,
      bytes: 1,
      difference: Math.exp(typicalLog('avif', quality) + 0.4),
    });
    expect(run(new QualitySearch({ curve: 'avif', target: 2, offset: 0.4 }), at).attempts).toHaveLength(1);
  });
  test('after two encodes less is asked of a file, unless it was said how near it must be', () => {
    /** Whether the search goes on when files come out with these differences. */
    const goesOn = (differences: number[], near?: number) => {
      const search = new QualitySearch({ curve: 'jpeg', target: 2, offset: 0, ...(near && { near }) });
      for (const difference of differences) search.take({ quality: search.next!, bytes: 1000, difference });
      return search.next !== null;
    };
    expect(goesOn([1.65])).toBe(true);
    expect(goesOn([2.4, 1.65])).toBe(false);
    expect(goesOn([2.4, 1.55])).toBe(true);
    expect(goesOn([2.4, 1.65], 0.975)).toBe(true);
  });
  test('no quality is tried twice, and each lies between what failed and what met the target', () => {
    const luck = chance(52);
    for (let i = 0; i < 300; i++) {
      const curve = luck.pick(CURVES);
      const at = picture(luck, curve, 0.6);
      const { attempts } = run(new QualitySearch({ curve, target: 2, offset: luck.next() - 0.5 }), at);
      expect(new Set(attempts.map((a) => a.quality)).size).toBe(attempts.length);
      for (const [k, { quality }] of attempts.entries()) {
        const before = attempts.slice(0, k);
        for (const a of before) {
          if (a.difference > 2) expect(quality).toBeGreaterThan(a.quality);
        }
      }
    }
  });
  test('a picture that nothing meets ends at the highest quality, with the least difference', () => {
    const at = (quality: number) => ({ quality, bytes: quality, difference: 9 - quality / 100 });
    const { attempts } = run(new QualitySearch({ curve: 'jpeg', target: 2, offset: 0 }), at);
    expect(bestOf(attempts, 2)!.quality).toBe(97);
    expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
  });
  test('a picture that everything meets ends at the lowest quality or the last encode', () => {
    const at = (quality: number) => ({ quality, bytes: quality, difference: 0.01 + quality / 1e4 });
    const { attempts } = run(new QualitySearch({ curve: 'webp', target: 3, offset: 0 }), at);
    expect(attempts.at(-1)!.quality).toBe(QUALITY_RANGE.webp[0]);
    // An empty field: identical at any quality.
    const empty = run(new QualitySearch({ curve: 'webp', target: 3, offset: 0 }), (quality) => ({
      quality,
      bytes: 9,
      difference: 0,
    }));
    expect(bestOf(empty.attempts, 3)!.difference).toBe(0);
  });
  test('the best is the smallest within the target, not the last', () => {
    const attempts = [
      { quality: 60, bytes: 50, difference: 1.99 },
      { quality: 61, bytes: 48, difference: 1.9 },
      { quality: 55, bytes: 40, difference: 2.2 },
    ];
    expect(bestOf(attempts, 2)!.bytes).toBe(48);
    expect(bestOf(attempts, 1)!.difference).toBe(1.9);
    expect(bestOf([], 1)).toBeNull();
  });
});

const features: Features = {
  exposure: [-0.5, -0.3, -0.2],
  colour: -12.5,
  width: 720,
  height: 480,
  density: 1,
};

function searchVariant(format: LossyFormat, target: number, at: (trial: Trial) => Attempt): VariantSearch {
  const search = new VariantSearch(format, target, features);
  for (let trial = search.next; trial; trial = search.next) search.take({ ...at(trial), ...trial });
  return search;
}

describe('one variant', () => {
  test('a denser file and a busier picture are expected to show less', () => {
    for (const curve of CURVES) {
      const at = (change: Partial<Features>) => predictedOffset(curve, { ...features, ...change });
      expect(at({ density: 2 })).toBeLessThan(at({}) - 0.3);
      expect(at({ exposure: [-1.5, -1.2, -1] })).toBeLessThan(at({}));
    }
  });
  test('a JPEG whose colour is at fault goes over to full colour, in the same number of encodes', () => {
    // Plain: stuck at 2.4 whatever the quality. Full: as typical.
    const { attempts, best } = searchVariant('jpeg', 2, ({ quality, fullChroma }) => ({
      quality,
      bytes: quality * 100,
      difference: fullChroma ? Math.exp(typicalLog('jpegFull', quality)) : 2.4 + (100 - quality) / 500,
    }));
    expect(attempts[0]!.fullChroma).toBe(false);
    expect(best).toMatchObject({ fullChroma: true });
    expect(best!.difference).toBeLessThanOrEqual(2);
    expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
  });
  test('a WebP that more quality does not save is made with sharp colour edges, and only then', () => {
    const { attempts, best } = searchVariant('webp', 2, ({ quality, sharpChroma }) => ({
      quality,
      bytes: quality * 100,
      difference: sharpChroma ? Math.exp(typicalLog('webp', quality)) : 2.3 + (100 - quality) / 500,
    }));
    // More quality hardly helped: that is enough to know.
    expect(attempts.filter(({ sharpChroma }) => !sharpChroma)).toHaveLength(2);
    expect(best).toMatchObject({ sharpChroma: true, fullChroma: true });
    expect(best!.difference).toBeLessThanOrEqual(2);
    expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
  });
  test('a WebP whose curve is flat for a while is within the target at the last', () => {
    // Neither way gains anything below the highest quality.
    const { attempts, best } = searchVariant('webp', 3, ({ quality, sharpChroma }) => ({
      quality,
      bytes: quality * 100,
      difference: quality === 98 ? 2.5 : sharpChroma ? 3.04 : 3.05,
    }));
    expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
    expect(best!.difference).toBe(2.5);
  });
  test('a WebP that nothing saves ends within its encodes, with the least difference', () => {
    const { attempts, best } = searchVariant('webp', 2, ({ quality, sharpChroma }) => ({
      quality,
      bytes: quality * 100,
      difference: (sharpChroma ? 2.1 : 2.3) + (100 - quality) / 500,
    }));
    expect(attempts.length).toBeLessThanOrEqual(MOST_ENCODES);
    expect(best!.difference).toBe(Math.min(...attempts.map(({ difference }) => difference)));
    expect(best).toMatchObject({ sharpChroma: true });
  });
  test('a JPEG that is as expected stays plain; AVIF and WebP have one curve', () => {
    for (const format of ['jpeg', 'webp', 'avif'] as const) {
      const offset = predictedOffset(format, features);
      const { attempts, best } = searchVariant(format, 2.2, ({ quality }) => ({
        quality,
        bytes: quality,
        difference: Math.exp(typicalLog(format, quality) + offset),
      }));
      expect(attempts).toHaveLength(1);
      expect(best!.fullChroma).toBe(format !== 'jpeg');
    }
  });
});
