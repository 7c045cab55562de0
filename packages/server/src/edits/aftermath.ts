// What follows from a change: ledgers are brought up to date, files are looked at again, and everybody is told who
// looks at what was changed, in whichever set.
import type { Offer, SentPhoto } from '@dusky-otter/core';
import type { EventHub } from '../events/hub.ts';
import { setsOfSite, type Ledgers } from '../ledger/ledgers.ts';
import type { Preparer } from '../prepare/prepare.ts';
import type { Told } from '../prepare/told.ts';
import { offersOf } from '../sets/originals.ts';
import { setsOf } from '../sets/photos.ts';
import { findSet, photoSetOf } from '../sets/sets.ts';
import { isDatabaseAway } from '../problems.ts';
import type { Report } from '../report.ts';
import type { Shelf } from '../sets/shelf.ts';
import type { SiteBook } from '../sites/site-book.ts';
import type { Outcome } from './edits.ts';

/** An answer carries the photos that an edit changed; of more than these the list is read anew. */
const MOST_ANSWERED = 50;

export class Aftermath {
  constructor(
    private readonly sites: SiteBook,
    private readonly ledgers: Ledgers,
    private readonly preparer: Preparer,
    private readonly shelf: Shelf,
    private readonly hub: EventHub,
    private readonly told: Told,
    private readonly report: Report,
  ) {}

  /** @returns the changed photos as they are now in this set, the first of them where they are many */
  async settle(setId: number, outcome: Outcome): Promise<SentPhoto[]> {
    const { siteId } = await findSet(setId);
    if (outcome.site) await this.site(siteId);
    await this.photos(outcome.photoIds);
    await this.set(setId);
    // Places of a set decide what all its photos want.
    if (outcome.slots && !outcome.site) this.renew(setId);
    if (outcome.originals) for (const id of (await setsOf(outcome.photoIds)).keys()) await this.offers(id);
    return this.shelf.photos(setId, outcome.photoIds.slice(0, MOST_ANSWERED));
  }

  /** What is decided on a site: all its sets are looked at anew. */
  async site(siteId: number): Promise<void> {
    this.sites.forget(siteId);
    const site = await this.sites.get(siteId);
    for (const id of await setsOfSite(siteId)) {
      this.hub.tell(id, { type: 'site', site });
      this.renew(id);
    }
  }

  /** Photos were changed, came or left: in every set in which they stand, or stood. */
  async photos(photoIds: readonly number[], left: readonly number[] = []): Promise<void> {
    const standing = await setsOf(photoIds);
    for (const setId of left) standing.set(setId, [...photoIds]);
    for (const [setId, ids] of standing) await this.photosIn(setId, ids);
  }

  /** More is known of photos that nobody changed: they have the versions they had, and are read anew. */
  async known(photoIds: readonly number[]): Promise<void> {
    for (const [setId, ids] of await setsOf(photoIds)) {
      await this.photosIn(setId, ids);
      this.told.photos(setId, { near: ids });
    }
  }

  /** A set that can't be read holds up no other: it is read anew when somebody opens it. */
  private async photosIn(setId: number, ids: readonly number[]): Promise<void> {
    try {
      const { versions, near, listed } = await this.ledgers.update(setId, ids);
      this.told.photos(setId, { versions, near, listed });
      this.told.counts(setId);
      this.preparer.look(setId, [...versions.keys()]);
    } catch (error) {
      if (isDatabaseAway(error)) throw error;
      this.ledgers.forget(setId);
      this.report(`Set ${setId} could not be read; it is left as it is.`, error);
    }
  }

  /** Files that may take a photo's place. @returns them */
  async offers(setId: number): Promise<Offer[]> {
    const offers = await offersOf(setId);
    this.hub.tell(setId, { type: 'offers', offers });
    return offers;
  }

  /** What is decided on a set, and when it was saved. */
  async set(setId: number): Promise<void> {
    this.hub.tell(setId, { type: 'set', set: await photoSetOf(await findSet(setId)) });
    this.hub.tell(setId, { type: 'saved', at: new Date().toISOString() });
  }

  /** All photos of a set are looked at anew, beside everything else. */
  private renew(setId: number): void {
    void this.preparer.reconcileSoon(setId).then(() => this.told.photos(setId, { listed: true }));
  }
}
