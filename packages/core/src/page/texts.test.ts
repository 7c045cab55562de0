// Texts of a page in all of its languages: found in its order, written where they belong, and counted where they are missing.
import { describe, expect, test } from '@jest/globals';
import { optionsFor, slotsOfArrangement } from '../arrange/index.ts';
import type { ArrangementOptions, Passage, SetPage, Slot } from '../contract/index.ts';
import { slotProblem } from '../places/problem.ts';
import { SHIPPED_SLOTS } from '../slots/index.ts';
import { firstPage, pageProblem } from './page.ts';
import { missingTexts, textsOf, titlesOf, type PageText } from './texts.ts';

const passage = (text: string): Passage => [{ kind: 'paragraph', runs: [{ text }] }];
const feed = slotsOfArrangement({
  shortName: 'diary',
  title: 'Kiln diary',
  container: [{ from: 0, vw: 1, px: 0 }],
  words: { note: 'Day by day' },
  options: {
    ...optionsFor('feed'),
    between: [{ before: null, heading: '', passage: passage('It cooled for two days.') }],
  } as ArrangementOptions,
}).cell;
const [column] = SHIPPED_SLOTS;
const slots: Slot[] = [...SHIPPED_SLOTS, feed];
const page: SetPage = {
  ...firstPage('Kiln', [], () => false),
  home: { text: 'Home', address: '../' },
  parts: [
    { kind: 'heading', text: 'The pots' },
    { kind: 'text', passage: passage('Twelve of them.') },
    { kind: 'place', slot: feed.id, titled: false },
    { kind: 'place', slot: column!.id, titled: false },
    { kind: 'place', slot: 'gone', titled: true },
    { kind: 'languages' },
  ],
};
const called = ({ of, what }: PageText) => [of, what].filter(Boolean).join(': ');
const text = (of: SetPage, places: readonly Slot[], id: string) =>
  textsOf(of, places).find((one) => one.id === id)!;

describe('texts of a page', () => {
  test('are those that say something, in its order', () => {
    expect(textsOf(page, slots).map(called)).toEqual([
      'Title',
      'Link home',
      'Heading',
      'Text',
      'Kiln diary: Title',
      'Kiln diary: Text under its title',
      'Kiln diary: Text 1',
    ]);
  });
  test('a plain place says its name where that stands above it', () => {
    const titled = { ...page, parts: [{ kind: 'place', slot: column!.id, titled: true } as const] };
    expect(textsOf(titled, slots).map(called)).toContain(`${column!.name}: Title`);
  });
  test('are written where they belong, and taken out again', () => {
    for (const one of textsOf(page, slots)) {
      const said = typeof one.main === 'string' ? 'Auf Deutsch' : passage('Auf Deutsch');
      const change = one.put('de', said);
      const [nextPage, nextSlots] =
        'page' in change
          ? [change.page, slots]
          : [page, slots.map((slot) => (slot.id === change.slot.id ? change.slot : slot))];
      expect([pageProblem(nextPage), slotProblem(nextSlots.at(-1)!)]).toEqual([null, null]);
      const after = text(nextPage, nextSlots, one.id);
      expect(after.others).toEqual({ de: said });
      // Nothing else has changed.
      expect(textsOf(nextPage, nextSlots).map(({ main }) => main)).toEqual(
        textsOf(page, slots).map(({ main }) => main),
      );
      const back = after.put('de', typeof one.main === 'string' ? ' ' : []);
      expect('page' in back ? back.page : back.slot).toEqual('page' in back ? page : feed);
    }
  });
  test('one language does not touch another', () => {
    const twice = text(page, slots, 'title').put('de', 'Ofen') as { page: SetPage };
    const thrice = text(twice.page, slots, 'title').put('fr', 'Four') as { page: SetPage };
    expect(thrice.page.others).toEqual({ de: { title: 'Ofen' }, fr: { title: 'Four' } });
    const home = text(thrice.page, slots, 'home').put('de', 'Anfang') as { page: SetPage };
    expect(home.page.others!.de).toEqual({ title: 'Ofen', home: 'Anfang' });
  });
  test('are counted where they are missing, the first language apart', () => {
    const german = text(page, slots, 'title').put('de', 'Ofen') as { page: SetPage };
    const count = missingTexts(textsOf(german.page, slots), ['en', 'de', 'fr']);
    expect([...count]).toEqual([
      ['de', 6],
      ['fr', 7],
    ]);
  });
  test('titles of a place by language', () => {
    expect(
      titlesOf({ words: { others: { de: { title: 'Tagebuch', note: 'x' }, fr: { note: 'y' } } } }),
    ).toEqual({
      de: 'Tagebuch',
    });
    expect(titlesOf({})).toEqual({});
  });
});

describe('refused is', () => {
  test.each([
    [{ others: { de: { title: 'x'.repeat(201) } } }, /up to 200/],
    [{ others: { de: { parts: [] } } }, /no text called/],
    [{ parts: [{ kind: 'heading', text: 'A', others: { de: 7 } }] }, /up to 200/],
    [{ parts: [{ kind: 'text', passage: [], others: { de: 'x' } }] }, /paragraphs/],
    [{ parts: [{ kind: 'languages' }, { kind: 'languages' }] }, /stand on a page once/],
  ])('a page with %j', (change, wanted) =>
    expect(pageProblem({ ...page, ...change } as SetPage)).toMatch(wanted),
  );
  test.each([
    [{ note: 'x'.repeat(501) }, /up to 500/],
    [{ others: { de: { note: 5 } } }, /up to 500/],
    [{ hint: 'x' }, /title and a note/],
    [{ others: { de: { title: 'x'.repeat(101) } } }, /up to 100/],
  ])('a place that says %j', (words, wanted) =>
    expect(slotProblem({ ...feed, words } as Slot)).toMatch(wanted),
  );
});
