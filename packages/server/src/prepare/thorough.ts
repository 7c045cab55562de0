// The second pass: while nothing else is to be made, or at once where an editor asks, every file is searched again with
// all recipes that may do with fewer bytes. What it finds stands in the place of the quick file under a key of its own.
import type { PlannedVariant } from '@dusky-otter/core/contract';
import { mayImprove, thoroughKey } from '@dusky-otter/core/plan';
import { InterruptedError } from '../codec/task.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import { findSet } from '../store/sets.ts';
import { jobOf, type Batch } from './batches.ts';
import type { PreparerDeps } from './preparer-deps.ts';

/** Nothing else has been made for so long, in ms, before the second pass begins. */
const IDLE_AFTER = 5_000;
/** How long a photo that could not be read is left alone, in ms. */
const TRY_AGAIN_MS = 10_000;

/** What the pass knows and says through the one that makes files. */
export interface Hearer {
  batches: (setId: number, photoId: number) => Promise<Batch[]>;
  isPaused: (setId: number) => boolean;
  /** By the key of a plan. */
  isWanted: (hash: string, key: string) => boolean;
  /** What is stored for a key of a plan is another file now. */
  stored: (key: string, hash: string) => void;
  /** How far the pass has come in a set is to be told. */
  told: (setId: number) => void;
}

export class ThoroughPass {
  /** Photos by set whose files may not have been through it. */
  private readonly open = new Map<number, Set<number>>();
  /** Sets that wait for it, because an editor asked. */
  private readonly asked = new Set<number>();
  /** Keys of plans that are being searched, with the original of each. */
  private readonly making = new Map<string, string>();
  /** Keys of plans for which it came to nothing; what there is stays. */
  private readonly failed = new Set<string>();
  private looking = 0;
  private idleFrom = 0;
  private timer: NodeJS.Timeout | null = null;
  private closed = false;

  constructor(
    private readonly deps: PreparerDeps,
    private readonly hearer: Hearer,
  ) {}

  /** Whether it is over for a key of a plan. */
  isOver(key: string): boolean {
    return this.deps.stored.isThorough(key) || this.failed.has(key);
  }

  isAsked(setId: number): boolean {
    return this.asked.has(setId);
  }

  /** An editor wants a set's files to have been through it, or does so no more. */
  ask(setId: number, now: boolean): void {
    if (now) this.asked.add(setId);
    else this.asked.delete(setId);
    const ledger = this.deps.ledgers.all.get(setId);
    if (now && ledger)
      this.look(
        setId,
        ledger.all.map(({ id }) => id),
      );
    this.hearer.told(setId);
    this.pump();
  }

  /** Photos whose files may be others now. */
  look(setId: number, photoIds: readonly number[]): void {
    const open = this.open.get(setId) ?? new Set<number>();
    for (const id of photoIds) open.add(id);
    this.open.set(setId, open);
  }

