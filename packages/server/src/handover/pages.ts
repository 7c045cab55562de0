// Every page of a hand-over, by its path: the set's, in each language; further pages of arrangements; own pages of pictures.
import { arrangementsIn, hasOwnPages } from '@dusky-otter/core/arrange';
import type { Arrangement, Language, PageEntry, PhotoRow, SetPage, SlotId } from '@dusky-otter/core/contract';
import {
  galleryPage,
  ownPageName,
  ownPages,
  pageMarkup,
  pagesOf,
  shownIn,
  type PageOptions,
  type StyleSink,
} from '@dusky-otter/core/markup';
import { foldersOf } from '@dusky-otter/core/naming';
import { addressOfPage, firstPage, pageFrom, photoFrom, slotFrom } from '@dusky-otter/core/page';
import { placesOn, slotsOf } from '@dusky-otter/core/plan';
import { spokenPhoto } from '@dusky-otter/core/words';
import { pathsIn, type HandoverParts } from './parts.ts';

/** The set's own page, or the one that follows from where its photos stand. */
export const pageFor = ({ page, set, context, rows, setPlaces }: Omit<HandoverParts, 'names'>): SetPage =>
  page ?? firstPage(set, context.slots, (slot) => rows.some((row) => slotsOf(row, setPlaces).includes(slot)));

/** The file of a further page of an arrangement; the first stands on the set's own page. */
const fileOfPage = (shortName: SlotId, n: number): string =>
  n === 1 ? 'index.html' : `${shortName}-${n}.html`;

const upwards = (levels: number): string => '../'.repeat(levels);

/** What a page of a hand-over is of: the same in every language. */
type Subject = 'page' | `${SlotId} ${number}` | `${SlotId} of ${number}`;

interface Folder {
  /** "" or that of a language, with its slash. */
  name: string;
  language: Language;
  rows: readonly PhotoRow[];
  wordsLanguage?: (row: PhotoRow) => Language;
}

/** Pages below a folder, whose options go by how deep they lie in it. */
class PagesIn {
  private readonly depth: number;
  private readonly page: SetPage;
  private readonly originals: ReadonlyMap<number, PhotoRow>;
  private readonly folders: ReturnType<typeof foldersOf>;
  /** Arrangements on the page, with the photos that they show and how many pages they have. */
  private readonly arranged: readonly { arrangement: Arrangement; shown: PhotoRow[]; count: number }[];

  constructor(
    private readonly parts: HandoverParts,
    readonly folder: Folder,
    private readonly scripted: boolean,
    private readonly sink?: StyleSink,
  ) {
    this.depth = folder.name === '' ? 0 : 1;
    this.page = pageFor(parts);
    this.originals = new Map(parts.rows.map((row) => [row.id, row]));
    this.folders = foldersOf(parts.context);
    const onPage = placesOn(this.page);
    this.arranged = arrangementsIn(parts.context.slots)
      .filter(({ shortName }) => onPage.includes(shortName))
      .map((arrangement) => {
        const { shortName, options } = arrangement;
        const standing = folder.rows.filter((row) => slotsOf(row, parts.setPlaces).includes(shortName));
        const shown = shownIn(arrangement, standing);
        return { arrangement, shown, count: pagesOf(options, shown.length) };
      });
  }

  private folderOf({ shortName }: Arrangement): string {
    return this.folders.ofArrangement.get(shortName)!;
  }

  /** Where its pages lie, each by what it is of. */
  paths(): Map<Subject, string> {
    const { name } = this.folder;
    const paths = new Map<Subject, string>([['page', `${name}index.html`]]);
    for (const { arrangement, shown, count } of this.arranged) {
      const { shortName } = arrangement;
      for (let n = 2; n <= count; n++) paths.set(`${shortName} ${n}`, `${name}${fileOfPage(shortName, n)}`);
      if (!hasOwnPages(arrangement)) continue;
      for (const row of shown)
        paths.set(`${shortName} of ${row.id}`, `${name}${this.folderOf(arrangement)}/${ownPageName(row)}`);
    }
    return paths;
  }

  /** @param below levels below the folder */
  options(below = 0): PageOptions {
    const { setPlaces, context, entries = [], setId, addressOf = addressOfPage } = this.parts;
    const { language, rows, wordsLanguage, name } = this.folder;
    const base = upwards(this.depth + below);
    const depth = { base, page: upwards(below) };
    const pathOf = pathsIn(this.parts);
    return {
      ...{ setPlaces, language, base, scripted: this.scripted },
      ...(this.sink && { sink: this.sink }),
      page: pageFrom(this.page, depth),
      rows: rows.map((row) => photoFrom(row, depth)),
      context: { ...context, slots: context.slots.map((slot) => slotFrom(slot, depth)) },
      ...(setId !== undefined && { set: setId }),
      entries,
      addressOfPage: (entry: PageEntry) => `${base}${addressOf(entry)}${name}`,
      // A file is called by the words that are in it, in whatever language the page is.
      urlOf: (row, variant) => `${base}${pathOf(this.originals.get(row.id) ?? row, variant)}`,
      ownPageOf: (arrangement, row) => `${this.folderOf(arrangement)}/${ownPageName(row)}`,
      ...(wordsLanguage && { wordsLanguage }),
    };
  }

