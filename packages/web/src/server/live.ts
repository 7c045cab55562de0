// Events of the open set, taken into the cache: what changed is put in place or read anew, and no more than that.
import type { QueryClient } from '@tanstack/react-query';
import type { SentPhoto, SetEvent, SetHeader, StoredFacts } from '@dusky-otter/core/contract';
import { keys } from './keys.ts';

/** While files are made lists change many times a second; they are read anew once in so many ms. */
const LIST_PAUSE = 800;

/** Photos that are read at once when events name them. */
const MOST_READ = 200;

type Change<T> = (before: T) => T;

/** A photo with a file that was made. */
const withMade =
  (key: string, facts: StoredFacts): Change<SentPhoto> =>
  (photo) => {
    const { [key]: failure, ...failures } = photo.failures;
    return {
      ...photo,
      files: { ...photo.files, [key]: facts },
      failures: failure === undefined ? photo.failures : failures,
    };
  };

/** A photo without files that turned out to be lost. */
const without =
  (lost: ReadonlySet<string>): Change<SentPhoto> =>
  (photo) => {
    const files = Object.entries(photo.files).filter(([key]) => !lost.has(key));
    return files.length === Object.keys(photo.files).length
      ? photo
      : { ...photo, files: Object.fromEntries(files) };
  };

const isOlder = (photo: SentPhoto, before: SentPhoto): boolean =>
  photo.version < before.version || (photo.version === before.version && photo.asOf < before.asOf);

export class Live {
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** Files that events told of: an answer may be older than the events that overtook it. */
  private readonly made = new Map<string, StoredFacts>();

  constructor(
    private readonly client: QueryClient,
    private readonly setId: number,
    private readonly read: (ids: readonly number[]) => Promise<SentPhoto[]>,
    /** A photo stands elsewhere in the order, or went into the bin or came out: lists are made anew. */
    private readonly moved: () => void = () => undefined,
  ) {}

  close(): void {
    if (this.timer) clearTimeout(this.timer);
  }

  /** Puts photos as they were read into the cache: never an older state over a newer one, in whatever order answers come. */
  put(photos: readonly SentPhoto[]): void {
    let moved = false;
    for (const photo of photos) {
      const known = this.client.getQueryData<SentPhoto>(keys.photo(this.setId, photo.id));
      moved ||= known !== undefined && (known.binned !== photo.binned || known.position !== photo.position);
      this.client.setQueryData<SentPhoto>(keys.photo(this.setId, photo.id), (before) =>
        before && isOlder(photo, before) ? before : this.caughtUp(photo, before),
      );
    }
    if (moved) this.moved();
  }

  /** A photo with the files that events told of before its answer came. */
  private caughtUp(photo: SentPhoto, before: SentPhoto | undefined): SentPhoto {
    const files = { ...photo.files };
    for (const key of Object.keys(before?.files ?? {})) {
      const facts = this.made.get(key);
      if (facts) files[key] ??= facts;
    }
    return { ...photo, files };
  }

  hear(event: SetEvent): void {
    switch (event.type) {
      case 'preparation':
        return this.header((before) => ({ ...before, preparation: event.preparation }));
      case 'refusals':
        return this.header((before) => ({ ...before, refusals: event.refusals }));
      case 'offers':
        return this.header((before) => ({ ...before, offers: event.offers }));
      case 'counts':
        return this.header((before) => ({ ...before, counts: event.counts }));
      case 'set':
        return this.header((before) =>
          event.set.version >= before.set.version ? { ...before, set: event.set } : before,
        );
      case 'site':
        return this.header((before) =>
          event.site.version >= before.site.version ? { ...before, site: event.site } : before,
        );
      case 'saved':
        return this.header((before) => ({ ...before, edits: { ...before.edits, savedAt: event.at } }));
      case 'made': {
        const { key, photo, bytes, contentHash, quality, difference, standIn } = event;
        const facts = {
          bytes,
          contentHash,
          quality,
          difference,
          ...(standIn !== undefined && { standIn }),
        };
        this.made.set(key, facts);
        return this.photo(photo, withMade(key, facts));
      }
      case 'failed': {
        const failed = Object.fromEntries(event.keys.map((key) => [key, event.sentence]));
        return this.photo(event.photo, (before) => ({
          ...before,
          failures: { ...before.failures, ...failed },
        }));
      }
      case 'unmade': {
        const lost = new Set(event.keys);
        for (const key of lost) this.made.delete(key);
        for (const id of this.knownIds()) this.photo(id, without(lost));
        return;
      }
      case 'photos':
        return this.photosChanged(event);
      case 'reset':
        return this.readAll();
    }
  }

  private header(change: Change<SetHeader>): void {
    this.client.setQueryData<SetHeader>(keys.set(this.setId), (before) => before && change(before));
  }

  private photo(id: number, change: Change<SentPhoto>): void {
    this.client.setQueryData<SentPhoto>(keys.photo(this.setId, id), (before) => before && change(before));
  }

  private knownIds(): number[] {
    const found = this.client.getQueryCache().findAll({ queryKey: keys.photos(this.setId) });
    return found.map(({ queryKey }) => queryKey[2] as number);
  }

  private photosChanged({ changed, near, listed }: Extract<SetEvent, { type: 'photos' }>): void {
    const versionHere = (id: number) =>
      this.client.getQueryData<SentPhoto>(keys.photo(this.setId, id))?.version;
    const older = changed.filter(([id, version]) => (versionHere(id) ?? version) < version);
    const known = near.filter((id) => versionHere(id) !== undefined);
    const shown = [...new Set([...older.map(([id]) => id), ...known])];
    if (shown.length <= MOST_READ) void this.readPhotos(shown);
    else {
      // Many at once are cheaper to read when they are looked at; those on screen are.
      const all = { queryKey: keys.photos(this.setId) };
      const active = this.client.getQueryCache().findAll({ ...all, type: 'active' });
      const onScreen = new Set(active.map(({ queryKey }) => queryKey[2] as number));
      this.client.removeQueries({ ...all, type: 'inactive' });
      void this.readPhotos(shown.filter((id) => onScreen.has(id)));
    }
    if (changed.length > 0) this.stale(keys.allIds(this.setId));
    if (listed) this.listsSoon();
  }

  /** Failing is no harm: events go on, and a reset follows a broken connection. */
  private async readPhotos(ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    try {
      this.put(await this.read(ids));
    } catch {
      for (const id of ids) this.stale(keys.photo(this.setId, id));
    }
  }

  private stale(queryKey: readonly unknown[]): void {
    void this.client.invalidateQueries({ queryKey });
  }

  /** Which photos stand where is read anew, soon. */
  listsSoon(): void {
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.stale(keys.pages(this.setId));
      this.stale(keys.allIds(this.setId));
      this.stale(keys.allAround(this.setId));
    }, LIST_PAUSE);
  }

  /** Events were missed: everything that is looked at is read anew, the rest when it is looked at. */
  private readAll(): void {
    this.made.clear();
    this.client.removeQueries({ queryKey: keys.photos(this.setId), type: 'inactive' });
    this.stale(keys.set(this.setId));
    this.stale(keys.photos(this.setId));
    this.listsSoon();
  }
}
