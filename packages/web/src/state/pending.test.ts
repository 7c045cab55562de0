// What screens show: confirmed state with pending edits on top, and events that overtake answers.
import { describe, expect, test } from '@jest/globals';
import { samplePhoto, sampleRow } from '../../../core/src/testing/sample.ts';
import type { PhotoSet } from '../../../core/src/contract/index.ts';
import { DEFAULT_POLICY } from '../../../core/src/weight/target.ts';
import { mergeRows, withMade, withoutFiles, withPending } from './pending.ts';

const set: PhotoSet = {
  id: 1,
  version: 1,
  name: 'Diary',
  slots: ['grid'],
  order: [2, 1],
  policy: DEFAULT_POLICY,
  published: {},
  arranged: true,
  rehearsed: false,
  handedOver: false,
};
const row = (id: number, change = {}) => ({ ...sampleRow(['grid'], { id, ...change }, {}, null) });

describe('pending edits', () => {
  test('lie on top of what is confirmed, in their order', () => {
    const say = (alt: string) => ({
      label: 'x',
      commands: [{ kind: 'words' as const, photo: 1, words: { alt } }],
    });
    const shown = withPending({ rows: [row(1), row(2)], set }, [say('one'), say('two')]);
    expect(shown.rows.map((r) => [r.id, r.words.alt])).toEqual([
      [2, samplePhoto().words.alt],
      [1, 'two'],
    ]);
  });
  test('a pending order is shown at once', () => {
    const edit = { label: 'x', commands: [{ kind: 'set' as const, change: { order: [1, 2] } }] };
    expect(withPending({ rows: [row(1), row(2)], set }, [edit]).rows.map((r) => r.id)).toEqual([1, 2]);
  });
  test('an edit that can’t be is left to the server, the others are shown', () => {
    const impossible = {
      label: 'x',
      commands: [{ kind: 'focal' as const, photo: 1, focal: { x: 7, y: 0, confirmed: true } }],
    };
    const bin = { label: 'x', commands: [{ kind: 'bin' as const, photo: 2, binned: true }] };
    const shown = withPending({ rows: [row(1), row(2)], set }, [impossible, bin]);
    expect(shown.rows.map((r) => r.binned)).toEqual([true, false]);
  });
});

describe('answers and events that cross', () => {
  const [first] = row(1).variants;
  const facts = { bytes: 123, contentHash: 'c', quality: 71, difference: 1.9 };
  const made = new Map([[first!.key, facts]]);
  test('an older version never replaces a newer one', () => {
    const rows = mergeRows([row(1, { version: 5 })], [row(1, { version: 4 })], new Map());
    expect(rows[0]!.version).toBe(5);
  });
  test('new rows are added', () => {
    expect(mergeRows([row(1)], [row(2)], new Map()).map((r) => r.id)).toEqual([1, 2]);
  });
  test('an answer that knows less than the events does not undo them', () => {
    const [merged] = mergeRows([row(1)], [row(1, { version: 2 })], made);
    // Quality and difference come with the event: nothing is said falsely until a reload.
    expect(merged!.variants[0]).toMatchObject(facts);
    expect(merged!.variants[1]!.bytes).toBeNull();
  });
  test('a file that was lost on the disk is no longer there, and may come back', () => {
    const there = withMade(row(1), made);
    const lost = withoutFiles(there, new Set([first!.key]));
    expect(lost.variants[0]).toMatchObject({
      bytes: null,
      contentHash: null,
      quality: null,
      difference: null,
    });
    expect(withMade(lost, made).variants[0]).toMatchObject(facts);
    expect(withoutFiles(there, new Set(['other']))).toBe(there);
  });
  test('a row that has nothing new stays the same object', () => {
    const whole = sampleRow(['grid']);
    expect(withMade(whole, made)).toBe(whole);
  });
});
