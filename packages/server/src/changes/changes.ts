// The one way to change what is stored: a transaction that holds what it changes in one order, is carried out once however
// often its answer is lost, and says what it touched, so that all that follows from it follows.
import { randomUUID } from 'node:crypto';
import type { Site } from '@dusky-otter/core/contract';
import { CommandError } from '@dusky-otter/core/edits';
import { UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { putsEverywhere } from '@dusky-otter/core/page';
import { OriginalModel, PhotoModel, SetModel } from '../database/models.ts';
import { retryOnDatabaseLoss } from '../database/retry.ts';
import { ProblemError } from '../problems.ts';
import { answerOf, writeAct } from '../store/acts.ts';
import { findSet } from '../store/sets.ts';
import type { SiteCache } from '../store/site-cache.ts';
import type { Effects } from './effects.ts';
import { outdate } from './outdated.ts';

/** What a change answers, and what it touched. */
export interface Done<T> {
  answer: T;
  effects: Effects;
}

/**
 * What a change works on. Everybody holds the site before the set, the set before photos, and photos before originals, each
 * in the order of its ids: two changes then wait for each other, and never each for the other.
 */
export class Work {
  private stage: 'photos' | 'originals' = 'photos';

  constructor(
    readonly t: Transaction,
    /** As it is until the transaction ends. */
    readonly site: Site,
  ) {}

  /** Holds photos. @returns those that are there, by id */
  async photos(ids: readonly number[]): Promise<Map<number, PhotoModel>> {
    if (this.stage !== 'photos') throw new Error('Photos are held before originals.');
    if (ids.length === 0) return new Map();
    const where = { id: [...ids] };
    const found = await PhotoModel.findAll({
      where,
      order: [['id', 'ASC']],
      transaction: this.t,
      lock: true,
    });
    return new Map(found.map((photo) => [photo.id, photo]));
  }

  /** Holds originals. @returns those that are there, by hash */
  async originals(hashes: readonly string[]): Promise<Map<string, OriginalModel>> {
    this.stage = 'originals';
    if (hashes.length === 0) return new Map();
    const where = { hash: [...hashes] };
    const order: [string, string][] = [['hash', 'ASC']];
    const found = await OriginalModel.findAll({ where, order, transaction: this.t, lock: true });
    return new Map(found.map((original) => [original.hash, original]));
  }
}

/** A change within a set, which is held. */
export class SetWork extends Work {
  constructor(
    t: Transaction,
    site: Site,
    readonly set: SetModel,
  ) {
    super(t, site);
  }

  /** Other sets that are not done any more. */
  readonly outdated = new Set<number>();

  /** The page is another one now. */
  async pageChanged(): Promise<void> {
    const change = { rehearsed: false, handedOver: false, workedAt: new Date() };
    await this.set.update(change, { transaction: this.t });
    await this.othersChanged();
  }

  /** What it puts onto every page is another one now; all sets of the site are held then. */
  async othersChanged(): Promise<void> {
    const { site, set, t, outdated } = this;
    if (putsEverywhere(site, set.id).length === 0) return;
    for (const id of await outdate(site.id, t, ({ id: other }) => other !== set.id)) outdated.add(id);
  }
}

export interface Held {
  /** The site itself is changed, or photos come to it: nobody else holds it meanwhile. */
  forSite?: boolean;
  /** Other sets of the site are touched as well: all of them are held, by their ids. */
  forSets?: boolean;
  /** Names the act. Who sends one again gets the answer again. */
  token?: string;
}

export class Changes {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly sites: SiteCache,
    /** Carries out what follows. */
    private readonly after: (effects: Effects) => Promise<void>,
  ) {}

  /** @throws ProblemError no-such-set; whatever `body` throws: then nothing is changed */
  inSet<T>(setId: number, body: (work: SetWork) => Promise<Done<T>>, held: Held = {}): Promise<T> {
    return this.carryOut(held.token, async (t) => {
      const { siteId } = await findSet(setId, { transaction: t });
      const site = await this.sites.held(siteId, held.forSite ?? false, t);
      // What stands on every page changes them all.
      if (held.forSets || putsEverywhere(site, setId).length > 0)
        await SetModel.findAll({ where: { siteId }, order: [['id', 'ASC']], transaction: t, lock: true });
      const work = new SetWork(t, site, await findSet(setId, { transaction: t, lock: true }));
      const { answer, effects } = await body(work);
      const sets = [...new Set([...(effects.sets ?? []), ...work.outdated])];
      return { answer, effects: { ...effects, ...(sets.length > 0 && { sets }) } };
    });
  }

  /** @throws ProblemError no-such-site; whatever `body` throws: then nothing is changed */
  inSite<T>(siteId: number, body: (work: Work) => Promise<Done<T>>, held: Held = {}): Promise<T> {
    return this.carryOut(held.token, async (t) => body(new Work(t, await this.sites.held(siteId, true, t))));
  }

  /** What belongs to nothing yet: a new site. */
  anew<T>(body: (t: Transaction) => Promise<T>): Promise<T> {
    return this.carryOut(undefined, async (t) => ({ answer: await body(t), effects: {} }));
  }

  private async carryOut<T>(
    token: string | undefined,
    body: (t: Transaction) => Promise<Done<T>>,
  ): Promise<T> {
    const name = token ?? randomUUID();
    try {
      const { answer, effects } = await retryOnDatabaseLoss(() => this.once(name, body));
      await retryOnDatabaseLoss(() => this.after(effects));
      return answer;
    } catch (error) {
      if (error instanceof CommandError) throw new ProblemError('impossible-edit', error.message);
      throw error;
    }
  }

  /** A transaction whose COMMIT was not answered may have been carried out, or still be: its token tells. */
  private async once<T>(token: string, body: (t: Transaction) => Promise<Done<T>>): Promise<Done<T>> {
    try {
      return await this.sequelize.transaction(async (t) => {
        const before = await answerOf(token, t);
        if (before !== null) return before as Done<T>;
        const done = await body(t);
        await writeAct(token, done, t);
        return done;
      });
    } catch (error) {
      const meanwhile = error instanceof UniqueConstraintError ? await answerOf(token) : null;
      if (meanwhile === null) throw error;
      return meanwhile as Done<T>;
    }
  }
}
