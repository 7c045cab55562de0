// A page of its own for each picture of an arrangement: large, with its words, and links to those before and behind it.
import { cellsOf } from '../../arrange/cells.ts';
import type { Arrangement, PhotoRow } from '../../contract/index.ts';
import { cropIn, wordsIn } from '../../plan/plan.ts';
import { slotsOf } from '../../plan/set-places.ts';
import { shownIn } from '../arranged/arranged.ts';
import { pictureIn, type ArrangedContext } from '../arranged/items.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { documentMarkup, lookOf, type PageOptions } from './page.ts';
import { phrasesIn, placeAmong } from '../../html/phrases.ts';
import { slugOf } from '../../naming/naming.ts';
import { altOf, figureMarkup } from '../picture.ts';

export interface OwnPage {
  /** File name within the arrangement's folder. */
  file: string;
  html: string;
}

/** Letters of a page's name that its photo's words give. */
const LONGEST_NAME = 48;

/** The name of a picture's own page in its arrangement's folder: by its words, and by its photo, so that it stays the only one. */
export const ownPageName = ({ id, words }: PhotoRow): string =>
  `${slugOf(words.title || words.alt, LONGEST_NAME) || 'picture'}-${id}.html`;

/** The pages of an arrangement's pictures; they lie in a folder of its short name, beside the page. */
export function ownPages(options: PageOptions, arrangement: Arrangement): OwnPage[] {
  const { setPlaces, rows: all, language = 'en' } = options;
  const standing = all.filter((row) => slotsOf(row, setPlaces).includes(arrangement.shortName));
  const rows = shownIn(arrangement, standing);
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, arrangement.shortName, 'own') }));
  const { phrases } = phrasesIn(language);
  const items = cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
  const context: ArrangedContext = { ...lookOf(options, arrangement), first: true, items, phrases };
  const titleOf = (n: number): string => {
    const words = wordsIn(rows[n]!, arrangement.shortName);
    return words.title.trim() || altOf(words) || phrases.picture(n + 1, rows.length);
  };
  const link = (to: number, way: string): string[] =>
    rows[to]
      ? [`<li>${tag('a', { href: ownPageName(rows[to]) })}${escapeHtml(`${way}: ${titleOf(to)}`)}</a></li>`]
      : [];
  return items.flatMap((item, n): OwnPage[] => {
    if (!item.large) return [];
    const { row } = item;
    const figure = figureMarkup(pictureIn(item, item.large, true, context));
    if (!figure) return [];
    const place = placeAmong(phrases, n + 1, rows.length);
    const ways = [...link(n - 1, phrases.script.back), ...link(n + 1, phrases.script.on)];
    const nav = ways.length
      ? `\n${tag('nav', { class: 'part text', 'aria-label': phrases.pages(arrangement.title) })}\n${indent(`<ul>\n${indent(ways.join('\n'))}\n</ul>`)}\n</nav>`
      : '';
    const html = documentMarkup(options, {
      // Several photos may be called the same: no two pages are.
      title: `${titleOf(n)}, ${place} – ${arrangement.title}`,
      heading: titleOf(n),
      description: altOf(wordsIn(row, item.large.id)),
      above: [`<p>${tag('a', { href: '../' })}${escapeHtml(phrases.allOf(arrangement.title))}</a></p>`],
      main: `<div class="part place">\n${indent(figure)}\n</div>\n<p class="part text">${escapeHtml(place)}</p>${nav}`,
    });
    return [{ file: ownPageName(row), html }];
  });
}
