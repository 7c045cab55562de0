import { describe, expect, test } from '@jest/globals';
import type { Everywhere } from '../contract/index.ts';
import { SHIPPED_SLOTS } from '../slots/index.ts';
import { everywhereProblem, putsEverywhere, withEverywhere } from './everywhere.ts';
import { firstPage } from './page.ts';

const [hero, text, thumb] = SHIPPED_SLOTS.map(({ id }) => id) as [string, string, string];
const on = (slot: string, at: Everywhere['at'] = 'above', set = 1): Everywhere => ({ set, slot, at });
const page = {
  ...firstPage('Kiln', SHIPPED_SLOTS, () => false),
  parts: [{ kind: 'heading', text: 'a' }] as const,
};
const slotsOf = (
  everywhere: Everywhere[],
  own = page.parts as Parameters<typeof withEverywhere>[0]['parts'],
) =>
  withEverywhere(
    { ...page, parts: own },
    everywhere.map((one) => ({ ...one, titled: false })),
  ).parts.map((part) => (part.kind === 'place' ? part.slot : part.kind));

describe('what stands on every page', () => {
  test('stands above and below what a page holds, in its order', () => {
    expect(slotsOf([on(hero), on(thumb, 'below'), on(text)])).toEqual([hero, text, 'heading', thumb]);
  });
  test('stays where it stands already', () => {
    expect(slotsOf([on(hero)], [{ kind: 'place', slot: hero, titled: false }])).toEqual([hero]);
    expect(slotsOf([])).toEqual(['heading']);
  });
  test('is a set’s by its id', () => {
    const everywhere = [on(hero, 'above', 1), on(text, 'below', 2)];
    expect(putsEverywhere({ everywhere }, 2)).toEqual([on(text, 'below', 2)]);
  });
  test('is refused twice, or where there is too much of it', () => {
    expect(everywhereProblem([on(hero), on(text)])).toBeNull();
    expect(everywhereProblem([on(hero), on(hero, 'below')])).toMatch(/once/);
    expect(everywhereProblem(['a', 'b', 'c', 'd', 'e'].map((slot) => on(slot)))).toMatch(/up to 4/);
  });
});
