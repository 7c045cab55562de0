// The open set as screens see it: what the server has confirmed, with edits on their way on top.
import { useQueries, useQuery } from '@tanstack/react-query';
import { asOrdered } from '@dusky-otter/core/arrange';
import type {
  EditDepth,
  Language,
  Offer,
  PhotoRow,
  PhotoSet,
  Preparation,
  Refusal,
  SentPhoto,
  SetCounts,
  SetHeader,
  SetPlaces,
  Site,
} from '@dusky-otter/core/contract';
import { inOrder, type Command, type PhotoCommand } from '@dusky-otter/core/edits';
import { setPlacesOf, standsIn, variantsOf } from '@dusky-otter/core/plan';
import { concernsOf, type Concern } from '@dusky-otter/core/readiness';
import { createContext, use, useMemo } from 'react';
import { useParams } from 'react-router';
import { useShallow } from 'zustand/react/shallow';
import { api, type Shown } from '../api/client.ts';
import { keys, PAGE } from './keys.ts';
import { photoWith, setWith, siteWith } from './overlay.ts';
import { client, headerQuery, pageQuery, photoQuery, useSending } from './state.ts';

/** A photo with its files as they are planned here, and what the server knows of it among the others. */
export type Row = PhotoRow & SentPhoto;

export const useSetId = (): number => Number(useParams().setId);

const NONE: readonly PhotoCommand[] = [];

export const useHeader = () => useQuery(headerQuery(useSetId()));

function usePart<T>(select: (header: SetHeader) => T): T | null {
  const { data } = useQuery({ ...headerQuery(useSetId()), select });
  return data ?? null;
}

/** Commands on their way that are no photo's. */
function useCommands(): readonly Command[] {
  const setId = useSetId();
  return useSending(
    useShallow(({ pending }) =>
      pending
        .filter((edit) => edit.setId === setId)
        .flatMap((edit) => edit.commands)
        .filter((command) => !('photo' in command)),
    ),
  );
}

/** The set and its site that are open. Found once for all rows: each asks for them several times. */
export interface OpenSet {
  set: PhotoSet | null;
  site: Site | null;
  setPlaces: SetPlaces;
}

const NOWHERE: SetPlaces = { open: [], shown: null };

export const OpenSetContext = createContext<OpenSet>({ set: null, site: null, setPlaces: NOWHERE });

/** For the provider alone. */
export function useOpenSet(): OpenSet {
  const set = usePart((header) => header.set);
  const site = usePart((header) => header.site);
  const commands = useCommands();
  const now = useMemo(
    () => ({ set: set && setWith(set, commands), site: site && siteWith(site, commands) }),
    [set, site, commands],
  );
  // As a text, since a page is another one after every letter that is typed on it, and rows are planned by its places.
  const seen = JSON.stringify(now.set ? setPlacesOf(now.set) : NOWHERE);
  const setPlaces = useMemo(() => JSON.parse(seen) as SetPlaces, [seen]);
  return useMemo(() => ({ ...now, setPlaces }), [now, setPlaces]);
}

export const useSet = (): PhotoSet | null => use(OpenSetContext).set;
export const useSite = (): Site | null => use(OpenSetContext).site;

/** Where photos of the set are seen; the same object as long as neither its open slots nor the places on its page change. */
export const useSetPlaces = (): SetPlaces => use(OpenSetContext).setPlaces;
export const useCounts = (): SetCounts | null => usePart((header) => header.counts);
export const useEdits = (): EditDepth | null => usePart((header) => header.edits);
export const usePreparation = (): Preparation | null => usePart((header) => header.preparation);

/**
 * One text a state of the page: what shows it is loaded anew when a decision is saved, and once when files that were missing
 * are all there.
 */
export function useEdition(): string {
  const savedAt = useEdits()?.savedAt ?? null;
  const preparation = usePreparation();
  const whole = preparation !== null && preparation.made + preparation.failed >= preparation.wanted;
  return `${savedAt}|${whole}`;
}

