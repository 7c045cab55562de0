// Where a picture of an arrangement leads: to its file, its own page, the viewer, a film or elsewhere.
import type { Language } from '../../contract/index.ts';
import { isFilm } from '../../html/film.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { phraseMarkup } from '../../html/languages.ts';
import { slugOf } from '../../naming/naming.ts';
import { placementIn, wordsIn } from '../../plan/plan.ts';
import { ownNameOf } from '../../words/language-tags.ts';
import { altOf, storedOf, targetIn } from '../picture.ts';
import { OWN } from '../styles.ts';
import { pictureFor, pictureIn, type ArrangedContext, type ArrangedItem, type ArrangedLook } from './look.ts';

/** Its largest file that every browser reads: where a link leads without scripts. */
export function fileOf({ row, large }: ArrangedItem, { urlOf, viewOf }: ArrangedContext): string | null {
  if (!large) return null;
  const plain = storedOf(row, large, large.shapes[0]!.shape).filter(
    ({ format }) => format !== 'avif' && format !== 'webp',
  );
  const widest = plain.at(-1);
  return widest ? urlOf(row, widest) : (viewOf?.(row) ?? null);
}

/** Names a picture's address within its page: what it shows, and which photo it is. */
export const addressOf = (
  { row }: Pick<ArrangedItem, 'row'>,
  { arrangement }: Pick<ArrangedLook, 'arrangement'>,
): string =>
  [arrangement.shortName, slugOf(row.words.title || row.words.alt, 32), row.id].filter(Boolean).join('-');

/** Whether a picture leads to a film: then it is the film's poster. */
export const isPoster = (item: Pick<ArrangedItem, 'row' | 'cell'>): boolean =>
  isFilm(targetIn(item.row, item.cell.id)?.address ?? '');

/** What is shown over a poster and names what a click does: which film is played. */
function filmBadge(item: ArrangedItem, context: ArrangedContext): string {
  const { phrases, wordsLanguage, language = 'en' } = context;
  const title = wordsIn(item.row, item.cell.id).title.trim();
  const said = { text: title, language: wordsLanguage?.(item.row) ?? language };
  const name = title
    ? phraseMarkup((of) => `${phrases.film}: ${of}`, said, language)
    : escapeHtml(phrases.film);
  return `\n<span class="${OWN}-poster">${name}</span>`;
}

/** A film's title and the tracks of its captions, for the script that plays it; the page's language comes first. */
function filmSaid({ row, cell }: ArrangedItem, { language = 'en' }: ArrangedContext): string {
  const { captions = {} } = placementIn(row, cell.id);
  const title = wordsIn(row, cell.id).title.trim();
  const tracks = Object.entries(captions)
    .flatMap(([of, address]): [Language, string, string][] =>
      address ? [[of, ownNameOf(of), address.trim()]] : [],
    )
    .sort(([a], [b]) => Number(b === language) - Number(a === language));
  const said = { ...(title && { title }), ...(tracks.length > 0 && { tracks: JSON.stringify(tracks) }) };
  return Object.keys(said).length > 0 ? JSON.stringify(said) : '';
}

/**
 * Where a link leads that opens the viewer: to the picture's own page, or to its file. Where no file is offered it leads
 * nowhere without a script, which makes it a link. A file that the viewer offers beside an own page is named.
 */
export function wayTo(
  { row }: ArrangedItem,
  file: string,
  { ownPageOf, arrangement: { options } }: ArrangedContext,
): Record<string, string | null> {
  const own = ownPageOf?.(row);
  const { files = true, download = false } = 'files' in options ? options : {};
  return {
    href: own ?? (files ? file : null),
    [`data-${OWN}-file`]: own !== undefined && files && download ? file : null,
  };
}

/** The picture of a cell: alone, as a link to where it leads, or to its large file or its own page. */
export function clickable(item: ArrangedItem, n: number, context: ArrangedContext): string | null {
  const first = context.first && n === 0;
  const options = pictureIn(item, item.cell, first, context);
  const picture = pictureFor(options, context);
  if (!picture) return null;
  const words = wordsIn(item.row, item.cell.id);
  const target = targetIn(item.row, item.cell.id);
  const file = target ? null : fileOf(item, context);
  if (!target && !file) return picture;
  // A picture without words of its own still leads somewhere, and that has a name.
  const unnamed = altOf(words) === '';
  const { phrases, items } = context;
  const said = words.title.trim() || phrases.picture(n + 1, items.length);
  const poster = isPoster(item);
  const link = tag('a', {
    ...(target ? { href: target.address } : wayTo(item, file!, context)),
    ...(target?.newWindow && !poster && { target: '_blank', rel: 'noopener' }),
    [`data-${OWN}-open`]: target ? null : addressOf(item, context),
    [`data-${OWN}-film`]: poster ? filmSaid(item, context) : null,
    'aria-label': unnamed && !poster ? said : null,
  });
  const window =
    target?.newWindow && !poster
      ? `\n<span class="${OWN}-said">(${escapeHtml(phrases.newWindow)})</span>`
      : '';
  return `${link}\n${indent(picture + (poster ? filmBadge(item, context) : window))}\n</a>`;
}
