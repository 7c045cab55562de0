// What a hand-over is made from, and where its pictures lie in it.
import type {
  Language,
  PageEntry,
  PhotoRow,
  PlanContext,
  RowVariant,
  SetPage,
  SetPlaces,
  Words,
} from '@dusky-otter/core/contract';
import { deliveredName } from '@dusky-otter/core/naming';
import { ProblemError } from '../problems.ts';

export interface HandoverParts {
  site: string;
  /** Where the site is found, or "". */
  address?: string;
  set: string;
  context: PlanContext;
  setPlaces: SetPlaces;
  /** The set's own page; null: one that follows from where its photos stand. */
  page?: SetPage | null;
  setId?: number;
  /** The site's pages, and how one leads to another; each lies in its folder beside the others. */
  entries?: readonly PageEntry[];
  addressOf?: (page: PageEntry) => string;
  rows: PhotoRow[];
  /** Photos of other sets among them, each with its set: they stand on every page of the site. */
  guests?: ReadonlyMap<number, number>;
  /** Words in the site's other languages, by photo. */
  translations: { language: Language; words: ReadonlyMap<number, Words> }[];
  /** Speaking part of the file names of every photo of the set, by id. */
  names: ReadonlyMap<number, string>;
}

/** Paths of stored variants inside the hand-over. */
export const pathsIn =
  ({ names, context }: Pick<HandoverParts, 'names' | 'context'>) =>
  (row: PhotoRow, variant: RowVariant): string => {
    const { contentHash } = variant;
    if (contentHash === null) throw new ProblemError('not-ready');
    return `photos/${deliveredName(row, names.get(row.id)!, { ...variant, contentHash }, context)}`;
  };
