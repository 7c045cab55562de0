// Takes a file in: streamed into the vault, hashed on the way, recognised, inspected, and put into a set as a photo.
import type { Readable } from 'node:stream';
import {
  firstFrame,
  NO_WORDS,
  positionBetween,
  type Offer,
  type OriginalFacts,
  type Refusal,
  type Words,
} from '@dusky-otter/core';
import { Op, type Sequelize } from 'sequelize';
import type { CodecPool } from '../codec/pool.ts';
import type { Limits } from '../config.ts';
import {
  MembershipModel,
  OfferModel,
  OriginalModel,
  PhotoModel,
  RefusalModel,
  SetModel,
  SiteModel,
} from '../database/models.ts';
import { PhotoWordsModel } from '../database/words-models.ts';
import { patiently } from '../database/patience.ts';
import { ProblemError, RefusedError, sentenceOfDisk } from '../problems.ts';
import { findSet } from '../sets/sets.ts';
import type { Preparer } from '../prepare/prepare.ts';
import { followPlan } from '../words/plans.ts';
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
  | { kind: 'new' | 'already-here' | 'back-from-bin'; photoId: number }
  | { kind: 'from-another-set'; photoId: number; setName: string }
  | { kind: 'offered'; offer: Offer }
  | { kind: 'refused'; refusal: Refusal };

type Placed = Exclude<Taken, { kind: 'refused' }>;

const wordsFrom = ({ found }: OriginalFacts): Words => ({
  ...NO_WORDS,
  ...found,
});

