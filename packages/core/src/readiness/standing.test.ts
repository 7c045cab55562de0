// A photo's standing says the same as its concerns, whatever is decided and whatever is made.
import { describe, expect, test } from '@jest/globals';
import { chance } from '../chance/chance.ts';
import type { Photo, PhotoRow } from '../contract/index.ts';
import { CONTEXT, placed, sampleFrame, sampleRow } from '../testing/sample.ts';
import { concernsOf, isMild, matchesFilter, SEAL_PARTS } from './readiness.ts';
import { FILTERS, presentOf, standingOf, type FileState } from './standing.ts';
import { sentTo } from './weight.ts';
import { openIn } from '../plan/set-places.ts';

const SLOTS = ['hero', 'column', 'grid'];
const ALTS = ['', 'IMG_0412', 'Still bay between two dark headlands.', 'test', 'Mugs on a shelf.'];

function someRow(seed: number): { row: PhotoRow; state: FileState } {
  const { pick, whole, next } = chance(seed);
  const change: Partial<Photo> = {
    id: seed,
    frame: sampleFrame({ focal: { x: next(), y: next(), confirmed: next() < 0.5 } }),
    placements: pick([null, null, placed(), placed('viewer'), placed('grid', 'half')]),
  };
  const row = sampleRow(SLOTS, change, { width: whole(200, 4000), height: whole(200, 4000) });
  row.words = { ...row.words, alt: pick(ALTS), role: pick([null, 'decorative', 'informative', 'complex']) };
  row.variants = row.variants.map((variant) => ({
    ...variant,
    bytes: next() < 0.9 ? whole(1000, 90_000) : null,
    failure: next() < 0.2 ? 'Could not be made: it was too heavy.' : null,
  }));
  // One key is one file, wherever it is shown.
  const byKey = new Map(row.variants.map((variant) => [variant.key, variant]));
  row.variants = row.variants.map((variant) => ({ ...byKey.get(variant.key)!, slot: variant.slot }));
  row.variants = row.variants.map((v) => (v.bytes === null ? v : { ...v, failure: null }));
  const state: FileState = {
    of: (key) => {
      const file = byKey.get(key)!;
      return file.bytes ?? (file.failure === null ? null : 'failed');
    },
    improved: (key) => key < '8',
    saved: (key) => (key < '8' ? 10 : 0),
  };
  return { row, state };
}

describe('standing', () => {
  test('agrees with the concerns of 400 photos in every state', () => {
    for (let seed = 1; seed <= 400; seed++) {
      const { row, state } = someRow(seed);
      const same =
        seed % 3 === 0 && row.words.role !== 'decorative' && row.words.alt !== '' ? ['another'] : [];
      const concerns = concernsOf(row, openIn(...SLOTS), CONTEXT, same);
      const present = presentOf(standingOf(row, openIn(...SLOTS), CONTEXT), state, same.length > 0);
      expect([seed, FILTERS.filter((filter) => present.filters.has(filter))]).toEqual([
        seed,
        FILTERS.filter((filter) => matchesFilter(filter, concerns)),
      ]);
      expect([seed, SEAL_PARTS.filter((stop) => present.open.has(stop))]).toEqual([
        seed,
        SEAL_PARTS.filter((stop) => concerns.some((c) => c.stop === stop && !isMild(c))),
      ]);
      const keys = [...new Set(row.variants.map(({ key }) => key))];
      // Photographs: all their files may be made smaller.
      expect(present.improved).toBe(keys.filter((key) => key < '8').length);
      expect(present.saved).toBe(10 * present.improved);
      expect(present.phone).toEqual(sentTo(row, openIn(...SLOTS), CONTEXT, { viewport: 390, density: 2 }));
      expect(present.laptop).toEqual(sentTo(row, openIn(...SLOTS), CONTEXT, { viewport: 1440, density: 2 }));
    }
  });
  test('a photo in the bin wants no file, and its alt text is heard nowhere', () => {
    const standing = standingOf({ ...sampleRow(SLOTS), binned: true }, openIn(...SLOTS), CONTEXT);
    expect(standing.keys).toEqual([]);
  });
});