  /** Something else is being made: it goes first. */
  wait(): void {
    this.idleFrom = performance.now() + IDLE_AFTER;
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  /** Searches for files that nobody wants any more are given up. */
  dropUnwanted(): void {
    const dropped = [...this.making].filter(([key, hash]) => !this.hearer.isWanted(hash, key));
    if (dropped.length > 0) this.deps.pool.drop(new Set(dropped.flatMap(([key]) => [key, thoroughKey(key)])));
  }

  /** Begins as many searches as there are processes without work. */
  pump(): void {
    while (!this.closed && this.deps.pool.spare > this.looking) {
      const found = this.next();
      if (!found) return;
      this.looking += 1;
      // It reports its own failures.
      void this.work(found.setId, found.id);
    }
  }

  /** Sets that an editor waits for first, then, after a while without other work, those that somebody looks at. */
  private next(): { setId: number; id: number } | null {
    const left = this.idleFrom - performance.now();
    const isIdle = this.deps.idleWork && left <= 0;
    if (this.deps.idleWork && left > 0) this.later(left);
    const { watched } = this.deps.hub;
    const rank = (setId: number) => (this.asked.has(setId) ? 2 : watched.includes(setId) ? 1 : 0);
    const sets = [...this.open.keys()].filter(
      (setId) => !this.hearer.isPaused(setId) && (isIdle || this.asked.has(setId)),
    );
    for (const setId of sets.sort((a, b) => rank(b) - rank(a))) {
      const id = this.nextIn(setId);
      if (id !== null) return { setId, id };
      if (this.asked.has(setId) && this.isDone(setId)) {
        this.asked.delete(setId);
        this.hearer.told(setId);
      }
    }
    return null;
  }

  private isDone(setId: number): boolean {
    const progress = this.deps.ledgers.all.get(setId)?.progress;
    return progress !== undefined && progress.improved >= progress.improvable;
  }

  private later(ms: number): void {
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.pump();
    }, ms).unref();
  }

  private nextIn(setId: number): number | null {
    const open = this.open.get(setId)!;
    const ledger = this.deps.ledgers.all.get(setId);
    for (const id of open) {
      if (ledger?.standing(id)?.improvable.some((key) => this.isOpen(key))) return id;
      open.delete(id);
    }
    return null;
  }

  /** What has a quick file, and is neither over nor being searched. */
  private isOpen(key: string): boolean {
    return this.deps.stored.bytesOf(key) !== undefined && !this.isOver(key) && !this.making.has(key);
  }

  private async work(setId: number, id: number): Promise<void> {
    const open = this.open.get(setId)!;
    open.delete(id);
    let batch: Batch | undefined;
    let outputs: PlannedVariant[];
    let thorough: boolean;
    try {
      const site = await this.deps.sites.get((await findSet(setId)).siteId);
      thorough = this.asked.has(setId) || site.policy.thorough !== false;
      const batches = await retryOnDatabaseLoss(() => this.hearer.batches(setId, id));
      // Where no thorough files are wanted, what was made before is made anew all the same.
      const isLeft = (output: PlannedVariant) =>
        mayImprove(output) && this.isOpen(output.key) && (thorough || this.deps.stored.isFormer(output.key));
      batch = batches.find((one) => one.outputs.some(isLeft));
      if (!batch || this.closed) return;
      outputs = batch.outputs.filter(isLeft);
      for (const { key } of outputs) this.making.set(key, batch.photo.original.hash);
      open.add(id);
    } catch (error) {
      if (this.closed) return;
      this.deps.report(`A photo of set ${setId} could not be read.`, error);
      setTimeout(() => this.look(setId, [id]), TRY_AGAIN_MS).unref();
      return;
    } finally {
      this.looking -= 1;
      // In a turn of its own: a long queue of photos must not hold up everything else.
      if (!batch) setImmediate(() => this.pump());
    }
    await this.make(batch, outputs, thorough);
    this.look(setId, [id]);
    this.pump();
  }

  private async make(batch: Batch, wishes: readonly PlannedVariant[], thorough: boolean): Promise<void> {
    const { hash } = batch.photo.original;
    const byKey = new Map(wishes.map((wish) => [thorough ? thoroughKey(wish.key) : wish.key, wish]));
    const outputs = [...byKey].map(([key, wish]) => ({
      ...wish,
      key,
      settings: { ...wish.settings, ...(thorough && { thorough }) },
    }));
    const notes: Promise<void>[] = [];
    try {
      await this.deps.pool.improve(jobOf(batch, outputs, this.deps.vault), (made) => {
        const wish = byKey.get(made.key);
        if (!wish) return;
        const note = this.deps.stored.add(made, hash, wish.format, thorough ? wish.key : null).then(() => {
          this.making.delete(wish.key);
          this.hearer.stored(wish.key, hash);
        });
        note.catch(() => undefined);
        notes.push(note);
      });
      await Promise.all(notes);
    } catch (error) {
      await Promise.allSettled(notes);
      if (this.closed || error instanceof InterruptedError) return;
      this.deps.report('Smaller files could not be looked for; those there are stay.', error);
      for (const { key } of wishes) {
        if (this.deps.stored.isThorough(key)) continue;
        this.failed.add(key);
        this.hearer.stored(key, hash);
      }
    } finally {
      for (const { key } of wishes) this.making.delete(key);
    }
  }
}