const NO_REFUSALS: readonly Refusal[] = [];
export const useRefusals = (): readonly Refusal[] => usePart((header) => header.refusals) ?? NO_REFUSALS;

const NO_OFFERS: readonly Offer[] = [];
export const useOffers = (): readonly Offer[] => usePart((header) => header.offers) ?? NO_OFFERS;

const rows = new WeakMap<SentPhoto, { setPlaces: SetPlaces; site: Site; row: Row }>();

/** A photo as a row; the same object as long as nothing of it changes. */
export function rowOf(photo: SentPhoto, setPlaces: SetPlaces, site: Site): Row {
  const before = rows.get(photo);
  if (before?.setPlaces === setPlaces && before.site === site) return before.row;
  const files = {
    get: (key: string) => photo.files[key],
    failureOf: (key: string) => photo.failures[key] ?? null,
  };
  const row = { ...photo, variants: variantsOf(photo, setPlaces, site, files) };
  rows.set(photo, { setPlaces, site, row });
  return row;
}

const shown = new WeakMap<SentPhoto, { commands: readonly PhotoCommand[]; photo: SentPhoto }>();

/** A confirmed photo with commands on top; the same object as long as neither changes. Words in other languages are not shown. */
export function shownPhoto(
  confirmed: SentPhoto,
  commands: readonly PhotoCommand[],
  language: Language | undefined,
): SentPhoto {
  if (commands.length === 0) return confirmed;
  const before = shown.get(confirmed);
  if (before?.commands === commands) return before.photo;
  const own = commands.filter((command) => command.kind !== 'words' || command.language === language);
  const photo = photoWith(confirmed, own);
  shown.set(confirmed, { commands, photo });
  return photo;
}

export const useRow = (id: number): Row | null => useRowOr(id).row;

/** A row, or that there is no such photo. */
export function useRowOr(id: number): { row: Row | null; gone: boolean } {
  const { data: confirmed, isError } = useQuery(photoQuery(useSetId(), id));
  const commands = useSending((state) => state.commands.get(id) ?? NONE);
  const setPlaces = useSetPlaces();
  const site = useSite();
  const row =
    confirmed && site ? rowOf(shownPhoto(confirmed, commands, site.languages[0]), setPlaces, site) : null;
  return { row, gone: isError && !confirmed };
}

/** Rows by their ids, those that are read. */
export function useRows(ids: readonly number[]): Row[] {
  const setId = useSetId();
  const setPlaces = useSetPlaces();
  const site = useSite();
  const photos = useQueries({ queries: ids.map((id) => photoQuery(setId, id)) });
  const commands = useSending((state) => state.commands);
  return photos.flatMap(({ data }) =>
    data && site
      ? [rowOf(shownPhoto(data, commands.get(data.id) ?? NONE, site.languages[0]), setPlaces, site)]
      : [],
  );
}

const concerns = new WeakMap<Row, Concern[]>();

/** Everything that still concerns a row; found once for all cells that ask. */
export function concernsFor(row: Row, setPlaces: SetPlaces, site: Site): Concern[] {
  const before = concerns.get(row);
  if (before) return before;
  const found = concernsOf(row, setPlaces, site, row.sameAs);
  concerns.set(row, found);
  return found;
}

export function useConcerns(row: Row): readonly Concern[] {
  const setPlaces = useSetPlaces();
  const site = useSite();
  return site ? concernsFor(row, setPlaces, site) : [];
}

/** The photos under a filter as far as they are read: by their place, and how many there are. */
export interface List {
  total: number;
  /** Nothing is known of it yet. */
  reading: boolean;
  problem: string | null;
  /** The photo at a place; undefined while it is being read. */
  at: (index: number) => number | undefined;
  /** Photos that are read, in order; `first` is the place of the first of them. */
  first: number;
  ids: readonly number[];
}

/** A photo as it is shown now, from the cache. */
function cached(setId: number, id: number): SentPhoto | undefined {
  const photo = client.getQueryData<SentPhoto>(keys.photo(setId, id));
  const language = client.getQueryData<SetHeader>(keys.set(setId))?.site.languages[0];
  return photo && shownPhoto(photo, useSending.getState().commands.get(id) ?? NONE, language);
}

