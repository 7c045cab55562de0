// Counting colours, what kind of picture follows, and what becomes of it.
import { describe, expect, test } from '@jest/globals';
import { samplePhoto } from '../testing/sample.ts';
import { chance } from '../chance/chance.ts';
import { contentOf } from './content.ts';
import { formatsFor, settingsFor } from './format.ts';
import { treatmentOf } from './kind.ts';
import { DEFAULT_POLICY, TARGETS } from './target.ts';

describe('counting colours', () => {
  const pixels = (data: number[], channels: 1 | 2 | 3 | 4) => ({
    data: Uint8Array.from(data),
    width: data.length / channels,
    height: 1,
    channels,
  });
  test('each channel layout; what lies under a clear pixel counts as one colour', () => {
    expect(contentOf(pixels([1, 2, 3, 1, 2, 3, 4, 5, 6], 3))).toEqual({
      colours: 2,
      commonest: 2 / 3,
      common: 1,
    });
    expect(contentOf(pixels([9, 9, 7, 8], 1))).toMatchObject({ colours: 3, commonest: 0.5 });
    expect(contentOf(pixels([9, 0, 7, 0, 7, 255], 2))).toMatchObject({ colours: 2, commonest: 2 / 3 });
    expect(contentOf(pixels([9, 1, 1, 0, 7, 2, 2, 0, 7, 2, 2, 9, 7, 2, 2, 255], 4)).colours).toBe(3);
  });
  test('the 64 commonest colours cover their part', () => {
    // 64 colours ten times each, then 160 colours once.
    const data = [
      ...Array.from({ length: 640 }, (_, i) => i % 64),
      ...Array.from({ length: 160 }, (_, i) => 64 + i),
    ];
    expect(contentOf(pixels(data, 1))).toEqual({ colours: 224, commonest: 10 / 800, common: 640 / 800 });
  });
  test('agrees with counting by a map', () => {
    const luck = chance(4);
    const data = Array.from({ length: 3000 }, () => luck.whole(0, 12));
    const seen = new Map<string, number>();
    for (let i = 0; i < data.length; i += 3) {
      const colour = data.slice(i, i + 3).join();
      seen.set(colour, (seen.get(colour) ?? 0) + 1);
    }
    const counts = [...seen.values()].sort((a, b) => b - a);
    expect(contentOf(pixels(data, 3))).toEqual({
      colours: counts.length,
      commonest: counts[0]! / 1000,
      common: counts.slice(0, 64).reduce((a, b) => a + b, 0) / 1000,
    });
  });
});

const facts = (change: object) => samplePhoto({}, change).original;
const content = { colours: 40_000, commonest: 0.01, common: 0.1 };

describe('kinds', () => {
  test.each([
    ['a photo from a camera', { content: null }, 'photograph', false, 'A photograph: small errors hide'],
    [
      'a photo stored as PNG',
      { format: 'png', content },
      'photograph',
      false,
      'stored as PNG, 40 000 colours',
    ],
    [
      'a drawing of 12 colours',
      { format: 'png', content: { colours: 12, commonest: 0.6, common: 1 } },
      'flat-graphic',
      true,
      '12 colours in all',
    ],
    [
      'one colour',
      { format: 'png', content: { colours: 1, commonest: 1, common: 1 } },
      'flat-graphic',
      true,
      '1 colour in all',
    ],
    [
      'soft letters',
      { format: 'png', content: { colours: 900, commonest: 0.8, common: 0.95 } },
      'flat-graphic',
      true,
      '64 colours cover 95 %',
    ],
    [
      'a pot on white',
      { format: 'png', content: { colours: 60_000, commonest: 0.8, common: 0.83 } },
      'photograph',
      false,
      'photographic format',
    ],
    [
      'few colours, but stored as JPEG',
      { format: 'jpeg', content: { colours: 200, commonest: 0.8, common: 1 } },
      'photograph',
      false,
      'A photograph',
    ],
    [
      'a logo on glass',
      { format: 'png', transparent: true, content: { colours: 90, commonest: 0.8, common: 0.99 } },
      'transparent-graphic',
      true,
      'lossless, as WebP and PNG',
    ],
    [
      'a cut-out pot',
      { format: 'png', transparent: true, content },
      'transparent-graphic',
      false,
      'JPEG knows no transparency',
    ],
    ['a turning wheel', { format: 'gif', frames: 12, content }, 'animation', false, '12 frames'],
  ] as const)('%s', (_, change, kind, lossless, reason) => {
    expect(treatmentOf(facts(change))).toEqual({ kind, lossless, reason: expect.stringContaining(reason) });
    expect(treatmentOf(facts(change)).reason).toMatch(/\.$/);
  });
  test.each([
    ['photograph', false, 'avif', ['avif', 'jpeg']],
    ['photograph', false, 'webp', ['webp', 'jpeg']],
    ['flat-graphic', true, 'avif', ['webp', 'png']],
    ['transparent-graphic', false, 'avif', ['avif', 'png']],
    ['transparent-graphic', true, 'avif', ['webp', 'png']],
    ['animation', false, 'avif', ['webp', 'gif']],
  ] as const)('%s (lossless: %s) with %s goes out as %j', (kind, lossless, modern, formats) => {
    expect(formatsFor({ kind, lossless }, { modern })).toEqual(formats);
  });
  test('what has a quality is searched for the policy’s target; what is lossless is not', () => {
    const seen = { target: TARGETS[DEFAULT_POLICY.target], density: 1.5, pixels: 400_000 };
    const photograph = { kind: 'photograph', lossless: false } as const;
    for (const format of ['jpeg', 'webp', 'avif'] as const) {
      expect(settingsFor(format, photograph, seen)).toMatchObject({ target: 2, density: 1.5 });
      expect(settingsFor(format, photograph, seen).quality).toBeUndefined();
    }
    // A large WebP is not searched for as long: who looks at it waits.
    const efforts = [400_000, 1_000_000, 1_000_001].map(
      (pixels) => settingsFor('webp', photograph, { ...seen, pixels }).effort,
    );
    expect(efforts).toEqual([6, 6, 4]);
    const flat = { kind: 'flat-graphic', lossless: true } as const;
    expect(settingsFor('png', flat, seen)).toMatchObject({ lossless: true, palette: true });
    expect(settingsFor('webp', flat, seen)).toMatchObject({ lossless: true });
    expect(settingsFor('jpeg', photograph, { ...seen, target: TARGETS.lean }).target).toBe(3);
  });
});
