// Reconciliation: wanted − stored, photo by photo. There is no job list to lose: after a crash, a restart or a changed
// decision the same subtraction finds the same work.
import type { Photo, Preparation, StoredFacts } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { RenderError } from '../codec/task.ts';
import type { MadeVariant } from '../codec/protocol.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import { noFiles, type SetLedger } from '../ledger/set-ledger.ts';
import { ORIGINAL_LOST } from '../problems.ts';
import { loadPhotos } from '../store/photos.ts';
import { setPlacesIn } from '../store/sets.ts';
import { allSets, findSet } from '../store/sets.ts';
import { batchesOf, jobOf, type Batch } from './batches.ts';
import { letFormerStandIn } from './former.ts';
import { Queues } from './queues.ts';
import type { PreparerDeps } from './preparer-deps.ts';
import { ThoroughPass } from './thorough.ts';

/** How long a photo that could not be read is left alone, in ms. */
const TRY_AGAIN_MS = 10_000;

export class Preparer {
  private readonly queues = new Queues();
  /** Keys of files that are being made, with the original of each. */
  private readonly making = new Map<string, string>();
  readonly thorough: ThoroughPass;
  private readonly doing = new Map<number, string>();
  private readonly paused = new Set<number>();
  /** Originals that are not what they were when they were taken in. */
  private readonly lost = new Set<string>();
  /** Sets that could not be read: what they want is not known. */
  private readonly unread = new Set<number>();
  private closed = false;
  /** Photos whose files are looked for at the moment: each holds a process of the pool. */
  private looking = 0;
  /** Those who wait for a file to be stored or to fail. */
  private readonly settled: (() => void)[] = [];

  constructor(private readonly deps: PreparerDeps) {
    this.thorough = new ThoroughPass(deps, {
      batches: (setId, id) => this.batches(setId, id),
      isPaused: (setId) => this.paused.has(setId),
      isWanted: (hash, key) => this.wanting(hash, key).length > 0,
      stored: (key, hash) => this.tellMade(key, hash),
      told: (setId) => this.tellProgress(setId),
    });
    deps.pool.onIdle = () => this.pump();
  }

  get(key: string): StoredFacts | undefined {
    return this.deps.stored.get(key);
  }

  failureOf(key: string): string | null {
    return this.deps.failures.get(key) ?? null;
  }

  lossOf(hash: string): string | null {
    return this.lost.has(hash) ? ORIGINAL_LOST : null;
  }

  /** Finds the work of every set; called once at start. A set that can't be read is reported and holds up no other. */
  async reconcileAll(): Promise<void> {
    for (const id of await allSets()) await this.reconcileSoon(id, true);
  }

  /** Like `reconcile`, for those who do not wait for it: a failure is reported, not thrown. */
  async reconcileSoon(setId: number, isStart = false): Promise<void> {
    try {
      await this.reconcile(setId, isStart);
    } catch (error) {
      if (!this.closed) this.deps.report(`Set ${setId} could not be read; it is left as it is.`, error);
    }
  }

  /** Whether every set's wishes are known: only then may anything be cleared away as unwanted. */
  get knowsAll(): boolean {
    return this.unread.size === 0;
  }

  /** Looks through all photos of a set. @param isStart files of the version before may be there */
  async reconcile(setId: number, isStart = false): Promise<void> {
    this.unread.add(setId);
    const { ledgers } = this.deps;
    const ledger = await (ledgers.all.has(setId) ? ledgers.renew(setId) : ledgers.get(setId));
    if (isStart) for (const id of await letFormerStandIn(this.deps, setId, ledger)) ledger.again(id);
    if (this.closed) return;
    this.unread.delete(setId);
    const ids = ledger.all.map(({ id }) => id);
    this.queues.of(setId).open = new Set(ids);
    this.thorough.look(setId, ids);
    this.dropUnwanted();
    this.tellProgress(setId);
    this.deps.batcher.counts(setId);
    // Who waits for a file that nobody wants any more waits in vain.
    this.wake();
    this.pump();
  }

