// Every page of a hand-over, by its path: the set's, in each language; further pages of arrangements; own pages of pictures.
import { arrangementsIn, hasOwnPages } from '@dusky-otter/core/arrange';
import type {
  Arrangement,
  Language,
  PageEntry,
  PhotoRow,
  SetPage,
  SlotId,
  Words,
} from '@dusky-otter/core/contract';
import {
  galleryPage,
  ownPageName,
  ownPages,
  pageMarkup,
  pagesOf,
  shownIn,
  type PageOptions,
} from '@dusky-otter/core/markup';
import { foldersOf } from '@dusky-otter/core/naming';
import { addressOfPage, firstPage } from '@dusky-otter/core/page';
import { placesOn, slotsOf } from '@dusky-otter/core/plan';
import { wordsFor } from '@dusky-otter/core/words';
import { pathsIn, type HandoverParts } from './parts.ts';

/** The set's own page, or the one that follows from where its photos stand. */
export const pageFor = ({ page, set, context, rows, setPlaces }: Omit<HandoverParts, 'names'>): SetPage =>
  page ?? firstPage(set, context.slots, (slot) => rows.some((row) => slotsOf(row, setPlaces).includes(slot)));

/** The file of a further page of an arrangement; the first stands on the set's own page. */
const fileOfPage = (shortName: SlotId, n: number): string =>
  n === 1 ? 'index.html' : `${shortName}-${n}.html`;

const upwards = (levels: number): string => '../'.repeat(levels);

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
  readonly arrangements: Arrangement[];

  constructor(
    private readonly parts: HandoverParts,
    private readonly folder: Folder,
    private readonly scripted: boolean,
  ) {
    this.depth = folder.name === '' ? 0 : 1;
    this.page = pageFor(parts);
    const shown = placesOn(this.page);
    this.arrangements = arrangementsIn(parts.context.slots).filter(({ shortName }) =>
      shown.includes(shortName),
    );
  }

  private folderOf({ shortName }: Arrangement): string {
    return foldersOf(this.parts.context).ofArrangement.get(shortName)!;
  }

  /** @param below levels below the folder */
  options(below = 0): PageOptions {
    const { setPlaces, context, entries = [], setId, addressOf = addressOfPage } = this.parts;
    const { language, rows, wordsLanguage, name } = this.folder;
    const base = upwards(this.depth + below);
    const pathOf = pathsIn(this.parts);
    return {
      ...{ page: this.page, rows, setPlaces, context, language, base, scripted: this.scripted },
      ...(setId !== undefined && { set: setId }),
      entries,
      addressOfPage: (entry: PageEntry) => `${base}${addressOf(entry)}${name}`,
      urlOf: (row, variant) => `${base}${pathOf(row, variant)}`,
      ownPageOf: (arrangement, row) => `${this.folderOf(arrangement)}/${ownPageName(row)}`,
      ...(wordsLanguage && { wordsLanguage }),
    };
  }

  /** A further page of an arrangement. */
  private turned(arrangement: Arrangement, n: number, count: number): string {
    const options = { ...this.options(), turned: this.turns(arrangement.shortName, n) };
    return galleryPage(options, arrangement, n, count);
  }

  /** Where the links between the pages of arrangements lead; all but one of them are at their first. */
  turns(shortName: SlotId | null, n: number): PageOptions['turned'] {
    return new Map(
      this.arrangements.map((one) => [
        one.shortName,
        {
          n: one.shortName === shortName ? n : 1,
          addressOf: (page: number) => (page === 1 ? './' : fileOfPage(one.shortName, page)),
        },
      ]),
    );
  }

  files(): [path: string, html: string][] {
    const { name, rows } = this.folder;
    const { setPlaces } = this.parts;
    const files: [string, string][] = [
      [`${name}index.html`, pageMarkup({ ...this.options(), turned: this.turns(null, 1) })],
    ];
    for (const arrangement of this.arrangements) {
      const { shortName, options } = arrangement;
      const standing = rows.filter((row) => slotsOf(row, setPlaces).includes(shortName));
      const count = pagesOf(options, shownIn(arrangement, standing).length);
      for (let n = 2; n <= count; n++)
        files.push([`${name}${fileOfPage(shortName, n)}`, this.turned(arrangement, n, count)]);
      if (!hasOwnPages(arrangement)) continue;
      for (const { file, html } of ownPages(this.options(1), arrangement))
        files.push([`${name}${this.folderOf(arrangement)}/${file}`, html]);
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

/** All pages of a hand-over by their paths. */
export function pagesIn(parts: HandoverParts, scripted: boolean): Record<string, string> {
  const { rows, context, translations } = parts;
  const main = context.languages[0] ?? 'en';
  const { ofLanguage } = foldersOf(context);
  const translated = ({
    language,
    words: own,
  }: {
    language: Language;
    words: ReadonlyMap<number, Words>;
  }) => {
    const shown = new Map(
      rows.map((row) => {
        const words = own.get(row.id);
        return [row.id, wordsFor({ words: row.words, language: main }, words && { words, language })];
      }),
    );
    return {
      name: `${ofLanguage.get(language)}/`,
      language,
      rows: rows.map((row) => ({ ...row, words: shown.get(row.id)!.words })),
      wordsLanguage: (row: PhotoRow) => shown.get(row.id)!.language,
    };
  };
  const folders: Folder[] = [{ name: '', language: main, rows }, ...translations.map(translated)];
  return Object.fromEntries(folders.flatMap((folder) => new PagesIn(parts, folder, scripted).files()));
}
