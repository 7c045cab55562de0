// What keeps a photo back, and what a phone is sent.
import { describe, expect, test } from '@jest/globals';
import { CONTEXT, placed, sampleFrame, sampleRow, slotById } from '../testing/sample.ts';
import { bytesInWords } from '../weight/units.ts';
import type { PhotoRow, SlotId } from '../contract/index.ts';
import { concernsOf, handoverConcerns, isMild, matchesFilter, sameAltsOf, sealOf } from './readiness.ts';
import { phoneWeights, sentTo, variantSentTo } from './weight.ts';
import { openIn } from '../plan/set-places.ts';

/** Concerns of a row that is alone on its page. */
const concerns = (row: PhotoRow, slots: readonly SlotId[]) => concernsOf(row, openIn(...slots), CONTEXT, []);
const codes = (...row: Parameters<typeof sampleRow>) =>
  concerns(sampleRow(...row), row[0]).map((c) => c.code);

describe('concerns', () => {
  test('none for a photo that is framed, weighed, described and placed', () => {
    expect(codes(['column', 'grid'])).toEqual([]);
    expect(sealOf([])).toEqual({ frame: 'ready', weigh: 'ready', describe: 'ready', arrange: 'ready' });
  });
  test('a guess is to be looked at, unless every crop is the editor’s', () => {
    const focal = { x: 0.5, y: 0.5, confirmed: false };
    expect(codes(['grid'], { frame: sampleFrame({ focal }) })).toEqual(['focal-guess']);
    expect(
      codes(['grid'], {
        frame: sampleFrame({ focal, crops: { '1:1': { x: 0, y: 0, width: 2000, height: 2000 } } }),
      }),
    ).toEqual([]);
    expect(codes(['viewer'], { frame: sampleFrame({ focal }) })).toEqual([]);
  });
  test('too small says by how many pixels and closes the seal', () => {
    const row = sampleRow(['column'], {}, { width: 320, height: 213 });
    const [concern] = concerns(row, ['column']);
    expect(concern).toMatchObject({ code: 'too-small', severity: 'stop' });
    expect(concern!.sentence).toContain('320 px, 400 px short of the 720 px shown');
    expect(sealOf(concerns(row, ['column'])).weigh).toBe('stop');
  });
  test('soft on retina is said but does not open the seal', () => {
    const found = concerns(sampleRow(['column'], {}, { width: 1000, height: 667 }), ['column']);
    expect(found.map((c) => c.code)).toEqual(['soft']);
    expect(sealOf(found).weigh).toBe('ready');
    expect(matchesFilter('ready', found)).toBe(true);
  });
  test('files that are not made, and one that failed', () => {
    expect(codes(['grid'], {}, {}, null)).toEqual(['not-made']);
    const row = sampleRow(['grid']);
    const failed = {
      ...row,
      variants: row.variants.map((v, i) => (i ? v : { ...v, bytes: null, failure: 'Could not be made: x' })),
    };
    expect(concerns(failed, ['grid'])[0]).toMatchObject({ code: 'failed', severity: 'stop' });
  });
  test('over budget names the place and the bytes', () => {
    const [concern] = concerns(sampleRow(['grid'], {}, {}, 26_000), ['grid']);
    expect(concern!.sentence).toBe('Over budget in Square thumbnail grid: 26 kB on a phone, 11 kB over.');
    expect(matchesFilter('budget', [concern!])).toBe(true);
  });
  test('the same words on two photos of the set concern both, unless one lies in the bin', () => {
    const first = sampleRow(['grid'], { id: 1 });
    const second = sampleRow(['grid'], { id: 2, words: { ...first.words, title: 'Evening' } });
    const both = sameAltsOf([first, second]);
    expect(concernsOf(first, openIn('grid'), CONTEXT, both.get(1) ?? [])[0]).toMatchObject({
      code: 'same-alt',
      sentence: 'Same words as “Evening”',
    });
    expect(concernsOf(second, openIn('grid'), CONTEXT, both.get(2) ?? []).map((c) => c.code)).toEqual([
      'same-alt',
    ]);
    const apart = sameAltsOf([first, { ...second, binned: true }]);
    expect(concernsOf(first, openIn('grid'), CONTEXT, apart.get(1) ?? [])).toEqual([]);
  });
  test('a photo without a place goes nowhere', () => {
    expect(codes(['grid'], { placements: placed() })).toEqual(['no-place']);
  });
  test('before a hand-over a guess and a budget are no hindrance, words and pixels are', () => {
    const row = sampleRow(
      ['column'],
      { frame: sampleFrame({ focal: { x: 0, y: 0, confirmed: false } }) },
      { width: 320, height: 213 },
      90_000,
    );
    const open = { ...row, words: { ...row.words, role: null, alt: '' } };
    expect(handoverConcerns(concerns(open, ['column'])).map((c) => c.code)).toEqual([
      'too-small',
      'missing',
      'no-role',
    ]);
  });
});

