// What is costly to find for thousands of photos of a set, kept in step with every change: how each stands, what they
// add up to, which share an alt text, what each is called, and in which order they are.
import type { Filter, SetCounts, SlotId, Stop, WordCounts } from '@dusky-otter/core/contract';
import { inOrder } from '@dusky-otter/core/edits';
import { speakingNames } from '@dusky-otter/core/naming';
import {
  FILTERS,
  presentOf,
  SEAL_PARTS,
  type FileState,
  type Present,
  type Standing,
} from '@dusky-otter/core/readiness';
import { PlaceSums } from './place-sums.ts';

interface Entry {
  standing: Standing;
  present: Present;
}

/** The photos of a set that one asks for: those under a filter, or in the bin. */
export type Shown = Filter | 'bin';

/** What a change made of others and of the list. */
export interface Stir {
  /** Other photos whose row says something else now: same alt text, or another name. */
  near: number[];
  /** Which photos stand under a filter, or in which order, may have changed. */
  listed: boolean;
}

const none = (): SetCounts => ({
  filters: { all: 0, words: 0, crop: 0, budget: 0, small: 0, unplaced: 0, ready: 0 },
  open: { frame: 0, weigh: 0, describe: 0, arrange: 0 },
  words: { described: 0, decorative: 0, kept: 0, open: 0 },
  binned: 0,
  places: {},
  placed: 0,
  camera: 0,
  phone: { sent: 0, complete: true },
  laptop: { sent: 0, complete: true },
});

/** How far the files of a set are; `saved` in bytes. */
type FileSums = Record<'wanted' | 'made' | 'failed' | 'improvable' | 'improved' | 'saved', number>;

export const noFiles = (): FileSums => ({
  ...{ wanted: 0, made: 0, failed: 0 },
  ...{ improvable: 0, improved: 0, saved: 0 },
});

/** How a photo's words stand. */
const wordsOf = ({ decorative, kept }: Standing, { open }: Present): keyof WordCounts =>
  open.has('describe') ? 'open' : decorative ? 'decorative' : kept ? 'kept' : 'described';

const sameSet = <T>(a: ReadonlySet<T>, b: ReadonlySet<T>): boolean =>
  a.size === b.size && [...a].every((one) => b.has(one));

export class SetLedger {
  private readonly entries = new Map<number, Entry>();
  /** All photos in the set's order, the bin's too. */
  private ordered: Standing[] = [];
  private readonly byHash = new Map<string, number>();
  private readonly byHeard = new Map<string, Set<number>>();
  private names: ReadonlyMap<number, string> | null = null;
  /** Photos whose names are found later, all at once. */
  private held: Set<number> | null = null;
  private readonly sums = none();
  private readonly places = new Map<SlotId, PlaceSums>();
  private incomplete = { phone: 0, laptop: 0 };
  private readonly files = noFiles();

  constructor(
    private readonly state: FileState,
    private published: Readonly<Record<string, number>>,
  ) {}

  get counts(): SetCounts {
    const { phone, laptop } = this.sums;
    return {
      ...this.sums,
      filters: { ...this.sums.filters },
      open: { ...this.sums.open },
      words: { ...this.sums.words },
      // A place that nobody stands in any more is none that is counted.
      places: Object.fromEntries(
        [...this.places].filter(([, place]) => place.photos > 0).map(([slot, place]) => [slot, place.counts]),
      ),
      phone: { ...phone, complete: this.incomplete.phone === 0 },
      laptop: { ...laptop, complete: this.incomplete.laptop === 0 },
    };
  }

  /** Files that its photos want, and how many of them are made or could not be. */
  get progress(): FileSums {
    return { ...this.files };
  }

  standing(id: number): Standing | undefined {
    return this.entries.get(id)?.standing;
  }

  /** The photo of an original, by its hash. */
  photoOf(hash: string): number | undefined {
    return this.byHash.get(hash);
  }

  /** Whether a file is wanted by a photo of this set. */
  wants(hash: string, key: string): boolean {
    const id = this.byHash.get(hash);
    return id !== undefined && this.entries.get(id)!.standing.keys.includes(key);
  }

  /** Ids of the photos under a filter, in the set's order. */
  ids(shown: Shown): number[] {
    const stands = ({ id, binned }: Standing): boolean =>
      shown === 'bin' ? binned : !binned && this.entries.get(id)!.present.filters.has(shown);
    return this.ordered.filter(stands).map(({ id }) => id);
  }

  /** Ids of the photos that stand in a place, in the set's order; never the bin's. */
  members(slot: string): number[] {
    return this.ordered.filter(({ binned, slots }) => !binned && slots.includes(slot)).map(({ id }) => id);
  }

