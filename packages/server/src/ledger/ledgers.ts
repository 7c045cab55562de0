// The ledgers of all sets: made when a set is first asked for or a site changes, and kept in step photo by photo.
import type { Photo } from '@dusky-otter/core/contract';
import { standingOf, type FileState, type Standing } from '@dusky-otter/core/readiness';
import { photosInParts, loadPhotos } from '../store/photos.ts';
import { setPlacesIn } from '../store/sets.ts';
import { findSet, publishedNames } from '../store/sets.ts';
import type { SiteCache } from '../store/site-cache.ts';
import { inPassing } from '../turns.ts';
import { SetLedger, type Stir } from './set-ledger.ts';

/** Photos that are read at once. */
const PART = 400;
/** Of more than these the names are found all at once. */
const FEW = 8;

/** What was changed of a set's photos: by id with the version they have now, and others that say something else now. */
export interface Changed {
  versions: Map<number, number>;
  near: Set<number>;
  listed: boolean;
}

export class Ledgers {
  private readonly known = new Map<number, Promise<SetLedger>>();
  private readonly ready = new Map<number, SetLedger>();
  /** Those that are to be made anew and wait for their turn. */
  private readonly renewing = new Map<number, Promise<SetLedger>>();
  /** Changes of one set follow each other. */
  private readonly turns = new Map<number, Promise<unknown>>();

  constructor(
    private readonly sites: SiteCache,
    private readonly state: FileState,
  ) {}

  /** @throws ProblemError no-such-set; whatever makes the set unreadable */
  get(setId: number): Promise<SetLedger> {
    const before = this.known.get(setId);
    if (before) return before;
    const made = this.inTurn(setId, () => this.make(setId));
    this.known.set(setId, made);
    made.catch(() => {
      if (this.known.get(setId) === made) this.known.delete(setId);
    });
    return made;
  }

  /** Ledgers that are made. */
  get all(): ReadonlyMap<number, SetLedger> {
    return this.ready;
  }

  /**
   * Makes a set's ledger anew: its places, or its site, are others now. The one there is serves until then. Who asks while
   * another waits for its turn waits along: what is read then is what both want.
   */
  renew(setId: number): Promise<SetLedger> {
    const waiting = this.renewing.get(setId);
    if (waiting) return waiting;
    const made = this.inTurn(setId, () => {
      this.renewing.delete(setId);
      return this.make(setId);
    });
    this.renewing.set(setId, made);
    return made.then((ledger) => {
      this.known.set(setId, made);
      return ledger;
    });
  }

  forget(setId: number): void {
    this.known.delete(setId);
    this.ready.delete(setId);
  }

  private async make(setId: number): Promise<SetLedger> {
    const set = await findSet(setId);
    const site = await this.sites.get(set.siteId);
    const setPlaces = await setPlacesIn(set);
    const ledger = new SetLedger(this.state, await publishedNames(setId));
    for await (const part of photosInParts(setId, site.languages[0]!)) {
      for await (const photo of inPassing(part)) ledger.put(standingOf(photo, setPlaces, site));
    }
    // Files may have been made since their photo was counted: from here on nothing comes in between.
    for (const { id } of ledger.all) ledger.again(id);
    this.ready.set(setId, ledger);
    return ledger;
  }

  /** Photos of a set were changed, came or left: what they are is read anew. */
  async update(setId: number, photoIds: readonly number[]): Promise<Changed> {
    await this.get(setId);
    return this.inTurn(setId, async () => {
      // In its turn, and not before: while it waited another ledger may have taken the place of the one there was.
      const ledger = this.ready.get(setId) ?? (await this.make(setId));
      const set = await findSet(setId);
      const site = await this.sites.get(set.siteId);
      const setPlaces = await setPlacesIn(set);
      const changed: Changed = { versions: new Map(), near: new Set(), listed: false };
      for (let at = 0; at < photoIds.length; at += PART) {
        const asked = photoIds.slice(at, at + PART);
        const photos = await loadPhotos(setId, site.languages[0]!, asked);
        await this.take(ledger, asked, photos, (photo) => standingOf(photo, setPlaces, site), changed);
      }
      for (const id of changed.versions.keys()) changed.near.delete(id);
      return changed;
    });
  }

  /** Names went out: they belong to their photos from now on. */
  async renewNames(setId: number): Promise<void> {
    await this.get(setId);
    return this.inTurn(setId, async () => this.ready.get(setId)?.publish(await publishedNames(setId)));
  }

  private async take(
    ledger: SetLedger,
    asked: readonly number[],
    photos: readonly Photo[],
    standing: (photo: Photo) => Standing,
    changed: Changed,
  ): Promise<void> {
    const present = new Set(photos.map(({ id }) => id));
    const stirred = ({ near, listed }: Stir) => {
      for (const id of near) changed.near.add(id);
      changed.listed ||= listed;
    };
    if (photos.length > FEW) ledger.holdNames();
    try {
      for await (const photo of inPassing(photos)) {
        changed.versions.set(photo.id, photo.version);
        stirred(ledger.put(standing(photo)));
      }
    } finally {
      for (const id of ledger.releaseNames()) changed.near.add(id);
    }
    for (const id of asked) if (!present.has(id)) stirred(ledger.remove(id));
  }

  private inTurn<T>(setId: number, body: () => Promise<T>): Promise<T> {
    const result = (this.turns.get(setId) ?? Promise.resolve()).then(body);
    const settled = result.catch(() => undefined);
    this.turns.set(setId, settled);
    return result;
  }
}
