// What the cache of the server's state is filed under.
import type { Shown } from '../api/client.ts';

/** Photos that are read together. */
export const PAGE = 40;

export const keys = {
  set: (setId: number) => ['set', setId] as const,
  /** One photo of a set, as the server has confirmed it. */
  photo: (setId: number, id: number) => ['photo', setId, id] as const,
  photos: (setId: number) => ['photo', setId] as const,
  /** Ids of a page under a filter, and how many stand under it. */
  page: (setId: number, shown: Shown, page: number) => ['page', setId, shown, page] as const,
  pages: (setId: number) => ['page', setId] as const,
  /** All ids under a filter with their versions; read only when a selection or a key reaches beyond what is shown. */
  ids: (setId: number, shown: Shown) => ['ids', setId, shown] as const,
  /** Ids of the photos that stand in a place. */
  members: (setId: number, slot: string) => ['ids', setId, 'place', slot] as const,
  allIds: (setId: number) => ['ids', setId] as const,
  around: (setId: number, id: number) => ['around', setId, id] as const,
  allAround: (setId: number) => ['around', setId] as const,
  /** A photo's words in a language that the table doesn't show. */
  wordsIn: (setId: number, id: number, language: string, version: number) =>
    ['words', setId, id, language, version] as const,
  sites: ['sites'] as const,
};
