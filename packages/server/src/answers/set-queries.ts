// What screens ask of a set: its head, its photos in pages, and the sets of a site at a glance.
import type {
  Photo,
  PhotoList,
  PhotoPage,
  SentPhoto,
  SetHeader,
  SetSummary,
  Site,
} from '@dusky-otter/core/contract';
import type { Ledgers } from '../ledger/ledgers.ts';
import type { SetLedger, Shown } from '../ledger/set-ledger.ts';
import type { Preparer } from '../prepare/prepare.ts';
import { isDatabaseAway, ProblemError } from '../problems.ts';
import type { SiteCache } from '../store/site-cache.ts';
import { loadPhotos, versionsOf } from '../store/photos.ts';
import { offerCount, offersOf } from '../store/originals.ts';
import { setPlacesIn } from '../store/sets.ts';
import { sentPhoto } from './sent.ts';
import {
  depthOf,
  findSet,
  newestEdit,
  photoSetOf,
  readSet,
  refusalCount,
  refusalsOf,
  setsIn,
  type Looking,
  type SetRow,
} from '../store/sets.ts';

/** Pictures of a set on the list of sets. */
const PICTURES = 5;

export class SetQueries {
  constructor(
    private readonly sites: SiteCache,
    private readonly ledgers: Ledgers,
    private readonly preparer: Preparer,
  ) {}

  /** What is read first; a window that names no edit sees the set for the first time. @throws ProblemError no-such-set, set-unreadable */
  async header(setId: number, { window, since }: Partial<Looking>): Promise<SetHeader> {
    const set = await findSet(setId);
    const newest = await newestEdit(setId);
    return readSet(async () => ({
      site: await this.sites.get(set.siteId),
      set: await photoSetOf(set),
      counts: (await this.ledgers.get(setId)).counts,
      refusals: await refusalsOf(setId),
      offers: await offersOf(setId),
      preparation: this.preparer.progressOf(setId),
      edits: await depthOf(setId, { window: window ?? '', since: since ?? newest }),
      newestEdit: newest,
    }));
  }

  /**
   * Photos of a set in the order of the ids; ids that are none of its photos are passed over.
   * @param language of their words; the site's first where none is named
   * @throws ProblemError bad-request where the site has no such language
   */
  async photos(setId: number, ids: readonly number[], language?: string): Promise<SentPhoto[]> {
    const set = await findSet(setId);
    return readSet(async () => {
      const site = await this.sites.get(set.siteId);
      const ledger = await this.ledgers.get(setId);
      const setPlaces = await setPlacesIn(set);
      if (language !== undefined && !site.languages.includes(language))
        throw new ProblemError('bad-request', 'The site has no such language.');
      const photos = await loadPhotos(setId, language ?? site.languages[0]!, ids);
      return this.inOrderOf(ids, photos, (photo) => sentPhoto(photo, setPlaces, site, this.preparer, ledger));
    });
  }

  private inOrderOf(
    ids: readonly number[],
    photos: readonly Photo[],
    send: (photo: Photo) => SentPhoto,
  ): SentPhoto[] {
    const byId = new Map(photos.map((photo) => [photo.id, photo]));
    return ids.flatMap((id) => {
      const photo = byId.get(id);
      return photo ? [send(photo)] : [];
    });
  }

  /** A part of the photos under a filter. */
  async page(
    setId: number,
    shown: Shown,
    { from, count, language }: { from: number; count: number; language?: string },
  ): Promise<PhotoPage> {
    await findSet(setId);
    const ledger = await readSet(() => this.ledgers.get(setId));
    const ids = ledger.ids(shown);
    return {
      total: ids.length,
      from,
      photos: await this.photos(setId, ids.slice(from, from + count), language),
    };
  }

  /** All photos under a filter by id, with their versions. */
  async list(setId: number, shown: Shown): Promise<PhotoList> {
    await findSet(setId);
    return this.listed((await readSet(() => this.ledgers.get(setId))).ids(shown));
  }

  /** The photos that stand in a place, likewise. */
  async members(setId: number, slot: string): Promise<PhotoList> {
    await findSet(setId);
    return this.listed((await readSet(() => this.ledgers.get(setId))).members(slot));
  }

  private async listed(ids: readonly number[]): Promise<PhotoList> {
    const versionOf = await versionsOf(ids);
    const present = ids.filter((id) => versionOf.has(id));
    return { ids: present, versions: present.map((id) => versionOf.get(id)!) };
  }

  /** Sets of a site at a glance. One that can't be read says so and holds up no other. */
  async summaries(site: Pick<Site, 'id'>): Promise<SetSummary[]> {
    const sets = await setsIn(site.id);
    return Promise.all(sets.map((set) => this.summary(set)));
  }

  private async summary(set: SetRow): Promise<SetSummary> {
    const { id, name, archived, arranged, rehearsed, handedOver, workedAt } = set;
    const base = {
      id,
      name,
      archived,
      arranged,
      rehearsed,
      handedOver,
      workedAt: workedAt?.toISOString() ?? null,
    };
    try {
      const ledger: SetLedger = await readSet(() => this.ledgers.get(id));
      const refusals = await refusalCount(id);
      const offers = await offerCount(id);
      const { counts } = ledger;
      return {
        ...base,
        photos: counts.filters.all,
        pictures: ledger.first(PICTURES),
        counts,
        refusals,
        offers,
        problem: null,
      };
    } catch (error) {
      if (isDatabaseAway(error)) throw error;
      const problem = new ProblemError('set-unreadable').message;
      return { ...base, photos: 0, pictures: [], counts: null, refusals: 0, offers: 0, problem };
    }
  }
}
