// The plan: which variants are wanted, and that their keys hold what they must.
import { describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { CONTEXT, placed, sampleContext, sampleFrame, samplePhoto } from '../testing/sample.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import type { OriginalFacts, Photo, Policy, SetPage, SetPlaces } from '../contract/index.ts';
import { formerKeys, PIPELINE_VERSION, thoroughKey, variantKey, type KeyParts } from './keys.ts';
import { planPhoto, rowVariant, wordsIn } from './plan.ts';
import { openIn, setPlacesOf, slotsOf, standsIn } from './set-places.ts';

const parts: KeyParts = {
  original: 'a'.repeat(64),
  orientation: 6,
  turning: { mirrored: false, turns: 0, angle: 0 },
  crop: { x: 1, y: 2, width: 300, height: 200 },
  width: 150,
  height: 100,
  format: 'avif',
  settings: { quality: 55, effort: 1 },
};

describe('keys', () => {
  test('are the SHA-256 of the parts in their order', () => {
    const text =
      '[5,"' + 'a'.repeat(64) + '",6,0,[1,2,300,200],[150,100],"avif",[["effort",1],["quality",55]]]';
    expect(variantKey(parts)).toBe(createHash('sha256').update(text).digest('hex'));
  });
  test('of the version before are found, with the settings of then', () => {
    const photo = samplePhoto();
    const [planned] = planPhoto(photo, openIn('hero'), CONTEXT).filter(({ format }) => format === 'avif');
    const { crop, width, height, format } = planned!;
    const { target, density } = planned!.settings;
    const key = variantKey(
      {
        ...{ original: photo.original.hash, orientation: photo.original.orientation },
        turning: { mirrored: false, turns: 0, angle: 0 },
        ...{ crop, width, height, format },
        settings: { target: target!, density: density!, effort: 1 },
      },
      PIPELINE_VERSION - 1,
    );
    expect(formerKeys(photo, planned!)).toEqual([thoroughKey(key), key]);
    expect(key).not.toBe(planned!.key);
  });
  test('do not depend on the order of settings', () => {
    expect(variantKey({ ...parts, settings: { effort: 1, quality: 55 } })).toBe(variantKey(parts));
  });
  test.each([
    ['original', { original: 'b'.repeat(64) }],
    ['orientation', { orientation: 1 }],
    ['angle', { turning: { ...parts.turning, angle: 0.5 } }],
    ['turns', { turning: { ...parts.turning, turns: 2 as const } }],
    ['mirror', { turning: { ...parts.turning, mirrored: true } }],
    ['crop', { crop: { ...parts.crop, x: 2 } }],
    ['size', { height: 101 }],
    ['format', { format: 'webp' as const }],
    ['settings', { settings: { quality: 56, effort: 1 } }],
    ['target', { settings: { quality: 55, effort: 1, target: 2 } }],
  ])('change with the %s', (_, change) => {
    expect(variantKey({ ...parts, ...change })).not.toBe(variantKey(parts));
  });
});

describe('planning', () => {
  test('two formats for each width of each shape, heights by the shape’s ratio', () => {
    const planned = planPhoto(samplePhoto(), openIn('hero'), CONTEXT);
    expect(new Set(planned.map((v) => v.shape))).toEqual(new Set(['3:1', '4:5']));
    for (const variant of planned) {
      const ratio = variant.shape === '3:1' ? 3 : 0.8;
      expect(variant.height).toBe(Math.floor(variant.width / ratio + 0.5));
      const twin = planned
        .filter((v) => v.shape === variant.shape && v.width === variant.width)
        .map((v) => v.format);
      expect(twin).toEqual(['avif', 'jpeg']);
    }
  });
  test.each([
    [{ transparent: true }, 'webp', ['webp', 'png']],
    [{ transparent: true }, 'avif', ['avif', 'png']],
    [{ frames: 12 }, 'avif', ['webp', 'gif']],
    [{}, 'webp', ['webp', 'jpeg']],
    [{}, 'smaller', ['avif', 'webp', 'jpeg']],
    [{ transparent: true }, 'both', ['avif', 'webp', 'png']],
  ] as const)('formats of %j with %s', (facts, modern, formats) => {
    const planned = planPhoto(
      samplePhoto({}, facts),
      openIn('grid'),
      sampleContext({ ...DEFAULT_POLICY, modern }),
    );
    expect([...new Set(planned.map((v) => v.format))]).toEqual(formats);
  });
  test('other rules of the policy are part of what is wanted, and nothing else is changed by them', () => {
    const plan = (policy: Partial<Policy>) =>
      planPhoto(samplePhoto(), openIn('column'), sampleContext({ ...DEFAULT_POLICY, ...policy }));
    const keys = (planned: ReturnType<typeof plan>) => planned.map(({ key }) => key);
    const plain = plan({});
    // Rules that are said as they are without being said keep the files there are.
    for (const same of [
      { density: 2 },
      { metadata: 'words' },
      { progressive: true },
      { naming: 'plain' },
      { thorough: false },
    ] satisfies Partial<Policy>[])
      expect(keys(plan(same))).toEqual(keys(plain));
    const flat = plan({ progressive: false });
    for (const [n, variant] of flat.entries())
      expect(variant.key === plain[n]!.key).toBe(variant.format !== 'jpeg');
    const widths = (planned: ReturnType<typeof plan>) => Math.max(...planned.map(({ width }) => width));
    expect(widths(plan({ density: 1 }))).toBeLessThan(widths(plan({ density: 1.5 })));
    expect(widths(plan({ density: 1.5 }))).toBeLessThan(widths(plain));
  });
  test('colours beyond sRGB are kept where a photo has them and the rules say so, in the modern format alone', () => {
    const plan = (policy: Partial<Policy>, facts: Partial<OriginalFacts> = {}, photo: Partial<Photo> = {}) =>
      planPhoto(samplePhoto(photo, facts), openIn('column'), sampleContext({ ...DEFAULT_POLICY, ...policy }));
    const wide = plan({ wideColours: true }, { wide: true });
    expect(wide.filter((one) => one.settings.gamut === 'p3').map(({ format }) => format)).toEqual(
      wide.filter(({ format }) => format === 'avif').map(() => 'avif'),
    );
    const plain = plan({}, { wide: true });
    expect(wide.filter((one, n) => one.key !== plain[n]!.key).every(({ format }) => format === 'avif')).toBe(
      true,
    );
    expect(wide).not.toEqual(plain);
    // Neither without colours beyond, nor where a ground in sRGB is laid under, nor where nothing may be lost.
    expect(plan({ wideColours: true })).toEqual(plan({}));
    for (const decision of [{ background: '#ffffff' }, { lossless: true }])
      for (const { settings } of plan(
        { wideColours: true },
        { wide: true, transparent: true },
        { quality: { column: decision } },
      ))
        expect(settings).not.toHaveProperty('gamut');
  });
  test('the target of the policy and the density a file is looked at are part of what is wanted', () => {
    const planned = planPhoto(samplePhoto(), openIn('column'), CONTEXT);
    for (const { settings, width } of planned) {
      expect(settings.target).toBe(2);
      // 720 px wide on laptops: 720 px for 1×, 900 px for 1.25×, 1440 px for 2×.
      expect(settings.density).toBe({ 720: 1, 900: 1.25, 1440: 2 }[width]);
    }
    const exacting = planPhoto(
      samplePhoto(),
      openIn('column'),
      sampleContext({ ...DEFAULT_POLICY, target: 'exacting' }),
    );
    expect(exacting.map((v) => v.settings.target)).toEqual(exacting.map(() => 1.3));
    expect(exacting.map((v) => v.key)).not.toEqual(planned.map((v) => v.key));
  });
  test('what is known of a stored file stands in its row, with the target it had to meet', () => {
    const [planned] = planPhoto(samplePhoto(), openIn('column'), CONTEXT);
    const stored = { bytes: 9, contentHash: 'c', quality: 61, difference: 1.93 };
    expect(rowVariant(planned!, stored, null)).toMatchObject({ ...stored, target: 2, failure: null });
    expect(rowVariant(planned!, undefined, null)).toMatchObject({
      bytes: null,
      quality: null,
      difference: null,
    });
  });
  test('a binned photo and a photo without places want nothing', () => {
    expect(planPhoto(samplePhoto({ binned: true }), openIn('grid'), CONTEXT)).toEqual([]);
    expect(planPhoto(samplePhoto({ placements: [] }), openIn('grid'), CONTEXT)).toEqual([]);
  });
  test('own places go before those of the set', () => {
    expect(slotsOf({ placements: placed('viewer') }, openIn('grid'))).toEqual(['viewer']);
    expect(slotsOf({ placements: null }, openIn('grid'))).toEqual(['grid']);
  });
  test('a place that the page does not show wants nothing, and keeps its photos', () => {
    const page = { parts: [{ kind: 'place', slot: 'column', titled: false }] } as unknown as SetPage;
    const setPlaces = setPlacesOf({ slots: ['grid', 'column'], page });
    expect(setPlaces).toEqual({ open: ['grid', 'column'], shown: ['column'] });
    expect(standsIn({ placements: null }, setPlaces)).toEqual(['grid', 'column']);
    expect(slotsOf({ placements: null }, setPlaces)).toEqual(['column']);
    const planned = (of: SetPlaces) => planPhoto(samplePhoto(), of, CONTEXT).map(({ key }) => key);
    expect(planned(setPlaces)).toEqual(planned(openIn('column')));
    expect(planned(setPlacesOf({ slots: ['grid', 'column'], page: null }))).toEqual(
      planned(openIn('grid', 'column')),
    );
  });
  test('moving the focal point changes the keys of automatic crops, not those of the editor’s', () => {
    const keys = (photo: ReturnType<typeof samplePhoto>) =>
      planPhoto(photo, openIn('grid', 'column'), CONTEXT);
    const crops = { '3:2': { x: 0, y: 0, width: 1500, height: 1000 } } as const;
    const before = keys(samplePhoto({ frame: sampleFrame({ crops }) }));
    const after = keys(
      samplePhoto({ frame: sampleFrame({ crops, focal: { x: 0.9, y: 0.5, confirmed: true } }) }),
    );
    before.forEach((variant, i) => {
      expect(after[i]!.key === variant.key).toBe(variant.shape === '3:2');
    });
  });
  test('a place that the site no longer has wants nothing', () => {
    expect(planPhoto(samplePhoto(), openIn('grid'), { ...CONTEXT, slots: [] })).toEqual([]);
  });
  test('turns and an angle are in the crop and in the key; four turns are none', () => {
    const upright = planPhoto(samplePhoto(), openIn('viewer'), CONTEXT);
    const lying = planPhoto(samplePhoto({ frame: sampleFrame({ turns: 1 }) }), openIn('viewer'), CONTEXT);
    expect(lying[0]!.crop).toEqual({ x: 0, y: 0, width: 2000, height: 3000 });
    expect(lying.map((v) => v.key)).not.toEqual(upright.map((v) => v.key));
    const [tilted] = planPhoto(samplePhoto({ frame: sampleFrame({ angle: 5 }) }), openIn('viewer'), CONTEXT);
    expect(tilted!.crop.width).toBeLessThan(3000);
    expect(tilted!.crop.width / tilted!.crop.height).toBeCloseTo(1.5, 2);
  });
});

describe('decisions for one place', () => {
  const planned = (quality: Photo['quality'], facts: Partial<OriginalFacts> = {}) =>
    planPhoto(samplePhoto({ quality }, facts), openIn('grid', 'column'), CONTEXT);
  const of = (slot: string, variants: ReturnType<typeof planned>) => variants.filter((v) => v.slot === slot);

  test('a target, a format and a pinned quality hold where they were made, and nowhere else', () => {
    const plain = planned({});
    const decided = planned({ grid: { target: 'lean', format: 'webp' } });
    expect(of('column', decided)).toEqual(of('column', plain));
    expect(new Set(of('grid', decided).map((v) => v.format))).toEqual(new Set(['webp', 'jpeg']));
    expect(new Set(of('grid', decided).map((v) => v.settings.target))).toEqual(new Set([3]));
    const [pinned] = of('grid', planned({ grid: { pinned: 64 } }));
    expect(pinned!.settings).toMatchObject({ quality: 64 });
    expect(pinned!.settings.target).toBeUndefined();
  });
  test('a pinned point is one format’s quality, and what the others are searched for', () => {
    const point = { format: 'avif', quality: 48, difference: 2.4 } as const;
    const [avif, jpeg] = of('grid', planned({ grid: { pinned: point } }));
    expect(avif!.settings).toMatchObject({ quality: 48, density: expect.any(Number) });
    expect(avif!.settings.target).toBeUndefined();
    expect(jpeg!.settings).toMatchObject({ target: 2.4 });
    expect(jpeg!.settings.quality).toBeUndefined();
  });
  test('without loss, or with it, whatever its kind', () => {
    expect(of('grid', planned({ grid: { lossless: true } })).slice(0, 2)).toMatchObject([
      { format: 'webp', settings: { lossless: true } },
      { format: 'png', settings: { lossless: true } },
    ]);
    const flat = { format: 'png', content: { colours: 9, commonest: 0.5, common: 1 } } as const;
    expect(of('grid', planned({ grid: { lossless: false } }, flat)).slice(0, 2)).toMatchObject([
      { format: 'avif', settings: { target: 2 } },
      { format: 'jpeg', settings: { target: 2 } },
    ]);
    // What was decided already changes nothing.
    expect(planned({ grid: { lossless: true } }, flat)).toEqual(planned({}, flat));
  });
  test('a ground makes what is transparent an ordinary picture, and changes nothing else', () => {
    const cutOut = { format: 'png', transparent: true } as const;
    const laid = of('grid', planned({ grid: { background: '#f4efe4' } }, cutOut));
    expect(laid.slice(0, 2).map((v) => [v.format, v.settings.background])).toEqual([
      ['avif', '#f4efe4'],
      ['jpeg', '#f4efe4'],
    ]);
    expect(planned({ grid: { background: '#f4efe4' } })).toEqual(planned({}));
  });
  test('files end at the widest that is wanted', () => {
    const widths = (widest?: number) => [
      ...new Set(of('grid', planned({ grid: widest === undefined ? {} : { widest } })).map((v) => v.width)),
    ];
    const all = widths();
    expect(widths(all.at(-1)! + 50)).toEqual(all);
    expect(widths(all[1])).toEqual(all.slice(0, 2));
    expect(widths(all[1]! + 7)).toEqual([...all.slice(0, 2), all[1]! + 7]);
    expect(widths(5)).toEqual([5]);
  });
  test('another frame of an animation is another file; there is no frame behind the last', () => {
    const gif = { frames: 12, format: 'gif' } as const;
    const keys = [undefined, 0, 5, 11, 40].map((frame) => {
      const still = { still: true, ...(frame !== undefined && { frame }) };
      return of('grid', planned({ grid: still }, gif))[0]!.key;
    });
    expect(keys[0]).toBe(keys[1]);
    expect(keys[3]).toBe(keys[4]);
    expect(new Set(keys).size).toBe(3);
  });
  test('an animation goes out as a still where an editor says so', () => {
    const still = planned({ grid: { still: true } }, { frames: 12, format: 'gif' });
    expect(new Set(of('grid', still).map((v) => v.format))).toEqual(new Set(['avif', 'jpeg']));
    expect(of('grid', still).every((v) => v.settings.still)).toBe(true);
    expect(new Set(of('column', still).map((v) => v.format))).toEqual(new Set(['webp', 'gif']));
    // For what does not move it changes nothing.
    expect(planned({ grid: { still: true } })).toEqual(planned({}));
  });
  test('a placement may have a crop and words of its own', () => {
    const crop = { x: 10, y: 20, width: 500, height: 500 };
    const [placement] = placed('grid');
    const photo = samplePhoto({
      placements: [{ ...placement!, crops: { '1:1': crop }, words: { alt: 'Here' } }],
    });
    expect(planPhoto(photo, openIn(), CONTEXT).every((v) => v.crop === crop)).toBe(true);
    expect(wordsIn(photo, 'grid')).toEqual({ ...photo.words, alt: 'Here' });
    expect(wordsIn(photo, 'column')).toEqual(photo.words);
  });
});
