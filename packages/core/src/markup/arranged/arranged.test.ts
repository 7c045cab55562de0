// The markup of arrangements: names, links, languages, and what is left out.
import { describe, expect, test } from '@jest/globals';
import { parse } from 'parse5';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { ARRANGEMENT_KINDS, optionsFor } from '../../arrange/options.ts';
import type { Arrangement, ArrangementOptions, Photo, PhotoRow, PlanContext } from '../../contract/index.ts';
import { CONTEXT, placed, sampleRow } from '../../testing/sample.ts';
import { NO_WORDS } from '../../words/no-words.ts';
import { figureStyles } from '../styles.ts';
import { arrangedMarkup, type ArrangedOptions } from './arranged.ts';
import { arrangementRules, runtimeFor } from './styles.ts';

const arrangementOf = (options: ArrangementOptions): Arrangement => ({
  shortName: 'pots',
  title: 'Pots & jugs',
  options,
  container: [{ from: 0, vw: 1, px: -32 }],
});

const WORDS = { ...NO_WORDS, role: 'informative' as const, alt: 'A jug', title: 'Jug' };

function rowsFor(
  arrangement: Arrangement,
  changes: Partial<Photo>[],
  bytes: number | null = 900,
): PhotoRow[] {
  const { cell, large } = slotsOfArrangement(arrangement);
  const context: PlanContext = { ...CONTEXT, slots: [cell, ...(large ? [large] : [])] };
  return changes.map((change, n) =>
    sampleRow(
      ['pots'],
      { id: n + 1, words: WORDS, ...change },
      { width: 2400, height: 1600 },
      bytes,
      context,
    ),
  );
}

const markupOf = (
  options: ArrangementOptions,
  changes: Partial<Photo>[] = [{}, {}],
  more: Partial<ArrangedOptions> = {},
) => {
  const arrangement = arrangementOf(options);
  return arrangedMarkup({
    arrangement,
    rows: rowsFor(arrangement, changes),
    urlOf: (_, { slot, width, format }) => `${slot}-${width}.${format}`,
    first: false,
    ...more,
  });
};

describe.each(ARRANGEMENT_KINDS)('a %s', (kind) => {
  test('is well-formed, has its class and no ids', () => {
    const wrong: string[] = [];
    const markup = markupOf(optionsFor(kind));
    parse(`<!doctype html><body>${markup}`, { onParseError: ({ code }) => wrong.push(code) });
    expect(wrong).toEqual([]);
    expect(markup).toMatch(new RegExp(`^<(section|div) class="dusky-set dusky-${kind} dusky-a-pots`));
    expect(markup).not.toMatch(/\sid=/);
  });
  test('of photos without files is nothing, and with views a sketch', () => {
    const arrangement = arrangementOf(optionsFor(kind));
    const rows = rowsFor(arrangement, [{}, {}], null);
    const options = { arrangement, rows, urlOf: () => 'never', first: false };
    expect(arrangedMarkup(options)).toBe('');
    const sketched = arrangedMarkup({ ...options, viewOf: ({ id }) => `/view/${id}` });
    expect(sketched).toContain('src="/view/1"');
    expect(sketched).not.toContain('never');
  });
});

describe('an arrangement', () => {
  const grid = optionsFor('grid');
  test('leads where its photos lead, else to the large file, and names what has no words', () => {
    const changes: Partial<Photo>[] = [
      { words: { ...WORDS, role: 'functional', link: '/shop?a=1&b=2', newWindow: true } },
      { words: { ...WORDS, role: 'decorative', alt: '', title: '' } },
      { placements: placed('pots').map((spot) => ({ ...spot, words: { alt: 'Here another text' } })) },
    ];
    const markup = markupOf(grid, changes);
    expect(markup).toContain('href="/shop?a=1&amp;b=2" target="_blank" rel="noopener"');
    expect(markup).toContain('(opens in a new window)');
    expect(markup).toMatch(
      /href="pots-large-\d+\.jpeg" data-dusky-open="pots-2" aria-label="Picture 2 of 3"/,
    );
    expect(markup).toContain('alt="Here another text"');
    // What leads elsewhere opens no viewer.
    expect(markup.match(/data-dusky-open/g)).toHaveLength(2);
  });
  test('opens nothing where a click does nothing, and offers a file only where that is wanted', () => {
    expect(markupOf({ ...grid, click: 'nothing' } as ArrangementOptions)).not.toMatch(
      /<a |data-dusky|<template/,
    );
    expect(markupOf(grid)).not.toContain('&quot;save&quot;');
    expect(markupOf({ ...grid, download: true } as ArrangementOptions)).toContain('&quot;save&quot;');
  });
  test('speaks the page’s language, and marks figures in another', () => {
    const markup = markupOf(grid, [{}, {}], {
      language: 'de',
      wordsLanguage: ({ id }) => (id === 1 ? 'de' : 'en'),
    });
    expect(markup).toContain('Nächstes Bild');
    // In the list and in the template.
    expect(markup.match(/<figure lang="en">/g)).toHaveLength(2);
    expect(markup.match(/<figure>/g)).toHaveLength(2);
  });
  test('loads its first picture at once where it stands first, and no other', () => {
    const markup = markupOf(optionsFor('rotating'), [{}, {}, {}], { first: true });
    expect(markup.match(/fetchpriority="high"/g)).toHaveLength(1);
    expect(markup.match(/loading="lazy"/g)).toHaveLength(2);
  });
  test('has widths of rows for the photos that are there', () => {
    const rows = optionsFor('rows');
    const arrangement = arrangementOf(rows);
    const [first, second] = rowsFor(arrangement, [{}, {}]);
    const [, gone] = rowsFor(arrangement, [{}, {}], null);
    const widths = (list: PhotoRow[]) =>
      arrangedMarkup({ arrangement, rows: list, urlOf: () => 'a', first: false }).match(/--b3: [^;]+/g);
    expect(widths([first!, gone!])).toEqual(widths([first!]));
    expect(widths([first!, second!])).toHaveLength(2);
  });
});

describe('styles', () => {
  test('say of an arrangement what its kind does not', () => {
    expect(arrangementRules(arrangementOf(optionsFor('grid')))).toContain(
      '@container dusky-set (min-width: 600px) { .dusky-set.dusky-a-pots .dusky-cells { --dusky-columns: 3; } }',
    );
    expect(arrangementRules(arrangementOf(optionsFor('feed')))).toBe('');
  });
  test('name the files that are used, each once, and plain places none', () => {
    const slots = (['grid', 'rows', 'strip'] as const).map(
      (kind) => slotsOfArrangement(arrangementOf(optionsFor(kind))).cell,
    );
    expect(runtimeFor(slots)).toEqual({
      styles: ['set', 'grid', 'viewer', 'rows', 'strip'],
      scripts: ['viewer', 'strip'],
    });
    expect(runtimeFor(CONTEXT.slots)).toEqual({ styles: [], scripts: [] });
    expect(figureStyles({ slots })).not.toContain('dusky-in-pots');
  });
});
