// Every text of a page beside the words of its photos, in each of the site's languages: to be read side by side, and to
// count what is missing.
import { LONGEST_ABOUT } from '../arrange/options.ts';
import type {
  FeedPart,
  Gallery,
  InOthers,
  Language,
  PagePart,
  PageTexts,
  PlaceWords,
  Passage,
  SetPage,
  Slot,
  SlotId,
} from '../contract/index.ts';
import { isBlank } from '../html/languages.ts';
import { PLACE_LIMITS } from '../places/problem.ts';
import { LONGEST_DESCRIPTION, LONGEST_TITLE } from './limits.ts';

/** What becomes of the page or of a place on it when one of its texts is changed. */
export type TextChange = { page: SetPage } | { slot: Slot };

/** A text of a page, as the site's first language says it and as the others do. */
export interface PageText {
  /** Names it as long as nothing of the page is moved. */
  id: string;
  /** What it is. */
  what: string;
  /** Title of what it belongs to; "" for the page itself. */
  of: string;
  main: string | Passage;
  others: InOthers<string | Passage>;
  /** Characters that a line may have; null for a passage. */
  most: number | null;
  /** @param said of the kind that `main` is; a blank one takes the text out of the language */
  put: (language: Language, said: string | Passage) => TextChange;
}

/** An object without one of its parts. */
const without = (thing: object, name: string): object =>
  Object.fromEntries(Object.entries(thing).filter(([key]) => key !== name));

/** Parts that are there; null for none. */
const orNull = <T extends object>(thing: T): T | null => (Object.keys(thing).length > 0 ? thing : null);

/** Texts in other languages with one more; without those that say nothing. */
const withOne = <T>(
  others: InOthers<T> | undefined,
  language: Language,
  said: T | null,
): InOthers<T> | null =>
  orNull({ ...without(others ?? {}, language), ...(said !== null && { [language]: said }) });

/** An object with its texts in other languages, or without any. */
const spoken = <T extends object>(thing: T, others: object | null): T =>
  ({ ...without(thing, 'others'), ...(others && { others }) }) as T;

/** One of several texts that a thing has in a language. */
function withField<T extends object>(
  others: InOthers<T> | undefined,
  language: Language,
  field: keyof T & string,
  said: string | Passage,
): InOthers<T> | null {
  const next = { ...without(others?.[language] ?? {}, field), ...(!isBlank(said) && { [field]: said }) };
  return withOne(others, language, orNull(next) as T | null);
}

/** One text of several in each language. */
const fieldOf = <T extends object>(
  others: InOthers<T> | undefined,
  field: keyof T,
): InOthers<string | Passage> =>
  Object.fromEntries(
    Object.entries(others ?? {}).flatMap(([language, said]) => {
      const text = (said as T)[field] as string | Passage | undefined;
      return text === undefined ? [] : [[language, text]];
    }),
  );

/** null for a text that says nothing. */
const saidOr = <T extends string | Passage>(said: T): T | null => (isBlank(said) ? null : said);

function ofPage(page: SetPage): PageText[] {
  const text = (field: keyof PageTexts, what: string, main: string, most: number): PageText => ({
    ...{ id: field, what, of: '', main, most },
    others: fieldOf(page.others, field),
    put: (language, said) => ({ page: spoken(page, withField(page.others, language, field, said)) }),
  });
  return [
    text('title', 'Title', page.title, LONGEST_TITLE),
    text('description', 'Description', page.description, LONGEST_DESCRIPTION),
    ...(page.home ? [text('home', 'Link home', page.home.text, LONGEST_TITLE)] : []),
  ];
}

function ofPart(page: SetPage, part: PagePart, n: number): PageText[] {
  const put = (next: PagePart): TextChange => ({ page: { ...page, parts: page.parts.with(n, next) } });
  if (part.kind === 'heading')
    return [
      {
        ...{ id: `part ${n}`, what: 'Heading', of: '', main: part.text, most: LONGEST_TITLE },
        others: part.others ?? {},
        put: (language, said) => put(spoken(part, withOne(part.others, language, saidOr(said as string)))),
      },
    ];
  if (part.kind === 'text')
    return [
      {
        ...{ id: `part ${n}`, what: 'Text', of: '', main: part.passage, most: null },
        others: part.others ?? {},
        put: (language, said) => put(spoken(part, withOne(part.others, language, saidOr(said as Passage)))),
      },
    ];
  return [];
}

