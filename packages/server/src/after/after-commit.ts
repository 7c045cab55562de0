// What follows from a change: ledgers are brought up to date, files are looked at again, and everybody is told who looks at
// what was changed, in whichever set.
import type { OutputFormat } from '@dusky-otter/core/contract';
import type { Effects } from '../changes/effects.ts';
import type { EventHub } from '../events/hub.ts';
import type { EventBatcher } from '../events/event-batcher.ts';
import type { Ledgers } from '../ledger/ledgers.ts';
import type { Preparer } from '../prepare/prepare.ts';
import { isDatabaseAway } from '../problems.ts';
import type { Report } from '../report.ts';
import { offersOf } from '../store/originals.ts';
import { setsOf } from '../store/photos.ts';
import { findSet, photoSetOf, refusalsOf, setsOfSite } from '../store/sets.ts';
import type { SiteCache } from '../store/site-cache.ts';
import type { StoredVariants } from '../store/stored-variants.ts';
import type { Vault } from '../vault/vault.ts';

export interface AfterDeps {
  sites: SiteCache;
  ledgers: Ledgers;
  preparer: Preparer;
  stored: StoredVariants;
  vault: Vault;
  hub: EventHub;
  batcher: EventBatcher;
  report: Report;
  /** An original came that nobody has read. */
  arrived: () => void;
}

export class AfterCommit {
  constructor(private readonly deps: AfterDeps) {}

  /** Done twice, it ends in the same state. */
  async settle(effects: Effects): Promise<void> {
    const {
      site,
      photos = [],
      left = [],
      sets = [],
      slots = [],
      offers = [],
      refusals = [],
      names = [],
    } = effects;
    if (site) await this.site(site);
    await this.files(effects.files ?? []);
    await this.photos(photos, left);
    for (const setId of sets) await this.set(setId);
    // Places of a set decide what all its photos want; a site's plans are renewed in all its sets already.
    if (!site?.plans) for (const setId of slots) this.renew(setId);
    for (const setId of offers) this.deps.hub.tell(setId, { type: 'offers', offers: await offersOf(setId) });
    for (const setId of refusals)
      this.deps.hub.tell(setId, { type: 'refusals', refusals: await refusalsOf(setId) });
    for (const setId of names) await this.deps.ledgers.renewNames(setId);
    if (effects.arrived) this.deps.arrived();
  }

  /** More is known of photos that nobody changed: they have the versions they had, and are read anew. */
  async known(photoIds: readonly number[]): Promise<void> {
    for (const [setId, ids] of await setsOf(photoIds)) {
      await this.photosIn(setId, ids);
      this.deps.batcher.photos(setId, { near: ids });
    }
  }

  /** What is decided on a site is told in all its sets; they are planned anew where that makes other plans. */
  private async site({ id: siteId, plans }: NonNullable<Effects['site']>): Promise<void> {
    this.deps.sites.forget(siteId);
    const site = await this.deps.sites.get(siteId);
    for (const id of await setsOfSite(siteId)) {
      this.deps.hub.tell(id, { type: 'site', site });
      if (plans) this.renew(id);
    }
  }

  /** Photos were changed, came or left: in every set in which they stand, or stood. */
  private async photos(photoIds: readonly number[], left: readonly number[]): Promise<void> {
    const standing = await setsOf(photoIds);
    for (const setId of left) standing.set(setId, [...photoIds]);
    for (const [setId, ids] of standing) await this.photosIn(setId, ids);
  }

  /** A set that can't be read holds up no other: it is read anew when somebody opens it. */
  private async photosIn(setId: number, ids: readonly number[]): Promise<void> {
    const { ledgers, batcher, preparer, report } = this.deps;
    try {
      const { versions, near, listed } = await ledgers.update(setId, ids);
      batcher.photos(setId, { versions, near, listed });
      batcher.counts(setId);
      preparer.look(setId, [...versions.keys()]);
    } catch (error) {
      if (isDatabaseAway(error)) throw error;
      ledgers.forget(setId);
      report(`Set ${setId} could not be read; it is left as it is.`, error);
    }
  }

  /** What is decided on a set, and when it was saved. */
  private async set(setId: number): Promise<void> {
    this.deps.hub.tell(setId, { type: 'set', set: await photoSetOf(await findSet(setId)) });
    this.deps.hub.tell(setId, { type: 'saved', at: new Date().toISOString() });
  }

  /** Rows of made files are gone; the files go as well. */
  private async files(files: NonNullable<Effects['files']>): Promise<void> {
    const { stored, vault } = this.deps;
    for (const { key, format } of files) {
      stored.leave(key);
      await vault.removeFile(vault.variant(key, format as OutputFormat));
    }
  }

  /** All photos of a set are looked at anew, beside everything else. */
  private renew(setId: number): void {
    const { preparer, batcher } = this.deps;
    void preparer.reconcileSoon(setId).then(() => batcher.photos(setId, { listed: true }));
  }
}
