// The ledger, changed photo by photo, says what one made from scratch says.
import { describe, expect, test } from '@jest/globals';
import { chance } from '@dusky-otter/core/chance';
import type { Photo } from '@dusky-otter/core/contract';
import { speakingNames } from '@dusky-otter/core/naming';
import { FILTERS, standingOf, type FileState, type Standing } from '@dusky-otter/core/readiness';
import { CONTEXT, placed, sampleFrame, samplePhoto } from '../../../core/src/testing/sample.ts';
import { SetLedger, type Shown } from './set-ledger.ts';
import { openIn } from '@dusky-otter/core/plan';

const SLOTS = ['column', 'grid'];
const SHOWN: Shown[] = [...FILTERS, 'bin'];

function someStanding(id: number, { pick, next, whole }: ReturnType<typeof chance>): Standing {
  const photo: Photo = samplePhoto(
    {
      id,
      position: `a${pick(['0', '1', '2', '3', '4'])}`,
      binned: next() < 0.2,
      frame: sampleFrame({ focal: { x: 0.5, y: 0.5, confirmed: next() < 0.5 } }),
      placements: pick([null, null, placed(), placed('hero')]),
      words: {
        ...samplePhoto().words,
        role: pick([null, 'informative', 'decorative']),
        alt: pick(['', 'Bay at dusk, seen from the shore.', 'Bowls on a shelf.', 'IMG_1']),
        title: pick(['', 'Bowl', 'Bowl 2', 'Jar']),
      },
    },
    { hash: String(id).padStart(64, 'a'), width: whole(200, 3000), bytes: whole(1000, 9000) },
  );
  return standingOf(photo, openIn(...SLOTS), CONTEXT);
}

const NOTHING: FileState = { of: () => null, improved: () => false, saved: () => 0 };

describe('a ledger', () => {
  test('after 400 random changes and files equals one made anew, at every tenth step', () => {
    const luck = chance(3);
    const files = new Map<string, number | 'failed'>();
    const improved = new Set<string>();
    const state: FileState = {
      of: (key) => files.get(key) ?? null,
      improved: (key) => improved.has(key),
      saved: (key) => (improved.has(key) ? 7 : 0),
    };
    const published = { bowl: 7, 'jar-2': 3 };
    const ledger = new SetLedger(state, published);
    const standings = new Map<number, Standing>();
    for (let step = 1; step <= 400; step++) {
      const id = luck.whole(1, 25);
      const way = luck.next();
      if (way < 0.6) {
        const standing = someStanding(id, luck);
        standings.set(id, standing);
        ledger.put(standing);
      } else if (way < 0.7) {
        standings.delete(id);
        ledger.remove(id);
      } else {
        const standing = standings.get(id);
        for (const key of standing?.keys ?? [])
          if (luck.next() < 0.2) improved.add(key);
          else if (luck.next() < 0.5) files.set(key, luck.next() < 0.1 ? 'failed' : luck.whole(1000, 60_000));
        ledger.again(id);
      }
      // Many at once now and then: their names are found at the end.
      if (step % 40 === 3) ledger.holdNames();
      if (step % 40 === 9) ledger.releaseNames();
      // Names are asked for now and then: only then are they kept up.
      if (luck.next() < 0.3) ledger.speaking(id);
      if (step % 10 !== 0) continue;
      const anew = new SetLedger(state, published);
      for (const standing of standings.values()) anew.put(standing);
      for (const one of standings.keys()) anew.again(one);
      expect(ledger.counts).toEqual(anew.counts);
      expect(ledger.progress).toEqual(anew.progress);
      for (const shown of SHOWN) expect(ledger.ids(shown)).toEqual(anew.ids(shown));
      const names = speakingNames(new Map([...standings].map(([one, { slug }]) => [one, slug])), published);
      for (const one of standings.keys()) {
        expect(ledger.speaking(one)).toBe(names.get(one));
        expect([...ledger.sameAs(one)].sort().length).toBe(anew.sameAs(one).length);
        expect(ledger.around('all', one)).toEqual(anew.around('all', one));
      }
    }
  });
  test('tells which others say something else now', () => {
    const ledger = new SetLedger(NOTHING, {});
    const luck = chance(1);
    const plain = (id: number, alt: string, title: string): Standing => ({
      ...someStanding(id, luck),
      binned: false,
      decorative: false,
      heard: alt,
      name: title,
      slug: title,
      position: `a${id}`,
    });
    ledger.put(plain(1, 'bay', 'bay'));
    ledger.put(plain(2, 'kiln', 'kiln'));
    expect(ledger.speaking(2)).toBe('kiln');
    expect(ledger.put(plain(3, 'bay', 'jar')).near).toEqual([1]);
    expect(ledger.sameAs(1)).toEqual(['jar']);
    // The older photo takes the plain name, and the younger gets a number.
    expect(ledger.put(plain(1, 'shore', 'jar')).near.sort()).toEqual([3]);
    expect([ledger.speaking(1), ledger.speaking(3)]).toEqual(['jar', 'jar-2']);
    expect(ledger.remove(1)).toEqual({ near: [], listed: true });
  });
  test('finds the names of many at once, and tells which others are called otherwise', () => {
    const ledger = new SetLedger(NOTHING, {});
    const luck = chance(4);
    const called = (id: number, slug: string): Standing => ({ ...someStanding(id, luck), heard: '', slug });
    for (const [id, slug] of [
      [1, 'bowl'],
      [2, 'jar'],
      [5, 'bowl'],
      [6, 'cup'],
    ] as const)
      ledger.put(called(id, slug));
    expect(ledger.speaking(5)).toBe('bowl-2');
    ledger.holdNames();
    ledger.put(called(1, 'plate'));
    ledger.put(called(2, 'cup'));
    ledger.put(called(7, 'mug'));
    // Until then each has the name that it had; a new one its own.
    expect([1, 2, 5, 7].map((id) => ledger.speaking(id))).toEqual(['bowl', 'jar', 'bowl-2', 'mug']);
    expect(ledger.releaseNames().sort()).toEqual([5, 6]);
    expect([1, 2, 5, 6, 7].map((id) => ledger.speaking(id))).toEqual([
      'plate',
      'cup',
      'bowl',
      'cup-2',
      'mug',
    ]);
    expect(ledger.releaseNames()).toEqual([]);
  });
  test('goes to the next photo with open work, and round to the first', () => {
    const ledger = new SetLedger(NOTHING, {});
    const luck = chance(2);
    const at = (id: number, open: Standing['open']): Standing => ({
      ...someStanding(id, luck),
      binned: false,
      position: `a${id}`,
      filters: ['all'],
      open,
    });
    for (const standing of [at(1, ['describe']), at(2, []), at(3, ['describe', 'frame']), at(4, [])])
      ledger.put(standing);
    expect(ledger.next('all', 'describe', null)).toEqual({ id: 1, index: 0 });
    expect(ledger.next('all', 'describe', 1)).toEqual({ id: 3, index: 2 });
    expect(ledger.next('all', 'describe', 3)).toEqual({ id: 1, index: 0 });
    expect(ledger.next('all', 'arrange', 3)).toBeNull();
  });
});
