// A further page of a gallery: the gallery alone, under a title that says which page of how many it is.
import type { Arrangement } from '../../contract/index.ts';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { escapeHtml, tag } from '../../html/html.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { slotsOf } from '../../plan/plan.ts';
import { pagesOf, shownIn } from '../arranged/arranged.ts';
import { aboveOf, boxed, documentMarkup, placeMarkup, type PageOptions } from './page.ts';

/**
 * @param options of the set's page, with where the links between the gallery's pages lead
 * @param n which page, from 2: the first stands on the set's own
 */
export function galleryPage(options: PageOptions, arrangement: Arrangement, n: number): string {
  const { page, rows, setSlots, context, language = context.languages[0] ?? 'en' } = options;
  const { phrases } = phrasesIn(language);
  const standing = rows.filter((row) => slotsOf(row, setSlots).includes(arrangement.shortName));
  const count = pagesOf(arrangement.options, shownIn(arrangement, standing).length);
  const slot =
    context.slots.find(({ id }) => id === arrangement.shortName) ?? slotsOfArrangement(arrangement).cell;
  const back = `<p>${tag('a', { href: './' })}${escapeHtml(phrases.allOf(page.title))}</a></p>`;
  return documentMarkup(options, {
    title: `${arrangement.title}, ${phrases.pageOf(n, count)}`,
    description: '',
    above: [...aboveOf(options), back],
    main: boxed(slot, placeMarkup(slot, true, false, options), false),
  });
}
