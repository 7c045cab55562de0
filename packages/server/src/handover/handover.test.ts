// The ZIP beyond the limits of the old format, and previews that are computed once.
import { describe, expect, test } from '@jest/globals';
import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';
import { CONTEXT, sampleRow } from '../../../core/src/testing/sample.ts';
import { handoverZip, type FileSource } from './handover.ts';
import type { HandoverParts } from './parts.ts';
import { Previews } from './previews.ts';
import { openIn } from '@dusky-otter/core/plan';

describe('a hand-over of more files than the old format can count', () => {
  test('is whole: every entry is listed and can be read', async () => {
    const bytes = Buffer.from('one file for all');
    // How a file is read is not asked here, and from the disk would be most of the time.
    const vault: FileSource = {
      variant: () => '',
      verified: () => Promise.resolve(bytes),
      madeAt: () => Promise.resolve(new Date('2026-05-18T10:41:00Z')),
    };
    const [row] = [sampleRow(['grid'])];
    const variant = { ...row.variants[0]!, contentHash: 'known' };
    const count = 66_000;
    const rows = Array.from({ length: count }, (_, id) => ({
      ...row,
      id,
      placements: [],
      variants: [variant],
    }));
    const names = new Map(rows.map(({ id }) => [id, `photo-${id}`]));
    const parts: HandoverParts = {
      site: 'S',
      set: 'T',
      context: CONTEXT,
      setPlaces: openIn(),
      translations: [],
      rows,
      names,
    };
    const zip = await yauzl.fromBufferPromise(
      await buffer(handoverZip(parts, vault, new Date('2026-05-19T08:00:00Z'))),
    );
    expect(zip.entryCount).toBe(count + 4);
    let read = 0;
    for await (const entry of zip.eachEntry()) {
      if (!entry.fileName.startsWith('photos/')) continue;
      if (++read % 20_000 !== 1) continue;
      expect(await buffer(await zip.openReadStreamPromise(entry))).toEqual(bytes);
    }
    expect(read).toBe(count);
  });
});

describe('previews', () => {
  test('are computed once for all their files, and anew after a change', async () => {
    let changes = 0;
    let computed = 0;
    const previews = new Previews(() => changes);
    const find = () => {
      computed += 1;
      return Promise.resolve({ set: `edition ${computed}` } as HandoverParts);
    };
    const ask = () => previews.of('1', find);
    expect(await Promise.all([ask(), ask(), ask()])).toMatchObject([
      { set: 'edition 1' },
      { set: 'edition 1' },
      { set: 'edition 1' },
    ]);
    changes += 1;
    expect(await ask()).toMatchObject({ set: 'edition 2' });
    expect(await previews.of('2', find)).toMatchObject({ set: 'edition 3' });
    expect(await ask()).toMatchObject({ set: 'edition 2' });
  });
  test('that could not be computed are tried again', async () => {
    const previews = new Previews(() => 0);
    await expect(previews.of('1', () => Promise.reject(new Error('away')))).rejects.toThrow('away');
    await expect(
      previews.of('1', () => Promise.resolve({ set: 'back' } as HandoverParts)),
    ).resolves.toMatchObject({ set: 'back' });
  });
});
