// What arrangements are made from, and one picture of them as a figure.
import type { Cell } from '../../arrange/cells.ts';
import type { Arrangement, Language, PageEntry, PhotoRow, RowVariant, Slot } from '../../contract/index.ts';
import { indent, tag } from '../../html/html.ts';
import { marked, type Reading } from '../../html/languages.ts';
import type { Phrases } from '../../html/phrases.ts';
import { pictureMarkup, type PictureOptions } from '../picture.ts';
import { sketchMarkup } from './sketch.ts';

/** One picture of an arrangement, with where it stands. */
export interface ArrangedItem extends Cell {
  row: PhotoRow;
}

export interface ArrangedLook extends Pick<PictureOptions, 'language' | 'both' | 'sink'> {
  arrangement: Arrangement;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** It stands in the first screen: its first picture loads at once. */
  first: boolean;
  /** Language of a photo's words, where it is not the page's. */
  wordsLanguage?: (row: PhotoRow) => Language;
  /** The site's first language, in which its texts are where the page's has none; the page's where left out. */
  main?: Language;
  /** Headings within it stand below one of this page's; h2 where none stands above it. */
  under?: 'h2' | 'h3';
  /** Which page of it, from 1, and the addresses of all; without them all pictures stand on one. */
  page?: { n: number; addressOf: (n: number) => string };
  /** Address of a picture's own page, where it has one. */
  ownPageOf?: (row: PhotoRow) => string;
  /** The site's pages by their sets, for indexes, and how one leads to them. */
  pages?: { of: (set: number) => PageEntry | null; addressOf: (page: PageEntry) => string };
  /** Address of a view of a photo, for pictures whose files are not made: arrangements are tried with them. */
  viewOf?: (row: PhotoRow) => string;
}

/** Where the pictures of a page stand among all of its gallery, and what lies before and behind them. */
export interface Among {
  /** Pictures on pages before this one. */
  from: number;
  all: number;
  /** Addresses of the picture before this page's first, and of the one behind its last; round at both ends. */
  before: string;
  behind: string;
}

/** What markup of an arrangement is made from. */
export interface ArrangedContext extends ArrangedLook {
  items: readonly ArrangedItem[];
  phrases: Phrases;
  /** Where it has several pages. */
  among?: Among;
}

/** Which language its texts are read in. */
export const readingIn = ({
  language = 'en',
  main = language,
}: Pick<ArrangedLook, 'language' | 'main'>): Reading => ({
  language,
  main,
});

/** The picture with its files, or as a sketch where that is wanted and some are missing. */
export const pictureFor = (options: PictureOptions, { viewOf }: ArrangedContext): string | null =>
  pictureMarkup(options) ?? (viewOf ? sketchMarkup(options.row, options.slot, viewOf(options.row)) : null);

export const pictureIn = (
  item: ArrangedItem,
  slot: Slot,
  first: boolean,
  context: ArrangedContext,
): PictureOptions => ({
  row: item.row,
  slot,
  first,
  urlOf: (variant) => context.urlOf(item.row, variant),
  ...(context.both !== undefined && { both: context.both }),
  ...(context.sink && { sink: context.sink }),
  ...(context.language !== undefined && { language: context.language }),
  ...(context.wordsLanguage && { wordsLanguage: context.wordsLanguage(item.row) }),
});

/** Attributes of what a photo's words stand in, where they are in another language than the page. */
export function foreign({ row }: ArrangedItem, { wordsLanguage, language = 'en' }: ArrangedContext) {
  return marked(wordsLanguage?.(row) ?? language, language);
}

/** A figure, marked where its words are in another language than the page. */
export const figureIn = (item: ArrangedItem, inside: readonly string[], context: ArrangedContext): string =>
  `${tag('figure', foreign(item, context))}\n${indent(inside.join('\n'))}\n</figure>`;