  /** Photos of a set were changed: their files are looked at again. */
  look(setId: number, photoIds: readonly number[]): void {
    const { open } = this.queues.of(setId);
    for (const id of photoIds) open.add(id);
    this.thorough.look(setId, photoIds);
    this.dropUnwanted();
    this.tellProgress(setId);
    this.wake();
    this.pump();
  }

  /** Files that are being made although nobody wants them any more are given up. */
  private dropUnwanted(): void {
    const dropped = [...this.making].filter(([key, hash]) => this.wanting(hash, key).length === 0);
    const keys = new Set(dropped.map(([key]) => key));
    if (keys.size > 0) this.deps.pool.drop(keys);
    this.thorough.dropUnwanted();
  }

  /** Ledgers that know a file as wanted. */
  private wanting(hash: string, key: string): [number, SetLedger][] {
    return [...this.deps.ledgers.all].filter(([, ledger]) => ledger.wants(hash, key));
  }

  /** Whether any set wants a file, by its own key; true as well for what is being made. */
  isWanted(hash: string, key: string): boolean {
    const { stored } = this.deps;
    const wish = stored.wishOf(key);
    // A file in whose place another one stands is wanted no more.
    if (stored.standing(wish) !== key && stored.file(key)) return false;
    return this.making.has(wish) || this.wanting(hash, wish).length > 0;
  }

  /** What is on screen is made first. */
  attend(setId: number, photoIds: number[]): void {
    this.queues.of(setId).onScreen = photoIds;
  }

  /** Stops after the files that are being made, or goes on. What is made stays made. */
  pause(setId: number, paused: boolean): void {
    if (paused) {
      this.paused.add(setId);
      this.deps.pool.stopSoon();
    } else {
      this.paused.delete(setId);
      this.tryAgain(setId);
    }
    this.tellProgress(setId);
    this.wake();
    this.pump();
  }

  /** Files that could not be made are tried once more. */
  private tryAgain(setId: number): void {
    const ledger = this.deps.ledgers.all.get(setId);
    for (const { id, keys } of ledger?.all ?? []) {
      if (keys.filter((key) => this.deps.failures.delete(key)).length === 0) continue;
      ledger!.again(id);
      this.queues.of(setId).open.add(id);
    }
  }

  /** Stored files turned out to be lost or changed: they are forgotten, said, and made again. */
  async remake(files: readonly { key: string; hash: string }[]): Promise<void> {
    const { stored } = this.deps;
    const known = files.filter(({ key }) => stored.file(key));
    if (known.length === 0) return;
    this.deps.report(`${known.length} stored files were changed or lost on the disk; they are made again.`);
    const wishes = known.map(({ key, hash }) => ({ key: stored.wishOf(key), hash }));
    for (const { key } of known) await stored.forget(key);
    for (const [setId, ledger] of this.deps.ledgers.all) {
      const own = wishes.filter(({ hash, key }) => ledger.wants(hash, key));
      if (own.length === 0) continue;
      this.deps.hub.tell(setId, { type: 'unmade', keys: own.map(({ key }) => key) });
      // The quick file may stand for a thorough one that was lost.
      for (const { key, hash } of own) if (stored.get(key)) this.tellMade(key, hash);
      const ids = new Set(own.map(({ hash }) => ledger.photoOf(hash)!));
      for (const id of ids) ledger.again(id);
      this.deps.batcher.counts(setId);
      this.look(setId, [...ids]);
    }
  }

  /**
   * Resolves once a file is stored, or can't be; false also when it isn't wanted by any set, or is paused.
   * @param late when it is aborted, nobody waits any longer: false
   */
  async untilStored({ hash, key }: { hash: string; key: string }, late?: AbortSignal): Promise<boolean> {
    for (;;) {
      if (this.get(key)) return true;
      const wanting = this.wanting(hash, key).map(([setId]) => setId);
      if (this.closed || late?.aborted || this.deps.failures.has(key)) return false;
      if (wanting.every((setId) => this.paused.has(setId))) return false;
      await new Promise<void>((done) => {
        this.settled.push(done);
        late?.addEventListener('abort', () => done(), { once: true });
      });
    }
  }

