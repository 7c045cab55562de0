// Reconciliation: wanted − stored. There is no job list to lose: after a crash, a restart or a changed decision
// the same subtraction finds the same work.
import { shownName, type Photo, type Preparation, type StoredFacts } from '@dusky-otter/core';
import type { CodecPool } from '../codec/pool.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { SetModel } from '../database/models.ts';
import type { EventHub } from '../events/hub.ts';
import { findSite, loadPhotos } from '../sets/rows.ts';
import type { Vault } from '../vault/vault.ts';
import { batchesOf, type Batch } from './batches.ts';
import type { StoredVariants } from './stored.ts';

interface SetWork {
  photos: Photo[];
  batches: Batch[];
  wanted: Set<string>;
  paused: boolean;
  /** Photo ids on somebody's screen, first come first. */
  onScreen: number[];
}

export class Preparer {
  private readonly work = new Map<number, SetWork>();
  private readonly making = new Set<string>();
  private readonly failures = new Map<string, string>();
  private readonly doing = new Map<number, string>();
  private readonly asked = new Map<number, Promise<void>>();
  private closed = false;

  constructor(
    private readonly pool: CodecPool,
    private readonly vault: Vault,
    readonly stored: StoredVariants,
    private readonly hub: EventHub,
  ) {
    pool.onIdle = () => this.pump();
  }

  get(key: string): StoredFacts | undefined {
    return this.stored.get(key);
  }

  failureOf(key: string): string | null {
    return this.failures.get(key) ?? null;
  }

  /** Finds the work of every set; called once at start. */
  async reconcileAll(): Promise<void> {
    for (const { id } of await SetModel.findAll({ attributes: ['id'] })) await this.reconcile(id);
  }

  /** Computes wanted − stored for a set anew and starts on it. Calls for one set follow each other. */
  reconcile(setId: number): Promise<void> {
    const after = (this.asked.get(setId) ?? Promise.resolve()).then(() => this.subtract(setId));
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
    this.work.set(setId, {
      photos,
      batches,
      wanted,
      paused: before?.paused ?? false,
      onScreen: before?.onScreen ?? [],
    });
    this.report(setId);
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
    const work = this.work.get(setId);
    if (!work) return;
    work.paused = paused;
    if (paused) this.pool.stopSoon();
    else for (const key of work.wanted) this.failures.delete(key);
    this.report(setId);
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
      paused: work?.paused ?? false,
      doing: this.doing.get(setId) ?? null,
    };
  }

  close(): void {
    this.closed = true;
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
        .filter(([, work]) => !work.paused)
        .map(([setId, work]) => ({ setId, batch: this.next(work) }))
        .find(({ batch }) => batch !== null);
      if (!found?.batch) return;
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
    this.report(setId);
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
          const format = outputs.find(({ key }) => key === made.key)!.format;
          notes.push(this.note(made, photo, format));
        },
      );
      await Promise.all(notes);
    } catch (error) {
      await Promise.allSettled(notes);
      // Shutting down ends the processes: that is no fault of the pictures.
      if (!this.closed) this.fail(setId, photo.id, outputs, error);
    } finally {
      for (const { key } of outputs) this.making.delete(key);
      this.doing.delete(setId);
      this.report(setId);
      this.pump();
    }
  }

  /** Remembers why files could not be made, until someone asks to try again. */
  private fail(setId: number, photoId: number, outputs: Batch['outputs'], error: unknown): void {
    const sentence = `Could not be made: ${error instanceof Error ? error.message : String(error)}`;
    const keys = outputs.map(({ key }) => key).filter((key) => !this.stored.get(key));
    for (const key of keys) this.failures.set(key, sentence);
    this.hub.tell(setId, { type: 'failed', photoId, keys, sentence });
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
      this.report(setId);
    }
  }

  private report(setId: number): void {
    if (!this.closed) this.hub.tell(setId, { type: 'preparation', preparation: this.progressOf(setId) });
  }
}
