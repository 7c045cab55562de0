// Takes a file in: streamed into the vault, hashed on the way, recognised, inspected, and put into a set as a photo.
import { readFile } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { Refusal } from '@dusky-otter/core/contract';
import { positionBetween } from '@dusky-otter/core/edits';
import {
  addOffered,
  importPhotos,
  mustStand,
  place,
  type Arrived,
  type Placed,
} from '../changes/arrivals.ts';
import type { Changes } from '../changes/changes.ts';
import { takeSidecar } from '../changes/plans.ts';
import { refuse } from '../changes/refusals.ts';
import { LARGEST_SIDECAR, wordsOfSidecar } from '../codec/found-words.ts';
import type { CodecPool } from '../codec/pool.ts';
import type { Limits } from '../config.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import type { Preparer } from '../prepare/prepare.ts';
import { ProblemError, RefusedError, sentenceOfDisk } from '../problems.ts';
import { factsOf } from '../store/originals.ts';
import { lastPosition } from '../store/photos.ts';
import { findSet } from '../store/sets.ts';
import type { Vault } from '../vault/vault.ts';

/** A file that is being taken in: its name as sent and its bytes. */
export interface Arrival {
  fileName: string;
  stream: Readable;
  /** The photo whose place it is to take, if the editor says so: then it is offered for it, and added nowhere. */
  replaces?: number;
  /** Aborted when the sender is gone: a file that still waits to be looked at is then dropped. */
  signal?: AbortSignal;
}

/** What became of an arrival: its photo, or a refusal. */
export type Taken =
  Placed | { kind: 'refused'; refusal: Refusal } | { kind: 'words'; name: string; photos: string[] };

type Received = Awaited<ReturnType<Vault['receive']>>;

export class TakeIn {
  /** Places in a set are given one after the other; files arrive several at once. */
  private turn: Promise<unknown> = Promise.resolve();
  private readonly reserved = new Map<number, string>();

  constructor(
    private readonly changes: Changes,
    private readonly vault: Vault,
    private readonly pool: CodecPool,
    private readonly limits: Limits,
    private readonly preparer: Preparer,
  ) {}

  /**
   * Takes one file into a set. A refusal is an answer, not an error: it is kept with its reason.
   * @throws ProblemError no-such-set, no-such-photo, upload-interrupted, disk-full, impossible-edit
   */
  async add(setId: number, { fileName, stream, signal, replaces }: Arrival): Promise<Taken> {
    // Asked for before anything is awaited: the order of the calls is the order of the rows.
    const reserved = this.reserve(setId);
    reserved.catch(() => undefined);
    if (replaces !== undefined) await mustStand(setId, replaces);
    await findSet(setId);
    const position = await reserved;
    let received: Received | null = null;
    try {
      received = await this.receive(stream);
      if (/\.xmp$/i.test(fileName)) return await this.takeWords(setId, fileName, received);
      const looked = await this.look(received, signal);
      const named = { ...(replaces !== undefined && { replaces }), fileName, position };
      try {
        return await place(this.changes, this.vault, setId, { ...looked, ...named });
      } finally {
        // The same file again mends an original that was changed or lost on the disk, whatever becomes of it otherwise.
        const { hash } = received;
        const isMended = this.preparer.lossOf(hash) !== null && (await this.vault.hasWhole(hash));
        if (isMended) await this.preparer.markOriginal(hash, false);
      }
    } catch (error) {
      if (sentenceOfDisk(error)) throw new ProblemError('disk-full', undefined, {}, error);
      if (!(error instanceof RefusedError)) throw error;
      const sentence = error.message.slice(0, 500);
      const refusal = { fileName, bytes: received?.bytes ?? 0, code: error.code, sentence };
      return { kind: 'refused', refusal: await refuse(this.changes, setId, refusal) };
    } finally {
      if (received) await this.vault.discard(received.path);
    }
  }

  /** Words that lie beside a photo in a file of their own. @throws RefusedError for what is none */
  private async takeWords(setId: number, fileName: string, { path, bytes }: Received): Promise<Taken> {
    const found = bytes > LARGEST_SIDECAR ? null : await wordsOfSidecar(await readFile(path));
    if (!found)
      throw new RefusedError(
        'unsupported-format',
        'This XMP file says nothing that a photo’s words are made of: a caption, a title, an alt text or a credit.',
      );
    return { kind: 'words', name: fileName, photos: await takeSidecar(this.changes, setId, fileName, found) };
  }

  private async receive(stream: Readable): Promise<Received> {
    try {
      return await this.vault.receive(stream, this.limits.bytes);
    } catch (error) {
      if (error instanceof RefusedError || sentenceOfDisk(error)) throw error;
      throw new ProblemError('upload-interrupted', undefined, {}, error);
    }
  }

  /** What is known of an original, or found by looking at it. */
  private async look(
    { path, hash, bytes }: Received,
    signal: AbortSignal | undefined,
  ): Promise<Pick<Arrived, 'facts' | 'views' | 'path' | 'isKept'>> {
    const known = await retryOnDatabaseLoss(() => factsOf(hash));
    if (known) return { facts: known, views: null, path, isKept: await this.vault.hasWhole(hash) };
    const job = {
      kind: 'inspect' as const,
      path,
      hash,
      bytes,
      limitPixels: this.limits.pixels,
      incoming: this.vault.incoming,
      views: { row: this.vault.view(hash, 'row'), bench: this.vault.view(hash, 'bench') },
    };
    return { ...(await this.pool.inspect(job, signal)), path, isKept: false };
  }

  /** Takes a file that was offered for a photo into the set beside it. @throws ProblemError no-such-set, no-such-file */
  async addOffered(setId: number, offerId: number): Promise<number> {
    await findSet(setId);
    return addOffered(this.changes, setId, offerId, await this.reserve(setId));
  }

  /** Puts photos of the site that stand in other sets into this one as well. @throws ProblemError no-such-set, no-such-photo */
  async importPhotos(setId: number, photoIds: readonly number[]): Promise<void> {
    await findSet(setId);
    const positions: string[] = [];
    while (positions.length < photoIds.length) positions.push(await this.reserve(setId));
    await importPhotos(this.changes, setId, photoIds, positions);
  }

  /** The next place of a set: files keep the order they were sent in, whichever is ready first. */
  private reserve(setId: number): Promise<string> {
    const result = this.turn.then(async () => {
      const last = await retryOnDatabaseLoss(() => lastPosition(setId));
      const reserved = this.reserved.get(setId) ?? null;
      const behind = reserved !== null && (last === null || reserved > last) ? reserved : last;
      const next = positionBetween(behind, null);
      this.reserved.set(setId, next);
      return next;
    });
    this.turn = result.catch(() => undefined);
    return result;
  }
}
