// A page of its own for each picture of an arrangement: large, with its words, and links to those before and behind it.
import { cellsOf } from '../../arrange/cells.ts';
import type { Arrangement, PhotoRow } from '../../contract/index.ts';
import { cropIn, slotsOf, wordsIn } from '../../plan/plan.ts';
import { shownIn } from '../arranged/arranged.ts';
import { addressOf, pictureIn, type ArrangedContext } from '../arranged/items.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { documentMarkup, lookOf, type PageOptions } from './page.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { altOf, figureMarkup } from '../picture.ts';

export interface OwnPage {
  /** File name within the arrangement's folder. */
  file: string;
  html: string;
}

/** The name of a picture's own page. */
export const ownPageName = (arrangement: Arrangement, row: PhotoRow): string =>
  `${addressOf({ row }, { arrangement })}.html`;

/** The pages of an arrangement's pictures; they lie in a folder of its short name, beside the page. */
export function ownPages(options: PageOptions, arrangement: Arrangement): OwnPage[] {
  const { setSlots, rows: all, language = 'en' } = options;
  const standing = all.filter((row) => slotsOf(row, setSlots).includes(arrangement.shortName));
  const rows = shownIn(arrangement, standing);
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, arrangement.shortName, 'own') }));
  const { phrases } = phrasesIn(language);
  const items = cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
  const context: ArrangedContext = { ...lookOf(options, arrangement), first: true, items, phrases };
  return items.flatMap((item, n): OwnPage[] => {
    if (!item.large) return [];
    const { row } = item;
    const figure = figureMarkup(pictureIn(item, item.large, true, context));
    if (!figure) return [];
    const words = wordsIn(row, item.large.id);
    const title = words.title.trim() || altOf(words) || phrases.picture(n + 1, items.length);
    const link = (to: PhotoRow | undefined, text: string) =>
      to ? [`<li>${tag('a', { href: ownPageName(arrangement, to) })}${escapeHtml(text)}</a></li>`] : [];
    const ways = [...link(rows[n - 1], phrases.script.back), ...link(rows[n + 1], phrases.script.on)].join(
      '\n',
    );
    const nav = ways
      ? `\n${tag('nav', { class: 'part text', 'aria-label': phrases.pages(arrangement.title) })}\n${indent(`<ul>\n${indent(ways)}\n</ul>`)}\n</nav>`
      : '';
    const html = documentMarkup(options, {
      title,
      description: altOf(words),
      above: [`<p>${tag('a', { href: '../' })}${escapeHtml(phrases.allOf(arrangement.title))}</a></p>`],
      main: `<div class="part place">\n${indent(figure)}\n</div>${nav}`,
    });
    return [{ file: ownPageName(arrangement, row), html }];
  });
}