  /** Why files could not be made is forgotten of those that nobody wants any more. */
  forgetFailures(): void {
    const { failures, ledgers } = this.deps;
    if (failures.size === 0) return;
    const wanted = new Set([...ledgers.all.values()].flatMap(({ all }) => all.flatMap(({ keys }) => keys)));
    for (const key of [...failures.keys()]) if (!wanted.has(key)) failures.delete(key);
  }

  /** An original is no longer what it was, or is back: its photos' rows say so, and its files are tried again. */
  async markOriginal(hash: string, lost: boolean): Promise<void> {
    if (this.lost.has(hash) === lost) return;
    if (lost) this.lost.add(hash);
    else this.lost.delete(hash);
    if (lost) this.deps.report(`The original ${hash} was changed or lost on the disk.`);
    for (const [setId, ledger] of this.deps.ledgers.all) {
      const id = ledger.photoOf(hash);
      if (id === undefined) continue;
      if (!lost) for (const key of ledger.standing(id)!.keys) this.deps.failures.delete(key);
      ledger.again(id);
      this.deps.batcher.photos(setId, { near: [id] });
      this.look(setId, [id]);
    }
  }

  progressOf(setId: number): Preparation {
    const { wanted, made, failed, improvable, improved, saved } =
      this.deps.ledgers.all.get(setId)?.progress ?? noFiles();
    return {
      wanted,
      made,
      failed,
      thorough: { wanted: improvable, made: improved, saved, now: this.thorough.isAsked(setId) },
      paused: this.paused.has(setId),
      doing: this.doing.get(setId) ?? null,
    };
  }

  close(): void {
    this.closed = true;
    this.thorough.close();
    this.wake();
  }

  private wake(): void {
    for (const done of this.settled.splice(0)) done();
  }

  private isOpen(key: string): boolean {
    return !this.get(key) && !this.making.has(key) && !this.deps.failures.has(key);
  }

  private wantsOf(setId: number): (id: number) => boolean {
    const ledger = this.deps.ledgers.all.get(setId);
    return (id) => ledger?.standing(id)?.keys.some((key) => this.isOpen(key)) ?? false;
  }

  private pump(): void {
    while (!this.closed && this.deps.pool.free > this.looking) {
      const found = this.queues.next(
        (setId) => (this.paused.has(setId) ? null : this.attention(setId)),
        (setId) => this.wantsOf(setId),
      );
      if (!found) {
        if (this.making.size === 0 && this.looking === 0) this.thorough.pump();
        return;
      }
      this.looking += 1;
      this.thorough.wait();
      // It reports its own failures.
      void this.work(found.setId, found.id);
    }
  }

  private attention(setId: number): number {
    return this.deps.hub.watched.includes(setId) ? 1 : 0;
  }

  /** Makes the first batch that a photo still wants. */
  private async work(setId: number, id: number): Promise<void> {
    // Until its batch is known, nobody else looks at this photo: it is put back when there is more to do.
    this.queues.of(setId).open.delete(id);
    let batch: Batch | undefined;
    try {
      const batches = await retryOnDatabaseLoss(() => this.batches(setId, id));
      batch = batches.find(({ outputs }) => outputs.some(({ key }) => this.isOpen(key)));
      if (!batch || this.closed) return;
      const outputs = batch.outputs.filter(({ key }) => this.isOpen(key));
      for (const { key } of outputs) this.making.set(key, batch.photo.original.hash);
      // There may be more batches: somebody else may look while this one is made.
      this.queues.of(setId).open.add(id);
    } catch (error) {
      if (this.closed) return;
      this.deps.report(`A photo of set ${setId} could not be read.`, error);
      setTimeout(() => this.look(setId, [id]), TRY_AGAIN_MS).unref();
      return;
    } finally {
      this.looking -= 1;
      if (!batch) this.pumpSoon();
    }
    await this.make(setId, batch);
  }