  /** Where the links between the pages of arrangements lead; all but one of them are at their first. */
  turns(shortName: SlotId | null, n: number): PageOptions['turned'] {
    return new Map(
      this.arranged.map(({ arrangement: { shortName: own } }) => [
        own,
        {
          n: own === shortName ? n : 1,
          addressOf: (page: number) => (page === 1 ? './' : fileOfPage(own, page)),
        },
      ]),
    );
  }

  /**
   * @param paths where its pages lie; see `paths`
   * @param known what a page has to know of the same one in other languages
   */
  files(
    paths: ReadonlyMap<Subject, string>,
    known: (subject: Subject, below: number) => Pick<PageOptions, 'languages' | 'canonical'>,
  ): Map<string, string> {
    const flat = this.options();
    const files = new Map<string, string>();
    const put = (subject: Subject, html: string) => files.set(paths.get(subject)!, html);
    put('page', pageMarkup({ ...flat, ...known('page', 0), turned: this.turns(null, 1) }));
    for (const { arrangement, count } of this.arranged) {
      const { shortName } = arrangement;
      for (let n = 2; n <= count; n++) {
        const subject: Subject = `${shortName} ${n}`;
        const options = { ...flat, ...known(subject, 0), turned: this.turns(shortName, n) };
        put(subject, galleryPage(options, arrangement, n, count));
      }
      if (!hasOwnPages(arrangement)) continue;
      const knownOf = (row: PhotoRow) => known(`${shortName} of ${row.id}`, 1);
      for (const { photo, html } of ownPages(this.options(1), arrangement, knownOf))
        put(`${shortName} of ${photo}`, html);
    }
    return files;
  }
}

/** The page of a set alone, as it stands in its folder. */
export const pageOf = (parts: HandoverParts, scripted = false): string => {
  const { rows, context } = parts;
  const folder = { name: '', language: context.languages[0] ?? 'en', rows };
  const pages = new PagesIn(parts, folder, scripted);
  return pageMarkup({ ...pages.options(), turned: pages.turns(null, 1) });
};

/** Folders of the languages, the first language's is that of the page itself. */
function foldersIn({ rows, context, translations }: HandoverParts): Folder[] {
  const main = context.languages[0] ?? 'en';
  const { ofLanguage } = foldersOf(context);
  const translated = translations.map(({ language, words: own }): Folder => {
    const spoken = new Map(
      rows.map((row) => {
        const words = own.get(row.id);
        return [row.id, spokenPhoto(row, main, words && { words, language })];
      }),
    );
    return {
      name: `${ofLanguage.get(language)}/`,
      language,
      rows: rows.map((row) => spoken.get(row.id)!.photo),
      wordsLanguage: (row) => spoken.get(row.id)!.language,
    };
  });
  return [{ name: '', language: main, rows }, ...translated];
}

/** The end of an address: a folder's own page has no name of its own. */
const withoutIndex = (path: string): string => path.replace(/(^|\/)index\.html$/, '$1');

/** Where the folder of a set's page is found, where the site's address was said and can be read; null otherwise. */
function placeOf({ address, setId, entries = [] }: HandoverParts): string | null {
  const entry = entries.find(({ set }) => set === setId);
  if (!entry || address === undefined || !/^https?:\/\//i.test(address.trim())) return null;
  try {
    return new URL(`${entry.folder}/`, address.trim().replace(/\/?$/, '/')).href;
  } catch {
    return null;
  }
}

/** All pages of a hand-over by their paths. @param sink takes the styles of single elements */
export function pagesIn(parts: HandoverParts, scripted: boolean, sink: StyleSink): Record<string, string> {
  const all = foldersIn(parts).map((folder) => new PagesIn(parts, folder, scripted, sink));
  const found = all.map((pages) => ({ pages, language: pages.folder.language, paths: pages.paths() }));
  const place = placeOf(parts);
  const knownIn =
    ({ pages, paths }: (typeof found)[number]) =>
    (subject: Subject, below: number) => {
      const base = upwards((pages.folder.name === '' ? 0 : 1) + below);
      const languages = found.flatMap(({ language, paths: its }) => {
        const path = its.get(subject);
        return path === undefined ? [] : [{ language, address: `${base}${withoutIndex(path)}` || './' }];
      });
      const own = paths.get(subject)!;
      return { languages, ...(place !== null && { canonical: `${place}${withoutIndex(own)}` }) };
    };
  return Object.fromEntries(found.flatMap((one) => [...one.pages.files(one.paths, knownIn(one))]));
}