  /**
   * The next photo under a filter with open work at a stop, behind another; from the first on where there is none behind.
   * @returns its place under the filter, too
   */
  next(shown: Filter, stop: Stop, after: number | null): { id: number; index: number } | null {
    const ids = this.ids(shown);
    const isOpen = (id: number) => this.entries.get(id)!.present.open.has(stop);
    const at = after === null ? -1 : ids.indexOf(after);
    const index = ids.findIndex((id, place) => place > at && isOpen(id));
    const found = index >= 0 ? index : ids.findIndex(isOpen);
    return found < 0 ? null : { id: ids[found]!, index: found };
  }

  /**
   * The next photo under a filter with open work at a stop by doubt, the most doubtful first: behind another, or the
   * first of all where that one is done or was the last.
   */
  nextByDoubt(shown: Filter, stop: Stop, after: number | null): { id: number; index: number } | null {
    const ids = this.ids(shown);
    const doubt = (id: number) => this.entries.get(id)!.standing.doubt;
    const open = ids.filter((id) => this.entries.get(id)!.present.open.has(stop));
    // Sorting keeps the set's order among equals.
    const doubtful = open.sort((a, b) => doubt(b) - doubt(a));
    const id = doubtful[after === null ? 0 : doubtful.indexOf(after) + 1] ?? doubtful[0];
    return id === undefined ? null : { id, index: ids.indexOf(id) };
  }

  /** Where a photo stands under a filter, and which are beside it; null where it is not there. */
  around(shown: Filter, id: number) {
    const ids = this.ids(shown);
    const index = ids.indexOf(id);
    if (index < 0) return null;
    return { index, total: ids.length, previous: ids[index - 1] ?? null, next: ids[index + 1] ?? null };
  }

  /** Photos of the set in its order, by what they are called: for finding them. */
  get all(): readonly Standing[] {
    return this.ordered;
  }

  /** Hashes of the first photos' originals. */
  first(count: number): string[] {
    const found: string[] = [];
    for (const { binned, hash } of this.ordered) {
      if (found.length === count) break;
      if (!binned) found.push(hash);
    }
    return found;
  }

  /** Names of others with the same alt text; two are enough for a sentence. */
  sameAs(id: number): string[] {
    const standing = this.standing(id);
    if (!standing || standing.heard === '' || standing.binned) return [];
    const found: string[] = [];
    for (const other of this.byHeard.get(standing.heard) ?? []) {
      if (found.length === 2) break;
      if (other !== id) found.push(this.entries.get(other)!.standing.name);
    }
    return found;
  }

  /** The speaking part of a photo's file names. */
  speaking(id: number): string {
    this.names ??= this.namesNow();
    return this.names.get(id) ?? this.standing(id)?.slug ?? 'photo';
  }

  private namesNow(): ReadonlyMap<number, string> {
    return speakingNames(
      new Map([...this.entries].map(([id, { standing }]) => [id, standing.slug])),
      this.published,
    );
  }

  /** Names that have gone out belong to their photos from now on. */
  publish(published: Readonly<Record<string, number>>): void {
    this.published = published;
    this.names = null;
  }

  /** Many photos are put: each new name would be looked for among all others. Until `releaseNames` they keep those they had. */
  holdNames(): void {
    this.held ??= new Set();
  }

  /** @returns other photos than those that were put, which are called otherwise now */
  releaseNames(): number[] {
    const { held, names: old } = this;
    this.held = null;
    if (!held?.size || !old) return [];
    const names = this.namesNow();
    this.names = names;
    return [...names].flatMap(([id, name]) => (old.get(id) !== name && !held.has(id) ? [id] : []));
  }

  /** A photo is new, or another one than before. */
  put(standing: Standing): Stir {
    const before = this.entries.get(standing.id);
    const near = new Set<number>();
    if (before) this.leave(before.standing, near);
    this.enter(standing, near);
    const present = this.presentNow(standing);
    const listed =
      !before ||
      before.standing.position !== standing.position ||
      before.standing.binned !== standing.binned ||
      !sameSet(before.present.filters, present.filters);
    if (before) this.count(before, -1);
    const entry = { standing, present };
    this.entries.set(standing.id, entry);
    this.count(entry, 1);
    if (before?.standing.slug !== standing.slug) this.rename(standing.id, before?.standing.slug, near);
    near.delete(standing.id);
    const moved = [...near].filter((id) => this.again(id));
    return { near: [...near], listed: listed || moved.length > 0 };
  }

