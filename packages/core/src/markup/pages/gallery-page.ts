// A further page of a gallery: the gallery alone, under a title that says which page of how many it is.
import type { Arrangement } from '../../contract/index.ts';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { escapeHtml, tag } from '../../html/html.ts';
import { phraseMarkup, spokenMarkup } from '../../html/languages.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { aboveOf, documentMarkup, languagesAbove } from './document.ts';
import { textOf, titleOf, type PageOptions } from './options.ts';
import { boxed, placeMarkup } from './page.ts';

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
  const { context, language = context.languages[0] ?? 'en' } = options;
  const { phrases } = phrasesIn(language);
  const { cell } = slotsOfArrangement(arrangement);
  const back = `<p>${tag('a', { href: './' })}${phraseMarkup(phrases.allOf, textOf(options, 'title'), language)}</a></p>`;
  const title = titleOf(arrangement, options);
  const place = phrases.pageOf(n, count);
  return documentMarkup(options, {
    title: { text: `${title.text}, ${place}`, language },
    heading: `${spokenMarkup(title, language)}, ${escapeHtml(place)}`,
    description: { text: '', language },
    above: [...aboveOf({ ...options, further: true }), ...languagesAbove(options), back],
    main: boxed(cell, placeMarkup(cell, true, false, options), false, options),
  });
}
