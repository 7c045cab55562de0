// Plans that are kept: as good as new ones, and made once a version.
import { describe, expect, test } from '@jest/globals';
import type { Photo, Site } from '@dusky-otter/core/contract';
import { openIn } from '@dusky-otter/core/plan';
import { CONTEXT, placed, samplePhoto } from '../../../core/src/testing/sample.ts';
import { PlannedRows } from './planned-rows.ts';
import { rowOf, type FileStates } from './sent.ts';

const site = { ...CONTEXT, id: 1, version: 1 } as unknown as Site;
const made = new Set<string>();
const states: FileStates = {
  get: (key) => (made.has(key) ? { bytes: 7, contentHash: key, quality: 80, difference: 1 } : undefined),
  failureOf: () => null,
  lossOf: () => null,
};

describe('rows of kept plans', () => {
  const rows = new PlannedRows();
  const both = (photo: Photo, places = openIn('grid'), of = site) => {
    const row = rows.rowOf(photo, places, of, states);
    expect(row).toEqual(rowOf(photo, places, of, states));
    return row;
  };
  test('are those that are planned anew, whatever was changed, and are planned for nothing else', () => {
    const photo = samplePhoto();
    const [file] = both(photo).variants;
    both(photo);
    expect(rows.planned).toBe(1);
    // A file is made: the same plan says so.
    made.add(file!.key);
    expect(both(photo).variants[0]!.bytes).toBe(7);
    expect(rows.planned).toBe(1);
    both({ ...photo, version: photo.version + 1, binned: true });
    both({ ...photo, placements: placed('column') });
    both(photo, openIn('column'));
    both(photo, { open: ['grid', 'column'], shown: ['column'] });
    both(photo, openIn('grid'), { ...site, version: 2, slots: [] });
    expect(rows.planned).toBe(6);
  });
  test('are right beyond what is kept', () => {
    for (let id = 1; id <= 4_100; id += 1) rows.rowOf({ ...samplePhoto(), id }, openIn(), site, states);
    both({ ...samplePhoto(), id: 4_050 });
  });
});
