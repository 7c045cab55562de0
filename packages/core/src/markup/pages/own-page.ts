// A page of its own for each picture of an arrangement: large, with its words, and links to those before and behind it.
import { cellsOf } from '../../arrange/cells.ts';
import type { Arrangement, PhotoRow } from '../../contract/index.ts';
import { cropIn, wordsIn } from '../../plan/plan.ts';
import { slotsOf } from '../../plan/set-places.ts';
import { shownIn } from '../arranged/arranged.ts';
import { pictureIn, type ArrangedContext } from '../arranged/look.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { phraseMarkup, spokenMarkup, type Said } from '../../html/languages.ts';
import { documentMarkup, languagesAbove } from './document.ts';
import { lookOf, titleOf, type PageOptions } from './options.ts';
import { phrasesIn, placeAmong } from '../../html/phrases.ts';
import { slugOf } from '../../naming/naming.ts';
import { altOf, figureMarkup } from '../picture.ts';

export interface OwnPage {
  photo: number;
  html: string;
}

/** Letters of a page's name that its photo's words give. */
const LONGEST_NAME = 48;

/** The name of a picture's own page in its arrangement's folder: by its words, and by its photo, so that it stays the only one. */
export const ownPageName = ({ id, words }: PhotoRow): string =>
  `${slugOf(words.title || words.alt, LONGEST_NAME) || 'picture'}-${id}.html`;

/**
 * The pages of an arrangement's pictures; they lie in a folder of its short name, beside the page.
 * @param knownOf what the page of a picture knows of the same one in other languages
 */
export function ownPages(
  options: PageOptions,
  arrangement: Arrangement,
  knownOf: (row: PhotoRow) => Pick<PageOptions, 'languages' | 'canonical'> = () => ({}),
): OwnPage[] {
  const { setPlaces, rows: all, language = 'en' } = options;
  const standing = all.filter((row) => slotsOf(row, setPlaces).includes(arrangement.shortName));
  const rows = shownIn(arrangement, standing);
  const sizes = rows.map((row) => ({ id: row.id, size: cropIn(row, arrangement.shortName, 'own') }));
  const { phrases } = phrasesIn(language);
  const items = cellsOf(arrangement, sizes).map((cell, n) => ({ ...cell, row: rows[n]! }));
  const context: ArrangedContext = { ...lookOf(options, arrangement), first: true, items, phrases };
  const whole = titleOf(arrangement, options);
  const spoken = (n: number): Said<string> => {
    const row = rows[n]!;
    const words = wordsIn(row, arrangement.shortName);
    const text = words.title.trim() || altOf(words);
    return text
      ? { text, language: options.wordsLanguage?.(row) ?? language }
      : { text: phrases.picture(n + 1, rows.length), language };
  };
  const link = (to: number, way: string): string[] =>
    rows[to]
      ? [
          `<li>${tag('a', { href: ownPageName(rows[to]) })}${phraseMarkup((title) => `${way}: ${title}`, spoken(to), language)}</a></li>`,
        ]
      : [];
  return items.flatMap((item, n): OwnPage[] => {
    if (!item.large) return [];
    const { row } = item;
    const own = { ...options, ...knownOf(row) };
    const figure = figureMarkup(pictureIn(item, item.large, true, context));
    if (!figure) return [];
    const place = placeAmong(phrases, n + 1, rows.length);
    const ways = [...link(n - 1, phrases.script.back), ...link(n + 1, phrases.script.on)];
    const nav = ways.length
      ? `\n${tag('nav', { class: 'part text', 'aria-label': phrases.pages(whole.text) })}\n${indent(`<ul>\n${indent(ways.join('\n'))}\n</ul>`)}\n</nav>`
      : '';
    const html = documentMarkup(own, {
      // Several photos may be called the same: no two pages are.
      title: { text: `${spoken(n).text}, ${place} – ${whole.text}`, language },
      heading: spokenMarkup(spoken(n), language),
      description: {
        text: altOf(wordsIn(row, item.large.id)),
        language: options.wordsLanguage?.(row) ?? language,
      },
      above: [
        ...languagesAbove(own),
        `<p>${tag('a', { href: '../' })}${phraseMarkup(phrases.allOf, whole, language)}</a></p>`,
      ],
      main: `<div class="part place">\n${indent(figure)}\n</div>\n<p class="part text">${escapeHtml(place)}</p>${nav}`,
    });
    return [{ photo: row.id, html }];
  });
}