/** Titles and notes of a place. */
function ofPlaceWords(slot: Slot): PageText[] {
  const { words = {} } = slot;
  const text = (field: 'title' | 'note', what: string, main: string, most: number): PageText => ({
    ...{ id: `${slot.id} ${field}`, what, of: slot.name, main, most },
    others: fieldOf(words.others, field),
    put: (language, said) => {
      const next = spoken(words, withField(words.others, language, field, said));
      return {
        slot: { ...(without(slot, 'words') as Slot), ...(orNull(next) && { words: next }) },
      };
    },
  });
  return [
    text('title', 'Title', slot.name, PLACE_LIMITS.name),
    text('note', 'Text under its title', words.note ?? '', PLACE_LIMITS.note),
  ];
}

/** What stands between the pictures of a feed. */
function ofBetween(slot: Slot, between: readonly FeedPart[], put: (next: readonly FeedPart[]) => TextChange) {
  return between.flatMap((part, n): PageText[] => {
    const text = (
      field: 'heading' | 'passage',
      what: string,
      main: string | Passage,
      most: number | null,
    ): PageText => ({
      ...{ id: `${slot.id} ${field} ${n}`, what, of: slot.name, main, most },
      others: fieldOf(part.others, field),
      put: (language, said) =>
        put(between.with(n, spoken(part, withField(part.others, language, field, said)))),
    });
    return [
      text('heading', `Heading ${n + 1}`, part.heading, LONGEST_TITLE),
      text('passage', `Text ${n + 1}`, part.passage, null),
    ];
  });
}

function ofGalleries(
  slot: Slot,
  galleries: readonly Gallery[],
  put: (next: readonly Gallery[]) => TextChange,
) {
  return galleries.map((gallery, n): PageText => ({
    id: `${slot.id} gallery ${n}`,
    what: `Text of gallery ${n + 1}`,
    of: slot.name,
    main: gallery.text,
    most: LONGEST_ABOUT,
    others: gallery.others ?? {},
    put: (language, said) =>
      put(galleries.with(n, spoken(gallery, withOne(gallery.others, language, saidOr(said as string))))),
  }));
}

function ofPlace(slot: Slot, titled: boolean): PageText[] {
  const { arranged } = slot;
  // A plain place that stands there without its title says nothing.
  if (!arranged) return titled ? ofPlaceWords(slot) : [];
  const { options } = arranged;
  const put = (change: object): TextChange => ({
    slot: { ...slot, arranged: { ...arranged, options: { ...options, ...change } } },
  });
  return [
    ...ofPlaceWords(slot),
    ...(options.kind === 'feed' ? ofBetween(slot, options.between, (between) => put({ between })) : []),
    ...(options.kind === 'index'
      ? ofGalleries(slot, options.galleries, (galleries) => put({ galleries }))
      : []),
  ];
}

/** The texts of a page that say something, in its order: its own, its headings and texts, and those of its places. */
export function textsOf(page: SetPage, slots: readonly Slot[]): PageText[] {
  const standing = (id: SlotId) => slots.find((slot) => slot.id === id && slot.of === undefined);
  const all = page.parts.flatMap((part, n) => {
    if (part.kind !== 'place') return ofPart(page, part, n);
    const slot = standing(part.slot);
    return slot ? ofPlace(slot, part.titled) : [];
  });
  return [...ofPage(page), ...all].filter(({ main }) => !isBlank(main));
}

/** How many of them each further language lacks. */
export const missingTexts = (
  texts: readonly Pick<PageText, 'others'>[],
  languages: readonly Language[],
): ReadonlyMap<Language, number> =>
  new Map(
    languages
      .slice(1)
      .map((language) => [language, texts.filter(({ others }) => isBlank(others[language])).length]),
  );

/** The title of an arrangement, or the name of any place, as pages name it, in its languages. */
export const titlesOf = ({ words }: { words?: PlaceWords | undefined }): InOthers =>
  fieldOf(words?.others, 'title') as InOthers;
