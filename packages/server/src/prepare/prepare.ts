// Reconciliation: wanted − stored. There is no job list to lose: after a crash, a restart or a changed decision
// the same subtraction finds the same work.
import { shownName, type Photo, type Preparation, type StoredFacts } from '@dusky-otter/core';
import { RenderError, type CodecPool } from '../codec/pool.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { SetModel } from '../database/models.ts';
import type { EventHub } from '../events/hub.ts';
import { ORIGINAL_LOST } from '../problems.ts';
import type { Report } from '../report.ts';
import { findSite, loadPhotos, rowsOf } from '../sets/rows.ts';
import type { Vault } from '../vault/vault.ts';
import { batchesOf, type Batch } from './batches.ts';
import type { StoredVariants } from './stored.ts';

interface SetWork {
  photos: Photo[];
  batches: Batch[];
  wanted: Set<string>;
  /** Photo ids on somebody's screen, first come first. */
  onScreen: number[];
}

export class Preparer {
  private readonly work = new Map<number, SetWork>();
  private readonly making = new Set<string>();
  private readonly failures = new Map<string, string>();
  private readonly doing = new Map<number, string>();
  private readonly asked = new Map<number, Promise<void>>();
  private readonly paused = new Set<number>();
  /** Originals that are not what they were when they were taken in. */
  private readonly lost = new Set<string>();
  /** Sets that could not be read: what they want is not known. */
  private readonly unread = new Set<number>();
  private closed = false;
  /** Those who wait for a file to be stored or to fail. */
  private readonly settled: (() => void)[] = [];

  constructor(
    private readonly pool: CodecPool,
    private readonly vault: Vault,
    readonly stored: StoredVariants,
    private readonly hub: EventHub,
    private readonly report: Report,
  ) {
    pool.onIdle = () => this.pump();
  }

  get(key: string): StoredFacts | undefined {
    return this.stored.get(key);
  }

  failureOf(key: string): string | null {
    return this.failures.get(key) ?? null;
  }

  lossOf(hash: string): string | null {
    return this.lost.has(hash) ? ORIGINAL_LOST : null;
  }

  /** Finds the work of every set; called once at start. A set that can't be read is reported and holds up no other. */
  async reconcileAll(): Promise<void> {
    for (const { id } of await SetModel.findAll({ attributes: ['id'] })) await this.reconcileSoon(id);
  }

  /** Like `reconcile`, for those who do not wait for it: a failure is reported, not thrown. */
  async reconcileSoon(setId: number): Promise<void> {
    try {
      await this.reconcile(setId);
    } catch (error) {
      if (!this.closed) this.report(`Set ${setId} could not be read; it is left as it is.`, error);
    }
  }

  /** Whether every set's wishes are known: only then may anything be cleared away as unwanted. */
  get knowsAll(): boolean {
    return this.unread.size === 0;
  }

  /** Computes wanted − stored for a set anew and starts on it. Calls for one set follow each other. */
  reconcile(setId: number): Promise<void> {
    const after = (this.asked.get(setId) ?? Promise.resolve()).then(async () => {
      this.unread.add(setId);
      await this.subtract(setId);
      this.unread.delete(setId);
    });
    this.asked.set(
      setId,
      after.catch(() => undefined),
    );
    return after;
  }

  private async subtract(setId: number): Promise<void> {
    const set = await SetModel.findByPk(setId);
    if (!set || this.closed) return;
    const { policy } = await findSite(set);
    const photos = (await loadPhotos(setId)).filter((photo) => !photo.binned);
    const { batches, wanted } = batchesOf(photos, set.slots, policy);
    const before = this.work.get(setId);
    this.work.set(setId, { photos, batches, wanted, onScreen: before?.onScreen ?? [] });
    this.tellProgress(setId);
    this.pump();
  }

  /** Whether any set wants a variant; true as well for what is being made. */
  isWanted(key: string): boolean {
    return this.making.has(key) || [...this.work.values()].some((work) => work.wanted.has(key));
  }

  /** What is on screen is made first. */
  attend(setId: number, photoIds: number[]): void {
    const work = this.work.get(setId);
    if (work) work.onScreen = photoIds;
  }

  /** Stops after the files that are being made, or goes on. What is made stays made. */
  pause(setId: number, paused: boolean): void {
    if (paused) {
      this.paused.add(setId);
      this.pool.stopSoon();
    } else {
      this.paused.delete(setId);
      for (const key of this.work.get(setId)?.wanted ?? []) this.failures.delete(key);
    }
    this.tellProgress(setId);
    this.wake();
    this.pump();
  }

  /** Stored files turned out to be lost or changed: they are forgotten, said, and made again. */
  async remake(keys: readonly string[]): Promise<void> {
    const known = keys.filter((key) => this.stored.get(key));
    if (known.length === 0) return;
    this.report(`${known.length} stored files were changed or lost on the disk; they are made again.`);
    for (const key of known) await this.stored.forget(key);
    for (const [setId, work] of this.work) {
      const own = known.filter((key) => work.wanted.has(key));
      if (own.length > 0) this.hub.tell(setId, { type: 'unmade', keys: own });
      this.tellProgress(setId);
    }
    this.pump();
  }

  /** Resolves once a file is stored, or can't be; false also when it isn't wanted by any set, or is paused. */
  async untilStored(key: string): Promise<boolean> {
    for (;;) {
      if (this.stored.get(key)) return true;
      const wanting = [...this.work].filter(([, work]) => work.wanted.has(key)).map(([setId]) => setId);
      if (this.closed || this.failures.has(key) || wanting.every((setId) => this.paused.has(setId)))
        return false;
      await new Promise<void>((done) => this.settled.push(done));
    }
  }