/** A photo of the cache, for acts that are no part of drawing. */
export const rowAt = (setId: number, id: number): SentPhoto | null => cached(setId, id) ?? null;

/**
 * Photos under a filter around the places from `from` to `to`. What an edit on its way moves or puts into the bin is
 * shown so at once.
 */
export function useList(show: Shown, from: number, to: number): List {
  const setId = useSetId();
  const [first, last] = [Math.max(0, Math.floor(from / PAGE)), Math.max(0, Math.floor(to / PAGE))];
  const wanted = Array.from({ length: last - first + 1 }, (_, n) => first + n);
  const pages = useQueries({ queries: wanted.map((page) => pageQuery(setId, show, page)) });
  // Moves and the bin are applied to what is shown: whenever such an edit is made or answered, the list is made anew.
  const moving = useSending(
    useShallow(({ commands }) =>
      [...commands.values()].flat().filter(({ kind }) => kind === 'position' || kind === 'bin'),
    ),
  );
  const moves = useSending((state) => state.moves);
  const total = pages.find(({ data }) => data)?.data?.total ?? 0;
  const read = pages.flatMap(({ data }) => data?.ids ?? []);
  const known = read.join();
  const ids = useMemo(() => {
    const photos = read.flatMap((id) => cached(setId, id) ?? []);
    const stays = photos.filter(({ binned }) => binned === (show === 'bin'));
    return (photos.length === read.length ? stays.sort(inOrder) : stays).map(({ id }) => id);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `known` stands for the ids in `read`, `moving` and `moves` for what the cache shows of them
  }, [setId, show, known, moving, moves]);
  const missing = pages.findIndex(({ data }) => data === undefined);
  return {
    total: Math.max(ids.length, total - (read.length - ids.length)),
    reading: pages.every(({ data }) => data === undefined),
    problem: pages.find(({ error }) => error)?.error?.message ?? null,
    first: first * PAGE,
    ids: missing < 0 ? ids : ids.slice(0, missing * PAGE),
    at: (index) => {
      const place = index - first * PAGE;
      return missing >= 0 && place >= missing * PAGE ? undefined : ids[place];
    },
  };
}

/**
 * The photos that stand in a place, in an order of its own or else the set's. What an edit on its way puts in or takes
 * out is shown so at once, and what was answered is not forgotten until the list is read anew.
 */
export function useMembers(slot: string, order?: readonly number[]): { ids: number[]; reading: boolean } {
  const setId = useSetId();
  const setPlaces = useSetPlaces();
  const { data } = useQuery({ queryKey: keys.members(setId, slot), queryFn: () => api.members(setId, slot) });
  const commands = useSending((state) => state.commands);
  const moves = useSending((state) => state.moves);
  const ids = useMemo(() => {
    const listed = data?.ids ?? [];
    const standing = new Set(listed);
    const here = client.getQueryCache().findAll({ queryKey: keys.photos(setId) });
    const photos = here.flatMap(({ queryKey }) => cached(setId, queryKey[2] as number) ?? []);
    const joined = photos.filter((photo) => {
      const stands = !photo.binned && standsIn(photo, setPlaces).includes(slot);
      if (!stands) standing.delete(photo.id);
      return stands && !standing.has(photo.id);
    });
    const all = [...listed.filter((id) => standing.has(id)), ...joined.sort(inOrder).map(({ id }) => id)];
    return asOrdered(
      all.map((id) => ({ id })),
      order,
    ).map(({ id }) => id);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `commands` and `moves` stand for what the cache shows of them
  }, [data, setId, slot, setPlaces, order, commands, moves]);
  return { ids, reading: data === undefined };
}

/** Where a photo stands in its set, and which are beside it. */
export function useAround(id: number) {
  const setId = useSetId();
  const { data } = useQuery({
    queryKey: keys.around(setId, id),
    queryFn: () => api.around(setId, 'all', id),
  });
  return data ?? null;
}