  /** In a turn of its own: a long queue of photos that want nothing must not hold up everything else. */
  private pumpSoon(): void {
    setImmediate(() => this.pump());
  }

  private async batches(setId: number, id: number): Promise<Batch[]> {
    const set = await findSet(setId);
    const site = await this.deps.sites.get(set.siteId);
    const [photo] = await loadPhotos(setId, site.languages[0]!, [id]);
    return photo ? batchesOf(photo, await setPlacesIn(set), site) : [];
  }

  private async make(setId: number, batch: Batch): Promise<void> {
    const outputs = batch.outputs.filter(({ key }) => this.making.has(key));
    const { photo, shape } = batch;
    this.doing.set(
      setId,
      `${shownName(photo.words, photo.fileName)}, ${shape === 'own' ? 'whole photo' : shape}`,
    );
    this.tellProgress(setId);
    const notes: Promise<void>[] = [];
    const { pool, vault } = this.deps;
    try {
      await pool.render(jobOf(batch, outputs, vault), (made) => {
        const output = outputs.find(({ key }) => key === made.key);
        if (!output) return;
        const note = this.note(made, photo, output.format);
        // It is waited for below; until then nobody may take a failure for one that nobody hears.
        note.catch(() => undefined);
        notes.push(note);
      });
      await Promise.all(notes);
    } catch (error) {
      await Promise.allSettled(notes);
      // Shutting down ends the processes: that is no fault of the pictures.
      if (!this.closed) this.fail(photo, outputs, error);
    } finally {
      for (const { key } of outputs) this.making.delete(key);
      this.doing.delete(setId);
      this.look(setId, [photo.id]);
    }
  }

  /** Remembers why files could not be made, until someone asks to try again. */
  private fail(photo: Photo, outputs: Batch['outputs'], error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error);
    const sentence = `Could not be made: ${reason}`;
    // One output that can't be made leaves the others to be tried.
    const only = error instanceof RenderError ? error.key : null;
    const keys = outputs
      .map(({ key }) => key)
      .filter((key) => !this.get(key) && (only === null || key === only));
    for (const key of keys) this.deps.failures.set(key, sentence);
    const { hash } = photo.original;
    for (const [setId, ledger] of this.deps.ledgers.all) {
      const own = keys.filter((key) => ledger.wants(hash, key));
      if (own.length === 0) continue;
      this.deps.hub.tell(setId, { type: 'failed', photo: ledger.photoOf(hash)!, keys: own, sentence });
      this.changed(setId, ledger, hash);
    }
    if (reason !== ORIGINAL_LOST) return;
    this.markOriginal(hash, true).catch((failure: unknown) =>
      this.deps.report('A lost original could not be told.', failure),
    );
  }

  private async note(made: MadeVariant, photo: Photo, format: string): Promise<void> {
    const { hash } = photo.original;
    await this.deps.stored.add(made, hash, format);
    this.making.delete(made.key);
    this.tellMade(made.key, hash);
    this.wake();
  }

  /** What is stored for a key of a plan is told to all who want it. */
  private tellMade(key: string, hash: string): void {
    const facts = this.get(key);
    if (!facts) return;
    for (const [setId, ledger] of this.wanting(hash, key)) {
      this.deps.hub.tell(setId, { type: 'made', photo: ledger.photoOf(hash)!, key, ...facts });
      this.changed(setId, ledger, hash);
    }
  }

  /** A photo's files are others: what its set adds up to is told. */
  private changed(setId: number, ledger: SetLedger, hash: string): void {
    if (ledger.again(ledger.photoOf(hash)!)) this.deps.batcher.photos(setId, { listed: true });
    this.deps.batcher.counts(setId);
    this.tellProgress(setId);
  }

  private tellProgress(setId: number): void {
    if (!this.closed) this.deps.hub.tell(setId, { type: 'preparation', preparation: this.progressOf(setId) });
  }
}
