// What the pages of a set are made from, and what they say of themselves in their language.
import { hasOwnPages } from '../../arrange/options.ts';
import type {
  Arrangement,
  Language,
  PageEntry,
  PageTexts,
  PhotoRow,
  PlaceWords,
  PlanContext,
  RowVariant,
  SetPage,
  SetPlaces,
  SlotId,
} from '../../contract/index.ts';
import { saidIn, type Reading, type Said } from '../../html/languages.ts';
import { titlesOf } from '../../page/texts.ts';
import type { ArrangedLook } from '../arranged/look.ts';
import type { StyleSink } from '../inline-styles.ts';

export interface PageOptions {
  page: SetPage;
  rows: readonly PhotoRow[];
  setPlaces: SetPlaces;
  context: Pick<PlanContext, 'slots' | 'languages' | 'policy'>;
  urlOf: (row: PhotoRow, variant: RowVariant) => string;
  /** The site's pages, for its menu and for indexes; this one among them. */
  entries?: readonly PageEntry[];
  addressOfPage?: (page: PageEntry) => string;
  /** Id of the set whose page it is. */
  set?: number;
  /** It is a further page of the set's: a gallery's. */
  further?: boolean;
  /** Arrangements of which another page than the first is shown, and the addresses of their pages. */
  turned?: ReadonlyMap<SlotId, NonNullable<ArrangedLook['page']>>;
  /** Address of a picture's own page, within arrangements whose pictures have some. */
  ownPageOf?: (arrangement: Arrangement, row: PhotoRow) => string;
  /** The same page in each of the site's languages, this one among them: its address from here. */
  languages?: readonly { language: Language; address: string }[];
  /** Where the page is found, where the site's address is known. */
  canonical?: string;
  /** Of the page; the first of the site's where left out. */
  language?: Language;
  /** Language of a photo's words, where it is not the page's. */
  wordsLanguage?: (row: PhotoRow) => Language;
  /** From the page's folder to that of the styles. */
  base?: string;
  /** Takes the styles of single elements, which then stand in the stylesheet. */
  sink?: StyleSink;
  /** Arrangements on it need the script beside the styles. */
  scripted?: boolean;
}

/** What of a page's context an arrangement on it needs. */
export function lookOf(options: PageOptions, arrangement: Arrangement): Omit<ArrangedLook, 'first'> {
  const { urlOf, context, wordsLanguage, turned, ownPageOf, entries = [], addressOfPage } = options;
  const page = turned?.get(arrangement.shortName);
  return {
    arrangement: { ...arrangement, title: titleOf(arrangement, options).text },
    urlOf,
    both: context.policy.modern === 'both',
    ...(options.sink && { sink: options.sink }),
    ...readingOf(options),
    ...(wordsLanguage && { wordsLanguage }),
    ...(page && { page }),
    ...(ownPageOf &&
      hasOwnPages(arrangement) && { ownPageOf: (row: PhotoRow) => ownPageOf(arrangement, row) }),
    ...(addressOfPage && {
      pages: {
        of: (set: number) => entries.find((one) => one.set === set) ?? null,
        addressOf: addressOfPage,
      },
    }),
  };
}

export const languageOf = ({ language, context }: PageOptions): Language =>
  language ?? context.languages[0] ?? 'en';

export const readingOf = (options: PageOptions): Reading => ({
  language: languageOf(options),
  main: options.context.languages[0] ?? 'en',
});

/** What a page says of itself, in its language. */
export function textOf(options: PageOptions, field: keyof PageTexts): Said<string> {
  const { page } = options;
  const reading = readingOf(options);
  const main = field === 'home' ? (page.home?.text ?? '') : page[field];
  return saidIn(main, page.others?.[reading.language]?.[field], reading);
}

/** The title of an arrangement in the page's language. */
export function titleOf(
  { title, words }: { title: string; words?: PlaceWords | undefined },
  options: PageOptions,
): Said<string> {
  const reading = readingOf(options);
  return saidIn(title, titlesOf({ words })[reading.language], reading);
}
