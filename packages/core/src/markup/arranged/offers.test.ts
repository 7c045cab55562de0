// Which files an arrangement offers, and where.
import { describe, expect, test } from '@jest/globals';
import { parse } from 'parse5';
import { optionsFor } from '../../arrange/options.ts';
import type { ArrangementOptions, PhotoRow } from '../../contract/index.ts';
import { markupOf } from '../../testing/arranged.ts';
import { all, attributes } from '../../testing/html.ts';

describe('files are offered', () => {
  const grid = (change: object): ArrangementOptions => ({ ...optionsFor('grid'), ...change });
  const links = (html: string) =>
    all(parse(html), 'a').map((a) => [attributes(a).href, attributes(a)['data-dusky-file']]);
  const ownPageOf = ({ id }: PhotoRow) => `pots/${id}.html`;
  const file = expect.stringMatching(/^pots-large-\d+\.jpeg$/) as unknown;
  test('by links, or nowhere', () => {
    expect(links(markupOf(grid({}), [{}]))).toEqual([[file, undefined]]);
    const none = markupOf(grid({ files: false, download: true }), [{}]);
    expect(links(none)).toEqual([[undefined, undefined]]);
    expect(none).not.toContain('Download');
    const cover = { ...optionsFor('cover'), files: false } as ArrangementOptions;
    expect(markupOf(cover, [{}, {}])).not.toMatch(/href="pots/);
  });
  test('by the viewer beside pages of their own, which are no files', () => {
    const html = (change: object) => markupOf(grid({ ownPages: true, ...change }), [{}], { ownPageOf });
    expect(links(html({ download: true }))).toEqual([['pots/1.html', file]]);
    expect(links(html({}))).toEqual([['pots/1.html', undefined]]);
    expect(links(html({ files: false, download: true }))).toEqual([['pots/1.html', undefined]]);
  });
});
