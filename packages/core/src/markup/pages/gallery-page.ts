// A further page of a gallery: the gallery alone, under a title that says which page of how many it is.
import type { Arrangement } from '../../contract/index.ts';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { escapeHtml, tag } from '../../html/html.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { aboveOf, boxed, documentMarkup, placeMarkup, type PageOptions } from './page.ts';

/**
 * @param options of the set's page, with where the links between the gallery's pages lead
 * @param n which page, from 2: the first stands on the set's own
 * @param count how many there are; see `pagesOf`
 */
export function galleryPage(
  options: PageOptions,
  arrangement: Arrangement,
  n: number,
  count: number,
): string {
  const { page, context, language = context.languages[0] ?? 'en' } = options;
  const { phrases } = phrasesIn(language);
  const { cell } = slotsOfArrangement(arrangement);
  const back = `<p>${tag('a', { href: './' })}${escapeHtml(phrases.allOf(page.title))}</a></p>`;
  return documentMarkup(options, {
    title: `${arrangement.title}, ${phrases.pageOf(n, count)}`,
    description: '',
    above: [...aboveOf({ ...options, further: true }), back],
    main: boxed(cell, placeMarkup(cell, true, false, options), false),
  });
}