export class TakeIn {
  /** Places in a set are given one after the other; files arrive several at once. */
  private turn: Promise<unknown> = Promise.resolve();
  private readonly reserved = new Map<number, string>();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly vault: Vault,
    private readonly pool: CodecPool,
    private readonly limits: Limits,
    private readonly preparer: Preparer,
    /** Told of each original that nobody has seen before. */
    private readonly arrived: () => void,
  ) {}

  /**
   * Takes one file into a set. A refusal is an answer, not an error: it is kept with its reason.
   * @throws ProblemError no-such-set, no-such-photo, upload-interrupted, disk-full, impossible-edit
   */
  async add(setId: number, { fileName, stream, signal, replaces }: Arrival): Promise<Taken> {
    if (replaces !== undefined) await this.membership(setId, replaces);
    // Asked for before anything is awaited: the order of the calls is the order of the rows.
    const place = this.inTurn(() => this.reserve(setId));
    const set = await findSet(setId);
    const position = await place;
    let received: { path: string; hash: string; bytes: number } | null = null;
    try {
      received = await this.receive(stream);
      const facts = await this.factsOf(received, signal);
      return await this.inTurn(() => patiently(() => this.place(set, position, fileName, facts, replaces)));
    } catch (error) {
      if (sentenceOfDisk(error)) throw new ProblemError('disk-full', undefined, {}, error);
      if (!(error instanceof RefusedError)) throw error;
      return { kind: 'refused', refusal: await this.refuse(setId, fileName, received?.bytes ?? 0, error) };
    } finally {
      if (received) await this.vault.discard(received.path);
    }
  }

  private async receive(stream: Readable): Promise<{ path: string; hash: string; bytes: number }> {
    try {
      return await this.vault.receive(stream, this.limits.bytes);
    } catch (error) {
      if (error instanceof RefusedError || sentenceOfDisk(error)) throw error;
      throw new ProblemError('upload-interrupted', undefined, {}, error);
    }
  }

  /** Facts of an original that is known already, or of a new one after looking at it. */
  private async factsOf(
    { path, hash, bytes }: { path: string; hash: string; bytes: number },
    signal: AbortSignal | undefined,
  ): Promise<OriginalFacts> {
    const known = await patiently(() => OriginalModel.findByPk(hash));
    if (known) {
      // The same file again mends an original that was changed or lost on the disk.
      if (!(await this.vault.hasWhole(hash))) await this.vault.keepOriginal(path, hash);
      await this.preparer.markOriginal(hash, false);
      return known.facts;
    }
    const job = {
      kind: 'inspect' as const,
      path,
      hash,
      bytes,
      limitPixels: this.limits.pixels,
      incoming: this.vault.incoming,
      views: { row: this.vault.view(hash, 'row'), bench: this.vault.view(hash, 'bench') },
    };
    const { facts, views } = await this.pool.inspect(job, signal);
    await this.vault.keepOriginal(path, hash);
    await patiently(() => OriginalModel.upsert({ hash, facts, views }));
    this.arrived();
    return facts;
  }

  /** The next place of a set: files keep the order they were sent in, whichever is ready first. */
  private async reserve(setId: number): Promise<string> {
    const last = await MembershipModel.max<string | null, MembershipModel>('position', { where: { setId } });
    const reserved = this.reserved.get(setId) ?? null;
    const behind = reserved !== null && (last === null || reserved > last) ? reserved : last;
    const next = positionBetween(behind, null);
    this.reserved.set(setId, next);
    return next;
  }

  private inTurn<T>(body: () => Promise<T>): Promise<T> {
    const result = this.turn.then(body);
    this.turn = result.catch(() => undefined);
    return result;
  }

  /** Gives the photo its row: a new one, or the one it already has in this set or another. */
  private async place(
    set: SetModel,
    position: string,
    fileName: string,
    facts: OriginalFacts,
    replaces?: number,
  ): Promise<Placed> {
    const known = await PhotoModel.findOne({ where: { siteId: set.siteId, originalHash: facts.hash } });
    if (known && replaces !== undefined)
      throw new ProblemError(
        'impossible-edit',
        known.id === replaces
          ? 'This is the file that the photo has already.'
          : `This picture stands in the site already, as “${known.fileName}”.`,
      );
    const namesake = known ? null : (replaces ?? (await this.namesake(set, fileName)));
    if (namesake !== null)
      return { kind: 'offered', offer: await this.offer(set.id, namesake, fileName, facts) };
    if (known) {
      const here = await MembershipModel.findOne({ where: { setId: set.id, photoId: known.id } });
      if (here && !here.binned) return { photoId: known.id, kind: 'already-here' };
      if (here) {
        await here.update({ binned: false });
        await known.increment('version');
        return { photoId: known.id, kind: 'back-from-bin' };
      }
    }
    return this.putInto(set, position, known ?? (await this.newPhoto(set, fileName, facts)), known !== null);
  }

  /** @throws ProblemError no-such-photo where a photo is not in a set, or in its bin */
  private async membership(setId: number, photoId: number): Promise<void> {
    const here = await MembershipModel.findOne({ where: { setId, photoId, binned: false } });
    if (!here) throw new ProblemError('no-such-photo');
  }

  /** The photo of a set that came as a file of this name; the oldest of several. */
  private async namesake(set: SetModel, fileName: string): Promise<number | null> {
    const photos = await PhotoModel.findAll({
      where: { siteId: set.siteId, fileName },
      attributes: ['id'],
      order: [['id', 'ASC']],
    });
    const photoId = photos.map(({ id }) => id);
    const here = await MembershipModel.findAll({ where: { setId: set.id, photoId, binned: false } });
    return photoId.find((id) => here.some((one) => one.photoId === id)) ?? null;
  }

  private async offer(
    setId: number,
    photoId: number,
    fileName: string,
    original: OriginalFacts,
  ): Promise<Offer> {
    const key = { setId, photoId, hash: original.hash };
    const [{ id }] = await OfferModel.findOrCreate({ where: key, defaults: { ...key, fileName } });
    return { id, photo: photoId, fileName, original };
  }

  /**
   * Takes a file that was offered for a photo into the set beside it.
   * @throws ProblemError no-such-file where it is offered no more
   */
  async addOffered(setId: number, offerId: number): Promise<number> {
    const position = await this.inTurn(() => this.reserve(setId));
    const set = await findSet(setId);
    return this.inTurn(() =>
      patiently(async () => {
        const offer = await OfferModel.findOne({ where: { id: offerId, setId } });
        const original = offer && (await OriginalModel.findByPk(offer.hash));
        if (!offer || !original) throw new ProblemError('no-such-file');
        const known = await PhotoModel.findOne({ where: { siteId: set.siteId, originalHash: offer.hash } });
        const photo = known ?? (await this.newPhoto(set, offer.fileName, original.facts));
        if (!(await MembershipModel.findOne({ where: { setId, photoId: photo.id } })))
          await this.putInto(set, position, photo, known !== null);
        // Last: whatever happens before, the file is still offered.
        await offer.destroy();
        return photo.id;
      }),
    );
  }

  /**
   * Puts photos of the site that stand in other sets into this one as well, behind its own; from its bin they come back.
   * @throws ProblemError no-such-photo for one that is not the site's
   */
  async borrow(setId: number, photoIds: readonly number[]): Promise<void> {
    const set = await findSet(setId);
    const photos = await PhotoModel.findAll({ where: { id: photoIds, siteId: set.siteId } });
    if (photos.length !== new Set(photoIds).size) throw new ProblemError('no-such-photo');
    for (const id of photoIds) {
      const photo = photos.find((one) => one.id === id)!;
      const position = await this.inTurn(() => this.reserve(setId));
      await this.inTurn(() =>
        patiently(async () => {
          const here = await MembershipModel.findOne({ where: { setId, photoId: id } });
          if (!here) await this.putInto(set, position, photo, true);
          else if (here.binned) {
            await here.update({ binned: false });
            await photo.increment('version');
          }
        }),
      );
    }
  }

  private async putInto(set: SetModel, position: string, photo: PhotoModel, known: boolean): Promise<Placed> {
    await this.sequelize.transaction(async (transaction) => {
      await MembershipModel.create(
        { setId: set.id, photoId: photo.id, position, follows: true, binned: false },
        { transaction },
      );
      await followPlan(photo, set, known, transaction);
    });
    // The page is another one now.
    await SetModel.update(
      { rehearsed: false, handedOver: false, workedAt: new Date() },
      { where: { id: set.id } },
    );
    if (!known) return { photoId: photo.id, kind: 'new' };
    const elsewhere = await MembershipModel.findOne({
      where: { photoId: photo.id, setId: { [Op.ne]: set.id } },
    });
    const other = elsewhere && (await SetModel.findByPk(elsewhere.setId));
    return { photoId: photo.id, kind: 'from-another-set', setName: other?.name ?? 'another set' };
  }

  private async newPhoto(set: SetModel, fileName: string, facts: OriginalFacts): Promise<PhotoModel> {
    const { languages } = (await SiteModel.findByPk(set.siteId))!;
    return this.sequelize.transaction(async (transaction) => {
      const photo = await PhotoModel.create(
        {
          siteId: set.siteId,
          originalHash: facts.hash,
          fileName,
          frame: firstFrame(facts.attention),
          quality: {},
          version: 1,
        },
        { transaction },
      );
      await PhotoWordsModel.create(
        {
          photoId: photo.id,
          language: languages[0],
          ...wordsFrom(facts),
        },
        { transaction },
      );
      return photo;
    });
  }

  private async refuse(setId: number, fileName: string, bytes: number, error: RefusedError) {
    const refusal = { fileName, bytes, code: error.code, sentence: error.message.slice(0, 500) };
    return patiently(async () => {
      // The same file refused twice needs one row.
      await RefusalModel.destroy({ where: { setId, fileName } });
      const { id } = await RefusalModel.create({ setId, ...refusal });
      return { id, ...refusal };
    });
  }
}