  /** An original is no longer what it was, or is back: its photos' rows say so, and its files are tried again. */
  async markOriginal(hash: string, lost: boolean): Promise<void> {
    if (this.lost.has(hash) === lost) return;
    if (lost) this.lost.add(hash);
    else this.lost.delete(hash);
    if (lost) this.report(`The original ${hash} was changed or lost on the disk.`);
    for (const [setId, work] of this.work) {
      const photos = work.photos.filter((photo) => photo.original.hash === hash);
      if (photos.length === 0) continue;
      for (const { photo, outputs } of lost ? [] : work.batches)
        if (photo.original.hash === hash) for (const { key } of outputs) this.failures.delete(key);
      const set = await SetModel.findByPk(setId);
      if (set) this.hub.tell(setId, { type: 'rows', rows: await rowsOf(set, photos, this) });
      this.tellProgress(setId);
    }
    this.pump();
  }

  progressOf(setId: number): Preparation {
    const work = this.work.get(setId);
    let made = 0;
    let failed = 0;
    for (const key of work?.wanted ?? []) {
      if (this.stored.get(key)) made += 1;
      else if (this.failures.has(key)) failed += 1;
    }
    return {
      wanted: work?.wanted.size ?? 0,
      made,
      failed,
      paused: this.paused.has(setId),
      doing: this.doing.get(setId) ?? null,
    };
  }

  close(): void {
    this.closed = true;
    this.wake();
  }

  private wake(): void {
    for (const done of this.settled.splice(0)) done();
  }

  private open(batch: Batch): Batch['outputs'] {
    return batch.outputs.filter(
      ({ key }) => !this.stored.get(key) && !this.making.has(key) && !this.failures.has(key),
    );
  }

  /** The next batch of a set: photos on screen first, then in the set's order. */
  private next(work: SetWork): Batch | null {
    const rank = (batch: Batch) => {
      const at = work.onScreen.indexOf(batch.photo.id);
      return at < 0 ? work.onScreen.length : at;
    };
    let best: Batch | null = null;
    for (const batch of work.batches) {
      if (best && rank(best) <= rank(batch)) continue;
      if (this.open(batch).length > 0) best = batch;
    }
    return best;
  }

  private pump(): void {
    while (!this.closed && this.pool.free > 0) {
      const sets = [...this.work].sort(([a], [b]) => this.attention(b) - this.attention(a));
      const found = sets
        .filter(([setId]) => !this.paused.has(setId))
        .map(([setId, work]) => ({ setId, batch: this.next(work) }))
        .find(({ batch }) => batch !== null);
      if (!found?.batch) return;
      // It reports its own failures.
      void this.make(found.setId, found.batch);
    }
  }

  private attention(setId: number): number {
    return this.hub.watched.includes(setId) ? 1 : 0;
  }

  private async make(setId: number, batch: Batch): Promise<void> {
    const outputs = this.open(batch);
    const { photo, crop, shape } = batch;
    for (const { key } of outputs) this.making.add(key);
    this.doing.set(
      setId,
      `${shownName(photo.words, photo.fileName)}, ${shape === 'own' ? 'whole photo' : shape}`,
    );
    this.tellProgress(setId);
    const notes: Promise<void>[] = [];
    try {
      await this.pool.render(
        {
          kind: 'render',
          path: this.vault.original(photo.original.hash),
          facts: photo.original,
          incoming: this.vault.incoming,
          crop,
          outputs: outputs.map((output) => ({
            ...output,
            path: this.vault.variant(output.key, output.format),
          })),
        },
        (made) => {
          const output = outputs.find(({ key }) => key === made.key);
          if (!output) return;
          const note = this.note(made, photo, output.format);
          // It is waited for below; until then nobody may take a failure for one that nobody hears.
          note.catch(() => undefined);
          notes.push(note);
        },
      );
      await Promise.all(notes);
    } catch (error) {
      await Promise.allSettled(notes);
      // Shutting down ends the processes: that is no fault of the pictures.
      if (!this.closed) this.fail(setId, photo, outputs, error);
    } finally {
      for (const { key } of outputs) this.making.delete(key);
      this.doing.delete(setId);
      this.tellProgress(setId);
      this.wake();
      this.pump();
    }
  }

  /** Remembers why files could not be made, until someone asks to try again. */
  private fail(setId: number, photo: Photo, outputs: Batch['outputs'], error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error);
    const sentence = `Could not be made: ${reason}`;
    // One output that can't be made leaves the others to be tried.
    const only = error instanceof RenderError ? error.key : null;
    const keys = outputs
      .map(({ key }) => key)
      .filter((key) => !this.stored.get(key) && (only === null || key === only));
    for (const key of keys) this.failures.set(key, sentence);
    this.hub.tell(setId, { type: 'failed', photoId: photo.id, keys, sentence });
    if (reason !== ORIGINAL_LOST) return;
    this.markOriginal(photo.original.hash, true).catch((failure: unknown) =>
      this.report('A lost original could not be told.', failure),
    );
  }

  private async note(made: MadeVariant, photo: Photo, format: string): Promise<void> {
    await this.stored.add(made, photo.original.hash, format);
    for (const [setId, work] of this.work) {
      if (!work.wanted.has(made.key)) continue;
      this.hub.tell(setId, {
        type: 'variant',
        photoId: photo.id,
        key: made.key,
        bytes: made.bytes,
        contentHash: made.contentHash,
        quality: made.quality,
        difference: made.difference,
      });
      this.tellProgress(setId);
    }
    this.wake();
  }

  private tellProgress(setId: number): void {
    if (!this.closed) this.hub.tell(setId, { type: 'preparation', preparation: this.progressOf(setId) });
  }
}