describe('what is sent', () => {
  test('a phone is sent the phone’s shape of the hero at 2×, a laptop the wide one', () => {
    const row = sampleRow(['hero']);
    expect(variantSentTo(row, slotById('hero'), { viewport: 390, density: 2 })).toMatchObject({
      shape: '4:5',
      width: 780,
      format: 'avif',
    });
    expect(variantSentTo(row, slotById('hero'), { viewport: 1280, density: 1 })).toMatchObject({
      shape: '3:1',
      width: 1280,
    });
  });
  test('the heaviest against its budget comes first', () => {
    const weights = phoneWeights(
      sampleRow(['column', 'grid'], {}, {}, 10_000),
      openIn('column', 'grid'),
      CONTEXT,
    );
    expect(weights.map((w) => w.slot.id)).toEqual(['grid', 'column']);
    expect(weights[0]).toMatchObject({ bytes: 10_000, over: 0 });
  });
  test('bytes add every place and know when something is missing', () => {
    const screen = { viewport: 390, density: 2 };
    expect(sentTo(sampleRow(['column', 'grid']), openIn('column', 'grid'), CONTEXT, screen)).toEqual({
      sent: 10_000,
      complete: true,
    });
    const unmade = sampleRow(['column', 'grid'], {}, {}, null);
    expect(sentTo(unmade, openIn('column', 'grid'), CONTEXT, screen)).toEqual({ sent: 0, complete: false });
  });
  test('bytes in words', () => {
    expect([999, 1000, 84_400, 999_499, 999_500, 1_636_886, 3_140_000, 15_900_000].map(bytesInWords)).toEqual(
      ['999 B', '1 kB', '84 kB', '999 kB', '1.00 MB', '1.64 MB', '3.1 MB', '15.9 MB'],
    );
  });
});

describe('a fallback that is far heavier than what other browsers are sent', () => {
  const weighed = (png: number, webp: number) => {
    const row = sampleRow(['column'], {}, { format: 'png', transparent: true });
    const variants = row.variants.map((v) => ({ ...v, bytes: v.format === 'png' ? png : webp }));
    return concernsOf({ ...row, variants }, openIn('column'), CONTEXT, []).filter(
      ({ code }) => code === 'heavy-fallback',
    );
  };
  test('is said in Weigh, with what helps, and keeps no photo from being ready', () => {
    const [concern] = weighed(1_200_000, 60_000);
    expect(concern).toMatchObject({ stop: 'weigh', severity: 'care' });
    expect(concern!.sentence).toContain('a PNG of 1.20 MB');
    expect(concern!.sentence).toContain('laid on a colour');
    expect(isMild(concern!)).toBe(true);
  });
  test('is not said of one that is small, or not much heavier', () => {
    expect(weighed(200_000, 20_000)).toEqual([]);
    expect(weighed(500_000, 200_000)).toEqual([]);
  });
});