  /** A photo has left the set. */
  remove(id: number): Stir {
    const before = this.entries.get(id);
    if (!before) return { near: [], listed: false };
    const near = new Set<number>();
    this.leave(before.standing, near);
    this.count(before, -1);
    this.entries.delete(id);
    this.names = null;
    for (const other of near) this.again(other);
    return { near: [...near], listed: true };
  }

  /** A file of a photo was made, failed or was lost. @returns whether it stands under other filters now */
  again(id: number): boolean {
    const entry = this.entries.get(id);
    if (!entry) return false;
    const present = this.presentNow(entry.standing);
    this.count(entry, -1);
    const listed = !sameSet(entry.present.filters, present.filters);
    entry.present = present;
    this.count(entry, 1);
    return listed;
  }

  private presentNow(standing: Standing): Present {
    const repeats = !standing.binned && (this.byHeard.get(standing.heard)?.size ?? 0) > 1;
    return presentOf(standing, this.state, repeats);
  }

  private leave(standing: Standing, near: Set<number>): void {
    this.byHash.delete(standing.hash);
    const at = this.placeOf(standing);
    if (this.ordered[at]?.id === standing.id) this.ordered.splice(at, 1);
    const group = this.byHeard.get(standing.heard);
    if (!group?.delete(standing.id)) return;
    for (const id of group) near.add(id);
    if (group.size === 0) this.byHeard.delete(standing.heard);
  }

  private enter(standing: Standing, near: Set<number>): void {
    this.byHash.set(standing.hash, standing.id);
    this.ordered.splice(this.placeOf(standing), 0, standing);
    if (standing.heard === '' || standing.binned) return;
    const group = this.byHeard.get(standing.heard) ?? new Set<number>();
    for (const id of group) near.add(id);
    group.add(standing.id);
    this.byHeard.set(standing.heard, group);
  }

  /** Where a photo stands among the ordered, or would: by halving. */
  private placeOf(standing: Standing): number {
    let [low, high] = [0, this.ordered.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (inOrder(this.ordered[middle]!, standing) < 0) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Another slug may give others another number: only where it was, or is, not this photo's alone. */
  private rename(id: number, before: string | undefined, near: Set<number>): void {
    if (this.held) {
      this.held.add(id);
      return;
    }
    const old = this.names;
    this.names = null;
    if (!old) return;
    const slug = this.entries.get(id)!.standing.slug;
    const family = (name: string, of: string) =>
      name === of || name.startsWith(`${of}-`) || of.startsWith(`${name}-`);
    const touched = [...old].some(
      ([other, name]) =>
        other !== id && (family(name, slug) || (before !== undefined && family(name, before))),
    );
    if (!touched && !this.isPublished(id, slug)) {
      const names = new Map(old);
      names.set(id, slug);
      this.names = names;
      return;
    }
    this.names = this.namesNow();
    for (const [other, name] of this.names) if (old.get(other) !== name) near.add(other);
  }

  /** Names that went out are given with care for whose they are. */
  private isPublished(id: number, slug: string): boolean {
    return Object.entries(this.published).some(
      ([name, owner]) => owner === id || name === slug || name.startsWith(`${slug}-`),
    );
  }

  private place(slot: SlotId): PlaceSums {
    const sums = this.places.get(slot) ?? new PlaceSums();
    this.places.set(slot, sums);
    return sums;
  }

  private count({ standing, present }: Entry, by: 1 | -1): void {
    this.files.wanted += by * standing.keys.length;
    this.files.made += by * present.made;
    this.files.failed += by * present.failed;
    this.files.improvable += by * standing.improvable.length;
    this.files.improved += by * present.improved;
    this.files.saved += by * present.saved;
    if (standing.binned) {
      this.sums.binned += by;
      return;
    }
    for (const filter of FILTERS) if (present.filters.has(filter)) this.sums.filters[filter] += by;
    for (const stop of SEAL_PARTS) if (present.open.has(stop)) this.sums.open[stop] += by;
    this.sums.words[wordsOf(standing, present)] += by;
    for (const slot of standing.slots) this.place(slot).count(present, by);
    for (const [n, { slot }] of standing.phone.entries())
      this.place(slot).weigh(present.phoneIn[n] ?? null, by);
    if (standing.placed) this.sums.placed += by;
    this.sums.camera += by * standing.camera;
    this.sums.phone.sent += by * present.phone.sent;
    this.sums.laptop.sent += by * present.laptop.sent;
    if (!present.phone.complete) this.incomplete.phone += by;
    if (!present.laptop.complete) this.incomplete.laptop += by;
  }
}
